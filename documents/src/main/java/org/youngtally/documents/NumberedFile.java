package org.youngtally.documents;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.drawing.SvgDrawing;
import org.youngtally.documents.drawing.XmlItems;
import org.youngtally.documents.part.PartFile;
import org.youngtally.documents.program.MarkedProgram;
import org.youngtally.documents.table.JsonItems;
import org.youngtally.documents.table.TableItems;

/** A file with items that can be numbered, as a sheet of a document. */
public interface NumberedFile {
    /** Its size, where it has one. */
    Sheet sheet();

    /** The items, in their order in the file; their text is what is there where the number goes. */
    List<Item> items();

    /**
     * The same file with some texts in the place of others; every other byte stays, but in a workbook and a packed part
     * file, which are packed anew.
     *
     * @param changed new texts by the ids of the items
     */
    byte[] with(Map<String, String> changed) throws UnreadableDocument;

    /**
     * What is written into a file.
     *
     * @param changed new texts where the numbers go, by the ids of the items
     * @param also further properties of part files: texts by their names, by the ids of the items
     */
    record Texts(Map<String, String> changed, Map<String, Map<String, String>> also) {
        public Texts {
            changed = Map.copyOf(changed);
            also = Map.copyOf(also);
        }
    }

    /** Writes the same file with such texts. */
    default void write(Texts texts, OutputStream to) throws IOException, UnreadableDocument {
        if (!texts.also().isEmpty())
            throw new UnreadableDocument("Only part files have further properties", "no also: in the rule");
        to.write(with(texts.changed()));
    }

