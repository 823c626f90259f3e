package org.youngtally.core.numbering;

import java.lang.invoke.MethodHandles;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

/** A rule by which documents are numbered, as somebody wrote it; what is absent is null. */
public record RuleDraft(
        String title,
        String path,
        String into,
        List<String> between,
        String identity,
        List<ChoiceDraft> choose,
        List<OrderDraft> order,
        GridDraft grid,
        List<String> restarts,
        String same,
        String number,
        String pattern,
        String start,
        Long step,
        Boolean repeats,
        String series,
        String document,
        String write,
        List<MarkDraft> marks,
        List<ValueDraft> values,
        List<AlsoDraft> also,
        String kind,
        String unit,
        String fileName) {
    private static final Shape.Texts TEXTS = new Shape.Texts("", true, true, "[call-out, note]");
    public static final Group<RuleDraft> PROPERTIES = Group.of(
            "a rule",
            MethodHandles.lookup(),
            RuleDraft.class,
            Property.line("title", "title", 200, "The name for people.").otherwise("none"),
            Property.text(
                            "path",
                            "path",
                            "The way to the elements of an XML file that are items, such as /assembly/part.")
                    .otherwise("required for XML, of no use for others"),
            Property.text(
                            "into",
                            "into",
                            "Where the number goes: the column of a table, the member of JSON, \"@NAME\" for an attribute of an element, the name of an element within an item of XML, a property of a part file.")
                    .otherwise("the text of the element; id in STEP, partnumber in 3MF"),
            Property.of(
                            "between",
                            "between",
                            new Shape.Texts("", false, true, "[\"[\", \"]\"]"),
                            "Two marks in the text, between which the number goes; texts without them are no items.")
                    .otherwise("the whole text"),
            Property.text(
                            "identity",
                            "identity",
                            "The attribute by which items are known, whatever their place in the file; each has its own.")
                    .otherwise("the id of an element, or the place in the file"),
            Property.of(
                            "choose",
                            "choose",
                            new Shape.Many<>(() -> ChoiceDraft.PROPERTIES, 1, "a list of tests"),
                            "Which items are numbered: those that pass every test.")
                    .otherwise("all"),
            Property.of(
                            "order",
                            "order",
                            new Shape.Many<>(() -> OrderDraft.PROPERTIES, 1, "a list of keys"),
                            "In what order they are counted: by the first key, what it leaves equal by the next one.")
                    .otherwise("as they are listed, or picked"),
            Property.of(
                            "grid",
                            "grid",
                            new Shape.One<>(GridDraft.PROPERTIES),
                            "A grid over each sheet, whose column and row are attributes.")
                    .otherwise("none"),
            Property.of(
                            "restarts",
                            "restarts",
                            TEXTS,
                            "The attributes with each of whose values the count begins again: sheet, column, row or any other.")
                    .otherwise("never"),
            Property.text("same", "same", "The attribute by which items are the same thing and share one number.")
                    .otherwise("each item has its own"),
            Property.word(
                            "number",
                            "number",
                            List.of("missing", "all", "none"),
                            "Which of them get a number: those without, behind the others; all, from the start; none, to clear what is there.")
                    .usually("missing"),
            Property.text("pattern", "pattern", "The pattern of the numbers, with attributes as fields.")
                    .otherwise("that of the series"),
            Property.text("start", "start", "The first value of each group, a sum of whole numbers and attributes.")
                    .usually("1"),
            Property.whole("step", "step", "From one value to the next.").usually(1L),
            Property.flag("repeats", "repeats", "Whether a number may occur in several groups."),
            Property.text("series", "series", "The series that the numbers are allocated from.")
                    .otherwise("the document counts itself"),
            Property.text(
                            "document",
                            "document",
                            "The name of the document in the ledger, required with a series: items are unique within it. {file} is the name of the first file without its ending, and values are in braces too: a rule that is used again needs one of them.")
                    .otherwise("none"),
            Property.text("write", "write", "What is written: {new}, {old} and attributes in braces.")
                    .usually("{new}"),
            Property.of(
                            "marks",
                            "marks",
                            new Shape.Many<>(() -> MarkDraft.PROPERTIES, 1, "a list of marks"),
                            "Texts of a program that are replaced, or with which something begins; with them any file is read as text.")
                    .otherwise("none"),
            Property.of(
                            "values",
                            "values",
                            new Shape.Many<>(() -> ValueDraft.PROPERTIES, 1, "a list of values"),
                            "What every item has as an attribute, unless its file or its table says otherwise.")
                    .otherwise("none"),
            Property.of(
                            "also",
                            "also",
                            new Shape.Many<>(() -> AlsoDraft.PROPERTIES, 1, "a list of properties"),
                            "Other properties of part files that are written beside the number.")
                    .otherwise("none"),
            Property.text(
                            "kind",
                            "kind",
                            "The kind of record whose routes lead each item to a series, by the attributes that are its fields.")
                    .otherwise("none"),
            Property.text("unit", "unit", "The unit whose routes they are, required with a kind.")
                    .otherwise("none"),
            Property.text(
                            "file-name",
                            "fileName",
                            "The name of each numbered file, without its ending: values in braces, {file} for its own name, and {new} where it has one item.")
                    .otherwise("its own name, with -numbered behind it"));

    /** A text of a program that is replaced, or with which something begins. */
    public record MarkDraft(String text, String replacedBy, String begins) {
        /** What replaces the mark of a number. */
        public static final String NUMBER = "number";
        /** What begins with the mark of a piece. */
        public static final String PIECE = "piece";

        public static final Group<MarkDraft> PROPERTIES = Group.of(
                "a mark",
                MethodHandles.lookup(),
                MarkDraft.class,
                Property.text("text", "text", "What is in the file, letter by letter.")
                        .required(),
                Property.text(
                                "replaced-by",
                                "replacedBy",
                                "What replaces it: number for the number of the piece, or the name of a value or of a column of the table.")
                        .otherwise("nothing: it stays"),
                Property.text(
                                "begins",
                                "begins",
                                "What begins with it: piece for a piece that gets a number, or another name for a section of pieces, whose running number is an attribute.")
                        .otherwise("nothing; a piece begins at each mark of a number where no mark begins a piece"));
    }

    /** A value with its name. */
    public record ValueDraft(String name, String value) {
        public static final Group<ValueDraft> PROPERTIES = Group.of(
                "a value",
                MethodHandles.lookup(),
                ValueDraft.class,
                Property.text("name", "name", "Its name.").required(),
                Property.text("value", "value", "The value; \"\" where it is said when the rule is used.")
                        .required());
    }

    /** A property that is written beside the number. */
    public record AlsoDraft(String into, String write) {
        public static final Group<AlsoDraft> PROPERTIES = Group.of(
                "a property",
                MethodHandles.lookup(),
                AlsoDraft.class,
                Property.text(
                                "into",
                                "into",
                                "The property: name or description in STEP, name or an entry of the metadata in 3MF.")
                        .required(),
                Property.text(
                                "write",
                                "write",
                                "What is written: {new}, {old} for what is there, and attributes in braces.")
                        .required());
    }

    /** A test of items. */
    public record ChoiceDraft(
            String attribute, List<String> values, List<String> text, BoxDraft within, List<String> picked) {
        public static final Group<ChoiceDraft> PROPERTIES = Group.of(
                "a test",
                MethodHandles.lookup(),
                ChoiceDraft.class,
                Property.text("attribute", "attribute", "The attribute that has one of the values.")
                        .otherwise("none"),
                Property.of("values", "values", TEXTS, "The values of the attribute; \"\" for none.")
                        .otherwise("none"),
                Property.of("text", "text", TEXTS, "Texts, one of which is there.")
                        .otherwise("any"),
                Property.of(
                                "within",
                                "within",
                                new Shape.One<>(BoxDraft.PROPERTIES),
                                "A box of each sheet in which the item is.")
                        .otherwise("anywhere"),
                Property.of(
                                "picked",
                                "picked",
                                TEXTS,
                                "Items that were picked, in their order, as the plan names them.")
                        .otherwise("any"));
    }

    /** A box of each sheet. */
    public record BoxDraft(String left, String top, String right, String bottom) {
        public static final Group<BoxDraft> PROPERTIES = Group.of(
                "a box",
                MethodHandles.lookup(),
                BoxDraft.class,
                measure("left", "Its left edge, in the units of the sheet.").required(),
                measure("top", "Its upper edge.").required(),
                measure("right", "Its right edge.").required(),
                measure("bottom", "Its lower edge.").required());
    }

    /** A key of an order. */
    public record OrderDraft(
            String by, String attribute, String tolerance, Boolean descending, Boolean linesDescending) {
        public static final Group<OrderDraft> PROPERTIES = Group.of(
                "a key",
                MethodHandles.lookup(),
                OrderDraft.class,
                Property.word(
                                "by",
                                "by",
                                List.of("rows", "columns", "x", "y"),
                                "Row by row, column by column, along x or along y.")
                        .otherwise("by the attribute"),
                Property.text("attribute", "attribute", "The attribute, whose digits are compared as numbers.")
                        .otherwise("by the place"),
                measure(
                                "tolerance",
                                "How far items of a row or column may be from its first one, in the units of the sheet.")
                        .usually("0"),
                Property.flag(
                        "descending", "descending", "From the end: from the right, from below, from the greatest."),
                Property.flag("lines-descending", "linesDescending", "Whether the last row or column comes first."));
    }

    /** A grid over each sheet. */
    public record GridDraft(Long columns, Long rows) {
        public static final Group<GridDraft> PROPERTIES = Group.of(
                "a grid",
                MethodHandles.lookup(),
                GridDraft.class,
                Property.whole("columns", "columns", "How many columns the sheet has.")
                        .usually(1L),
                Property.whole("rows", "rows", "How many rows the sheet has.").usually(1L));
    }

    /** A length or a place, in the units of a sheet. */
    private static Property<String> measure(String name, String meaning) {
        return Property.of(name, name, new Shape.Decimal(), meaning)
                .checked((path, value) -> value.matches("-?[0-9]{1,6}([.][0-9]{1,3})?")
                        ? Optional.empty()
                        : Optional.of(new Fault(
                                path,
                                "‘" + value + "’ is not a measure",
                                "write up to 6 digits with at most three places behind a point, such as 62.5")));
    }
}
