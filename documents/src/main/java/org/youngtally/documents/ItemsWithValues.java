package org.youngtally.documents;

import java.util.HashMap;
import java.util.Map;
import org.youngtally.core.numbering.Item;

/** Items that have some attributes in common, which the file says nothing of. */
final class ItemsWithValues extends ItemsOfAnother {
    ItemsWithValues(NumberedFile file, Map<String, String> values) throws UnreadableDocument {
        super(file);
        var bounds = new ItemBounds();
        for (Item item : file.items()) {
            var attributes = new HashMap<>(values);
            // What the file says comes first, unless it says nothing.
            item.attributes().forEach((name, value) -> {
                if (!value.isBlank()) attributes.put(name, value);
                else attributes.putIfAbsent(name, value);
            });
            bounds.add(attributes.size());
            see(item, item.id(), item.text(), attributes);
        }
    }

    @Override
    Map<String, String> own(Map<String, String> changed) {
        return changed;
    }
}
