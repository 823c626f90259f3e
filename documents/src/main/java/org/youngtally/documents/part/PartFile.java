package org.youngtally.documents.part;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/** A file of parts, whose properties can bear a number and a name. */
public abstract class PartFile implements NumberedFile {
    /** The attribute of a part that is its name, and the property that it is written into. */
    public static final String NAME = "name";

    private static final String PACKED = "3mf";
    private static final Set<String> ENDINGS = Set.of("stp", "step", "p21", PACKED);
    private static final String USES = "uses";

    /** The name of the file. */
    final String name;

    /** What the number is written into. */
    final String into;

    private final int number;
    private final List<Item> items = new ArrayList<>();
    private final ItemBounds bounds = new ItemBounds();

    PartFile(String name, int number, String into) {
        this.name = name;
        this.number = number;
        this.into = into;
    }

    /**
     * Adds a part.
     *
     * @param id by which the file knows it
     * @param uses how often it is in others
     */
    final void add(String id, Map<String, String> attributes, int uses) throws UnreadableDocument {
        attributes.put(USES, String.valueOf(uses));
        bounds.add(attributes.size());
        items.add(new Item(
                number + ":" + id,
                number,
                attributes.getOrDefault(into, ""),
                Optional.empty(),
                attributes,
                Optional.empty()));
    }

    /** What the number is written into. */
    public final String property() {
        return into;
    }

    /** The parts that the file is about: those that are components of no other. */
    public final List<Item> whole() {
        return items.stream()
                .filter(item -> item.attributes().get(USES).equals("0"))
                .toList();
    }

    @Override
    public final Sheet sheet() {
        return new Sheet(name, 0, 0);
    }

    @Override
    public final List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public final byte[] with(Map<String, String> changed) throws UnreadableDocument {
        return with(new Texts(changed, Map.of()));
    }

    /** Changes a property of a part. */
    @FunctionalInterface
    interface Edit {
        /** @param id by which the file knows the part */
        void property(String id, String property, String text) throws UnreadableDocument;
    }

    /** Makes each change of a property. */
    final void edit(Texts texts, Edit edit) throws UnreadableDocument {
        for (Map.Entry<String, String> each : texts.changed().entrySet())
            edit.property(id(each.getKey()), into, each.getValue());
        for (Map.Entry<String, Map<String, String>> each : texts.also().entrySet())
            for (Map.Entry<String, String> property : each.getValue().entrySet())
                edit.property(id(each.getKey()), property.getKey(), property.getValue());
    }

    private static String id(String item) {
        return item.substring(item.indexOf(':') + 1);
    }

    /** Whether a file is one, by the ending of its name. */
    public static boolean isPartFile(String name) {
        return ENDINGS.contains(ending(name));
    }

    /** The property that a number is written into where nobody says another, by the name of the file. */
    public static String usual(String name) {
        return ending(name).equals(PACKED) ? PackedPart.PART_NUMBER : StepFile.ID;
    }

    private static String ending(String name) {
        return name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    /**
     * @param name of the file, by whose ending its format is known
     * @param sheet its number among the sheets of a document, from 1
     * @param into what the number is written into; absent for the usual property
     * @return absent for another format
     */
    public static Optional<PartFile> read(byte[] bytes, String name, int sheet, Optional<String> into)
            throws UnreadableDocument {
        if (!isPartFile(name)) return Optional.empty();
        return Optional.of(
                ending(name).equals(PACKED)
                        ? PackedPart.of(bytes, name, sheet, into)
                        : StepFile.of(bytes, name, sheet, into));
    }
}
