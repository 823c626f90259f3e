package org.youngtally.core.label;

import java.lang.invoke.MethodHandles;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

/** A layout of labels as somebody wrote it, not yet checked; what is absent is null. Lengths are millimetres. */
public record LayoutDraft(
        String key,
        String title,
        String width,
        String height,
        Long resolution,
        String advance,
        SheetDraft sheet,
        List<AskDraft> ask,
        List<ItemDraft> items) {
    public static final List<String> ADVANCES = List.of("label", "sheet", "row", "job");
    public static final Group<LayoutDraft> PROPERTIES = Group.of(
            "a layout",
            MethodHandles.lookup(),
            LayoutDraft.class,
            Property.key("key", "The name that jobs use for it.").required(),
            Property.title("key"),
            length("width", "The width of a label, in mm.").required(),
            length("height", "The height of a label, in mm.").required(),
            Property.whole(
                            "resolution",
                            "resolution",
                            "The dots per inch of the printer: modules of bar codes are whole dots.")
                    .usually(300L),
            Property.word("advance", "advance", ADVANCES, "Before which a new identifier is used.")
                    .usually("label"),
            Property.of(
                            "sheet",
                            "sheet",
                            new Shape.One<>(SheetDraft.PROPERTIES),
                            "The sheet on which several labels are.")
                    .otherwise("one label a page"),
            Property.of(
                            "ask",
                            "ask",
                            new Shape.Many<>(() -> AskDraft.PROPERTIES, 1, "a list of fields"),
                            "Fields that are asked for when labels are printed.")
                    .otherwise("none"),
            Property.of(
                            "items",
                            "items",
                            new Shape.Many<>(() -> ItemDraft.PROPERTIES, 1, "a list of items"),
                            "What is on a label, from the back to the front.")
                    .required());

    /** A length in mm. */
    private static Property<String> length(String name, String meaning) {
        return Property.of(name, name, new Shape.Decimal(), meaning)
                .checked((path, value) -> isDecimal(value)
                        ? Optional.empty()
                        : Optional.of(new Fault(
                                path,
                                "‘" + value + "’ is not a length in mm",
                                "write up to 9999 with at most three places behind a point, such as 62.5")));
    }

    static boolean isDecimal(String text) {
        return text.matches("[0-9]{1,4}([.][0-9]{1,3})?");
    }

    /** The sheet on which several labels are. */
    public record SheetDraft(
            String width, String height, Long columns, Long rows, String left, String top, String across, String down) {
        public static final Group<SheetDraft> PROPERTIES = Group.of(
                "a sheet",
                MethodHandles.lookup(),
                SheetDraft.class,
                length("width", "The width of the sheet, in mm.").required(),
                length("height", "The height of the sheet, in mm.").required(),
                Property.whole("columns", "columns", "How many labels are side by side.")
                        .required(),
                Property.whole("rows", "rows", "How many labels are one below the other.")
                        .required(),
                length("left", "The margin at the left, in mm.").usually("0"),
                length("top", "The margin at the top, in mm.").usually("0"),
                length("across", "The gap between two columns, in mm.").usually("0"),
                length("down", "The gap between two rows, in mm.").usually("0"));
    }

    /** A field that is asked for when labels are printed. */
    public record AskDraft(String name, String title) {
        public static final Group<AskDraft> PROPERTIES = Group.of(
                "a field",
                MethodHandles.lookup(),
                AskDraft.class,
                Property.fieldName("name", "name", "The field, as {field NAME} writes it.")
                        .required(),
                Property.title("name"));
    }

    /** Something on a label: one of a text, a bar code, a line, a box and a picture. */
    public record ItemDraft(
            String text,
            String code,
            String line,
            String box,
            String picture,
            String left,
            String top,
            String width,
            String height,
            String size,
            String align,
            Long turn,
            String content,
            String link,
            String module,
            Boolean transport,
            Boolean readable) {
        public static final List<String> ALIGNMENTS = List.of("left", "center", "right");
        public static final Group<ItemDraft> PROPERTIES = Group.of(
                "an item",
                MethodHandles.lookup(),
                ItemDraft.class,
                Property.text("text", "text", "A text with places in braces, such as No. {identifier}.")
                        .otherwise("no text"),
                Property.word("code", "code", BarCodeKind.words(), "A bar code of this symbology.")
                        .otherwise("no bar code"),
                length("line", "A line of this thickness from one corner of its box to the opposite one, in mm.")
                        .otherwise("no line"),
                length("box", "A frame of this thickness, in mm.").otherwise("no frame"),
                Property.text("picture", "picture", "A picture: a PNG or JPEG file in Base64.")
                        .otherwise("no picture"),
                length("left", "From the left edge of the label, in mm.").usually("0"),
                length("top", "From the top edge of the label, in mm.").usually("0"),
                length("width", "The width of its box before it is turned, in mm.")
                        .required(),
                length("height", "The height of its box before it is turned, in mm.")
                        .required(),
                Property.of("size", "size", new Shape.Decimal(), "The size of the letters, in points, 3 to 400.")
                        .usually("9"),
                Property.word("align", "align", ALIGNMENTS, "Where it is in the width of its box.")
                        .usually("left"),
                Property.whole("turn", "turn", "By how many degrees its box is turned clockwise: 0, 90, 180 or 270.")
                        .usually(0L),
                Property.text(
                                "content",
                                "content",
                                "What the bar code holds, with places in braces; GS1 elements with parentheses, such as (00){identifier}.")
                        .otherwise("none"),
                Property.text(
                                "link",
                                "link",
                                "The address with which a GS1 Digital Link of the same elements begins; the bar code holds the link.")
                        .otherwise("the elements themselves"),
                length("module", "The module of the bar code, in mm, rounded down to whole dots.")
                        .otherwise("the largest that fits"),
                Property.flag(
                        "transport",
                        "transport",
                        "Whether the bar code is scanned in transport and warehousing, where it must be larger."),
                Property.flag("readable", "readable", "Whether what the bar code holds is written below it."));
    }
}
