package org.youngtally.documents;

import java.util.HashMap;
import java.util.Map;
import org.youngtally.core.numbering.Item;

/** Items that are known by an attribute, wherever they are in their file. */
final class KnownItems extends ItemsOfAnother {
    private static final int LONGEST = 150;

    /** What the file calls them. */
    private final Map<String, String> ids = new HashMap<>();

    /** @throws UnreadableDocument where two items are known by the same, or one by nothing */
    KnownItems(NumberedFile file, String name, String identity) throws UnreadableDocument {
        super(file);
        for (Item item : file.items()) {
            String known = item.attributes().getOrDefault(identity, "").strip();
            if (known.isEmpty() || known.length() > LONGEST)
                throw new UnreadableDocument(
                        "The item " + item.id() + " of ‘" + name + "’ cannot be known by its " + identity,
                        "a " + identity + " of 1 to " + LONGEST + " symbols for each item, or another identity");
            String id = item.sheet() + ":" + known;
            String other = ids.put(id, item.id());
            if (other != null)
                throw new UnreadableDocument(
                        "The items " + other + " and " + item.id() + " of ‘" + name + "’ have the same " + identity
                                + ", ‘" + known + "’",
                        "each " + identity + " once, or another identity");
            see(item, id, item.text());
        }
    }

    @Override
    Map<String, String> own(Map<String, String> changed) {
        var own = new HashMap<String, String>();
        changed.forEach((id, text) -> own.put(ids.get(id), text));
        return own;
    }

    @Override
    String own(String id) {
        return ids.get(id);
    }

    @Override
    public Map<String, Integer> elements() {
        var elements = new HashMap<String, Integer>();
        Map<String, Integer> own = super.elements();
        ids.forEach((id, known) -> elements.computeIfAbsent(id, added -> own.get(known)));
        return elements;
    }
}