    /** The same in memory. */
    default byte[] with(Texts texts) throws UnreadableDocument {
        var out = new ByteArrayOutputStream();
        try {
            write(texts, out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /**
     * A picture of the file with what changes marked, an SVG drawing; absent for a file that is none.
     *
     * @param changed new texts by the ids of the items
     */
    default Optional<byte[]> picture(Map<String, String> changed) throws UnreadableDocument {
        return Optional.empty();
    }

    /**
     * The place of each item's element among all {@code text}, {@code tspan}, {@code textPath} and {@code a} elements
     * of SVG in the file, from 0, by the ids of the items; empty for a file that is no drawing.
     */
    default Map<String, Integer> elements() {
        return Map.of();
    }

    /**
     * The lines of a program that are otherwise with some texts in the place of others; empty for other files.
     *
     * @param changed new texts by the ids of the items
     */
    default List<Line> lines(Map<String, String> changed) throws IOException, UnreadableDocument {
        return List.of();
    }

    /**
     * A line that is otherwise.
     *
     * @param line its number, from 1
     * @param before as far as it can be shown
     * @param after the same part of it
     */
    record Line(long line, String before, String after) {}

    /** In how many places of a program a value goes. */
    default int filled() {
        return 0;
    }

    /** How many rows of the table it uses. */
    default int rows() {
        return 0;
    }

    /**
     * How the items of a file are found.
     *
     * @param into where the number goes: the column of a table, the member of JSON, {@code @NAME} for an attribute of
     *     an element, the name of an element within an item of XML, a property of a part; absent for the text of an
     *     element and for the usual property
     * @param path of the items of XML, such as {@code /assembly/part}
     * @param identity the attribute by which items are known; absent for their place in the file, and the id of an
     *     element that has one
     * @param between the marks between which the number goes; absent for all that is there
     * @param marks of a program; empty for none
     * @param values that every item has as attributes, unless the file or the table says otherwise
     * @param rows of the table beside programs, one for each piece; absent for none
     */
    record Reading(
            Optional<String> into,
            Optional<String> path,
            Optional<String> identity,
            Optional<Between> between,
            List<Mark> marks,
            Map<String, String> values,
            Optional<List<Map<String, String>>> rows) {
        /** In the usual way. */
        public static final Reading USUAL =
                new Reading(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());

        public Reading(
                Optional<String> into, Optional<String> path, Optional<String> identity, Optional<Between> between) {
            this(into, path, identity, between, List.of(), Map.of(), Optional.empty());
        }

        /** An attribute of an element. */
        public Optional<String> attribute() {
            return into.filter(name -> name.startsWith("@")).map(name -> name.substring(1));
        }

        /** The same behind so many rows of the table. */
        Reading behind(int used) {
            return new Reading(
                    into,
                    path,
                    identity,
                    between,
                    marks,
                    values,
                    rows.map(all -> all.subList(Math.min(used, all.size()), all.size())));
        }
    }

    /** Marks in a text that stay where they are. */
    record Between(String before, String after) {}

    /**
     * A text of a program.
     *
     * @param replacedBy what replaces it; absent for a text that stays
     * @param begins what begins with it
     */
    record Mark(String text, Optional<String> replacedBy, Optional<String> begins) {}

    /**
     * @param name of the file, by whose ending its format is known
     * @param sheet its number among the sheets of a document, from 1
     */
    static NumberedFile read(byte[] bytes, String name, int sheet, Reading reading) throws UnreadableDocument {
        try {
            return read(Content.of(bytes), name, sheet, reading);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The same of a file that need not be in memory: a program is read as it goes by. */
    static NumberedFile read(Content content, String name, int sheet, Reading reading)
            throws IOException, UnreadableDocument {
        NumberedFile file = format(content, name, sheet, reading);
        if (!reading.values().isEmpty() && reading.marks().isEmpty())
            file = new ItemsWithValues(file, reading.values());
        if (reading.identity().isPresent())
            file = new KnownItems(file, name, reading.identity().get());
        if (reading.between().isPresent())
            file = new MarkedItems(file, reading.between().get());
        return file;
    }

    private static NumberedFile format(Content content, String name, int sheet, Reading reading)
            throws IOException, UnreadableDocument {
        // What marks are said of is a program, whatever its name ends in.
        if (!reading.marks().isEmpty()) return MarkedProgram.read(content, name, sheet, reading);
        if (reading.rows().isPresent())
            throw new UnreadableDocument(
                    "A table beside ‘" + name + "’ is of no use", "marks: in the rule, or no table");
        return format(content.bytes(), name, sheet, reading);
    }

    private static NumberedFile format(byte[] bytes, String name, int sheet, Reading reading)
            throws UnreadableDocument {
        String ending = name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
        Optional<PartFile> part = PartFile.read(bytes, name, sheet, reading.into());
        if (part.isPresent()) return part.get();
        return switch (ending) {
            case "svg" -> {
                if (reading.into().isPresent() && reading.attribute().isEmpty())
                    throw new UnreadableDocument(
                            "A drawing has no ‘" + reading.into().get() + "’ to write numbers into",
                            "into: \"@NAME\" for an attribute of each text, or none for the text itself");
                yield SvgDrawing.read(bytes, name, sheet, reading.attribute());
            }
            case "csv", "xlsx" -> TableItems.read(bytes, name, sheet, into(reading, name, "a column"));
            case "json" -> JsonItems.read(bytes, name, sheet, into(reading, name, "a member"));
            case "xml" -> XmlItems.read(bytes, name, sheet, reading);
            default -> {
                // A path is said of nothing but XML, whatever its name ends in.
                if (reading.path().isPresent()) yield XmlItems.read(bytes, name, sheet, reading);
                throw new UnreadableDocument(
                        "‘" + name + "’ is of no format whose items can be numbered",
                        "a file whose name ends in .svg, .csv, .xlsx, .json, .xml, .stp, .step, .p21 or .3mf; XML, and path: in the rule; or a program, and marks: in the rule");
            }
        };
    }

    private static String into(Reading reading, String name, String what) throws UnreadableDocument {
        return reading.into()
                .orElseThrow(() -> new UnreadableDocument(
                        "The place of the numbers in ‘" + name + "’ is missing", "into: and the name of " + what));
    }
}
