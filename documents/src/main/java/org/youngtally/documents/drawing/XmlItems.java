package org.youngtally.documents.drawing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/**
 * Elements of XML as items, found by a path. The attributes of an item are those of its element, the texts of the
 * elements in it that have nothing but text, and the attributes of all around it behind the name of their element, such
 * as {@code division-number}.
 */
public final class XmlItems implements NumberedFile {
    private static final Pattern STEP = Pattern.compile("(//?)([\\p{L}_*][\\p{L}\\p{N}_.-]*)");
    private static final Pattern PATH = Pattern.compile("(" + STEP + ")+");

    private final byte[] bytes;
    private final Sheet sheet;
    private final Reading reading;
    private final List<Step> steps;
    private final ItemBounds bounds = new ItemBounds();
    private final List<Item> items = new ArrayList<>();
    private final Map<String, Element> targets = new HashMap<>();

    private XmlItems(byte[] bytes, String name, Reading reading, List<Step> steps) {
        this.bytes = bytes;
        this.sheet = new Sheet(name, 0, 0);
        this.reading = reading;
        this.steps = steps;
    }

    /**
     * @throws UnreadableDocument for what is no XML, a path that is none, and an item without a place for its number
     */
    public static XmlItems read(byte[] bytes, String name, int number, Reading reading) throws UnreadableDocument {
        String path = reading.path()
                .orElseThrow(() -> new UnreadableDocument(
                        "The path to the items of ‘" + name + "’ is missing",
                        "path: and the way to them, such as /assembly/part or //part"));
        if (!PATH.matcher(path).matches())
            throw new UnreadableDocument(
                    "‘" + path + "’ is no path", "names of elements behind / or //, such as /assembly/part; * for any");
        var found = new XmlItems(bytes, name, reading, Step.of(path));
        found.walk(ElementReader.xml(bytes), number, Set.of(0), Map.of());
        return found;
    }

    /**
     * One step of the path.
     *
     * @param deeper whether it may be any number of elements deeper
     * @param name {@code *} for any
     */
    private record Step(boolean deeper, String name) {
        static List<Step> of(String path) {
            return STEP.matcher(path)
                    .results()
                    .map(found -> new Step(found.group(1).equals("//"), found.group(2)))
                    .toList();
        }

        boolean matches(Element element) {
            return name.equals("*") || name.equals(element.name());
        }
    }

    /** @param reached how many steps of the path may be behind, in front of this element */
    private void walk(Element element, int number, Set<Integer> reached, Map<String, String> around)
            throws UnreadableDocument {
        var next = new TreeSet<Integer>();
        for (int behind : reached) {
            Step step = steps.get(behind);
            if (step.deeper()) next.add(behind);
            if (step.matches(element)) next.add(behind + 1);
        }
        if (next.remove(steps.size())) add(element, number, around);
        if (next.isEmpty() || element.children().isEmpty()) return;
        var inner = new HashMap<>(around);
        element.attributes().forEach((name, value) -> inner.put(element.name() + "-" + name, value));
        ItemBounds.one(inner.size());
        for (Element child : element.children()) walk(child, number, next, inner);
    }

    private void add(Element element, int number, Map<String, String> around) throws UnreadableDocument {
        String id =
                number + ":" + element.attribute("id").map(each -> "id " + each).orElse("item " + (items.size() + 1));
        var attributes = new TreeMap<>(around);
        attributes.putAll(element.attributes());
        for (Element child : element.children())
            if (child.children().isEmpty())
                attributes.putIfAbsent(child.name(), child.text().strip());
        bounds.add(attributes.size());
        Element target = target(element, id);
        if (targets.put(id, target) != null)
            throw new UnreadableDocument(
                    "Two elements have the id ‘" + id.substring(id.indexOf(':') + 1) + "’", "each id once");
        String text = reading.attribute()
                .map(attribute -> target.attribute(attribute.substring(attribute.indexOf(':') + 1))
                        .orElse(""))
                .orElse(target.text());
        items.add(new Item(id, number, text, Optional.empty(), attributes, Optional.empty()));
    }

    /** The element that has the number. */
    private Element target(Element element, String id) throws UnreadableDocument {
        if (reading.attribute().isPresent()) return element;
        Element target = element;
        if (reading.into().isPresent())
            target = element.children().stream()
                    .filter(child -> child.name().equals(reading.into().get()))
                    .findFirst()
                    .orElseThrow(() -> new UnreadableDocument(
                            "The item " + id + " has no element <"
                                    + reading.into().get() + "> for its number",
                            "the element in each item, or into: \"@NAME\" for an attribute"));
        if (!target.children().isEmpty())
            throw new UnreadableDocument(
                    "The element <" + target.name() + "> of the item " + id + " has elements in it",
                    "into: and the name of one that has nothing but text, or \"@NAME\" for an attribute");
        return target;
    }

    @Override
    public Sheet sheet() {
        return sheet;
    }

    @Override
    public List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public byte[] with(Map<String, String> changed) {
        var edits = new ElementEdits(bytes);
        changed.forEach((id, text) -> {
            Element target = targets.get(id);
            if (reading.attribute().isPresent())
                edits.attribute(target, reading.attribute().get(), text);
            else edits.text(target, text);
        });
        return edits.applied();
    }
}
