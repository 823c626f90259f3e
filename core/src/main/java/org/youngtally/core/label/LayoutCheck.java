package org.youngtally.core.label;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.function.Function;
import java.util.stream.Stream;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.Layout.Advance;
import org.youngtally.core.label.Layout.Alignment;
import org.youngtally.core.label.Layout.Asked;
import org.youngtally.core.label.Layout.Item;
import org.youngtally.core.label.Layout.Mark;
import org.youngtally.core.label.Layout.Sheet;
import org.youngtally.core.label.LayoutDraft.AskDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.core.label.LayoutDraft.SheetDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.PatternException;

/** Turns what somebody wrote into a layout, collecting every fault. */
public final class LayoutCheck {
    private static final int MOST_ITEMS = 200;
    private static final int MOST_IN_A_ROW = 100;
    private static final long LEAST_RESOLUTION = 72;
    private static final long MOST_RESOLUTION = 2_400;
    /** What rounding may add. */
    private static final double SLACK = 0.0005;

    private final List<Fault> faults = new ArrayList<>();

    private LayoutCheck() {}

    /** @param layout absent where there are faults */
    public record Result(Optional<Layout> layout, List<Fault> faults) {}

    public static Result of(LayoutDraft draft) {
        return new LayoutCheck().check(draft);
    }

    private Result check(LayoutDraft draft) {
        DefinitionName.fault("key", draft.key()).ifPresent(faults::add);
        faults.addAll(LayoutDraft.PROPERTIES.faults("", draft));
        double width = size("width", draft.width());
        double height = size("height", draft.height());
        long resolution = draft.resolution() == null ? 300 : draft.resolution();
        if (resolution < LEAST_RESOLUTION || resolution > MOST_RESOLUTION)
            faults.add(new Fault(
                    "resolution",
                    "is " + resolution + " dots per inch",
                    "enter " + LEAST_RESOLUTION + " to " + MOST_RESOLUTION));
        Optional<Sheet> sheet = Optional.ofNullable(draft.sheet()).map(each -> sheet(each, width, height));
        Advance advance = word(draft.advance(), Advance.values(), Advance.LABEL);
        if (advance == Advance.SHEET && sheet.isEmpty())
            faults.add(new Fault("advance", "is sheet, and there is no sheet", "add sheet, or write advance: label"));
        List<Asked> asked = asked(Objects.requireNonNullElse(draft.ask(), List.of()));
        List<Item> items = items(Objects.requireNonNullElse(draft.items(), List.of()), width, height);
        if (!faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        return new Result(
                Optional.of(new Layout(
                        draft.key(),
                        draft.title() == null || draft.title().isBlank()
                                ? draft.key()
                                : draft.title().strip(),
                        width,
                        height,
                        (int) resolution,
                        advance,
                        sheet,
                        asked,
                        items)),
                List.of());
    }

    private static <E extends Enum<E>> E word(String word, E[] words, E usual) {
        return word == null
                ? usual
                : Stream.of(words)
                        .filter(each -> each.name().toLowerCase(Locale.ROOT).equals(word))
                        .findFirst()
                        .orElse(usual);
    }

    /** A length that must be there and more than nothing. */
    private double size(String path, String written) {
        if (written == null) faults.add(new Fault(path, "is missing", "write it in mm, such as 62"));
        double length = length(written, 0);
        if (written != null && length == 0) faults.add(new Fault(path, "is 0", "write more than 0, in mm"));
        return length;
    }

    /** A length; its shape is found fault with elsewhere. */
    private static double length(String written, double otherwise) {
        return written == null || !LayoutDraft.isDecimal(written) ? otherwise : Double.parseDouble(written);
    }

    private Sheet sheet(SheetDraft draft, double width, double height) {
        faults.addAll(SheetDraft.PROPERTIES.faults("sheet.", draft));
        var sheet = new Sheet(
                size("sheet.width", draft.width()),
                size("sheet.height", draft.height()),
                count("sheet.columns", draft.columns()),
                count("sheet.rows", draft.rows()),
                length(draft.left(), 0),
                length(draft.top(), 0),
                length(draft.across(), 0),
                length(draft.down(), 0));
        double across = sheet.left() + sheet.columns() * width + (sheet.columns() - 1) * sheet.across();
        double down = sheet.top() + sheet.rows() * height + (sheet.rows() - 1) * sheet.down();
        if (across > sheet.width() + SLACK)
            faults.add(new Fault(
                    "sheet.columns",
                    sheet.columns() + " labels side by side need " + written(across) + " mm, and the sheet has "
                            + written(sheet.width()),
                    "use fewer columns, or smaller labels, margins or gaps"));
        if (down > sheet.height() + SLACK)
            faults.add(new Fault(
                    "sheet.rows",
                    sheet.rows() + " labels one below the other need " + written(down) + " mm, and the sheet has "
                            + written(sheet.height()),
                    "use fewer rows, or smaller labels, margins or gaps"));
        return sheet;
    }

    private int count(String path, Long written) {
        if (written != null && written >= 1 && written <= MOST_IN_A_ROW) return written.intValue();
        faults.add(new Fault(path, written == null ? "is missing" : "is " + written, "enter 1 to " + MOST_IN_A_ROW));
        return 1;
    }

    private List<Asked> asked(List<AskDraft> drafts) {
        var asked = new ArrayList<Asked>();
        var names = new HashSet<String>();
        for (int i = 0; i < drafts.size(); i++) {
            String path = "ask[" + i + "].";
            String name = drafts.get(i).name();
            faults.addAll(AskDraft.PROPERTIES.faults(path, drafts.get(i)));
            if (name == null || !name.matches(Particulars.FIELD_NAME))
                faults.add(new Fault(
                        path + "name",
                        name == null ? "is missing" : "‘" + name + "’ is not the name of a field",
                        "write small letters, digits and hyphens, such as inspector"));
            else if (!names.add(name))
                faults.add(new Fault(path + "name", "‘" + name + "’ is asked for twice", "keep one"));
            asked.add(new Asked(
                    name,
                    drafts.get(i).title() == null ? name : drafts.get(i).title().strip()));
        }
        return asked;
    }

    private List<Item> items(List<ItemDraft> drafts, double width, double height) {
        if (drafts.isEmpty())
            faults.add(new Fault(
                    "items",
                    "are missing",
                    "add at least one, such as { text: \"{identifier}\", width: 40, height: 6 }"));
        if (drafts.size() > MOST_ITEMS)
            faults.add(new Fault("items", "are " + drafts.size() + " in all", "use at most " + MOST_ITEMS));
        var items = new ArrayList<Item>();
        for (int i = 0; i < drafts.size(); i++)
            item("items[" + i + "].", drafts.get(i), width, height).ifPresent(items::add);
        return items;
    }

    private Optional<Item> item(String path, ItemDraft draft, double width, double height) {
        faults.addAll(ItemDraft.PROPERTIES.faults(path, draft));
        long turn = draft.turn() == null ? 0 : draft.turn();
        if (turn % 90 != 0 || turn < 0 || turn > 270)
            faults.add(new Fault(path + "turn", "is " + turn, "write 0, 90, 180 or 270"));
        Optional<Mark> mark = mark(path, draft);
        boolean flat = draft.line() != null;
        double across = flat ? length(draft.width(), 0) : size(path + "width", draft.width());
        double down = flat ? length(draft.height(), 0) : size(path + "height", draft.height());
        if (mark.isEmpty()) return Optional.empty();
        var item = new Item(length(draft.left(), 0), length(draft.top(), 0), across, down, (int) turn, mark.get());
        if (item.left() + item.across() > width + SLACK)
            faults.add(beyond(path + "left", "right", item.left() + item.across(), width));
        if (item.top() + item.down() > height + SLACK)
            faults.add(beyond(path + "top", "lower", item.top() + item.down(), height));
        return Optional.of(item);
    }

    private static Fault beyond(String path, String edge, double end, double room) {
        return new Fault(
                path,
                "its " + edge + " edge is at " + written(end) + " mm, and the label ends at " + written(room),
                "move it, or make it smaller");
    }

    /** A length for people. */
    static String written(double length) {
        return BigDecimal.valueOf(length)
                .setScale(3, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }

    private Optional<Mark> mark(String path, ItemDraft draft) {
        List<String> said = Stream.of("text", "code", "line", "box", "picture")
                .filter(name -> value(draft, name) != null)
                .toList();
        if (said.size() != 1) {
            faults.add(new Fault(
                    path.substring(0, path.length() - 1),
                    said.isEmpty() ? "shows nothing" : "is " + String.join(" and ", said) + " at once",
                    "write one of text, code, line, box and picture"));
            return Optional.empty();
        }
        if (draft.code() == null) superfluous(path, draft);
        Alignment alignment = word(draft.align(), Alignment.values(), Alignment.LEFT);
        return switch (said.getFirst()) {
            case "text" ->
                template(path + "text", draft.text())
                        .map(template -> new Mark.Text(template, letters(path, draft.size()), alignment));
            case "code" -> code(path, draft, alignment);
            case "line" -> Optional.of(new Mark.Line(size(path + "line", draft.line())));
            case "box" -> Optional.of(new Mark.Frame(size(path + "box", draft.box())));
            default -> Optional.of(new Mark.Picture(draft.picture()));
        };
    }

    private static String value(ItemDraft draft, String name) {
        return switch (name) {
            case "text" -> draft.text();
            case "code" -> draft.code();
            case "line" -> draft.line();
            case "box" -> draft.box();
            default -> draft.picture();
        };
    }

    private void superfluous(String path, ItemDraft draft) {
        Function<String, Fault> fault =
                name -> new Fault(path + name, "is for bar codes alone", "remove it, or write code and the symbology");
        if (draft.content() != null) faults.add(fault.apply("content"));
        if (draft.link() != null) faults.add(fault.apply("link"));
        if (draft.module() != null) faults.add(fault.apply("module"));
        if (draft.transport() != null) faults.add(fault.apply("transport"));
        if (draft.readable() != null) faults.add(fault.apply("readable"));
    }

    private double letters(String path, String written) {
        double size = written == null ? 9 : length(written, 0);
        if (size >= 3 && size <= 400) return size;
        faults.add(new Fault(
                path + "size", "‘" + written + "’ is no size of letters", "write 3 to 400 points, such as 8.5"));
        return 9;
    }

    private Optional<Mark> code(String path, ItemDraft draft, Alignment alignment) {
        Optional<BarCodeKind> kind = BarCodeKind.of(draft.code());
        if (draft.content() == null)
            faults.add(
                    new Fault(path + "content", "is missing", "write what the bar code holds, such as {identifier}"));
        if (draft.content() == null || kind.isEmpty()) return Optional.empty();
        if (draft.link() != null && kind.get().data() != BarCodeKind.Data.TEXT)
            faults.add(new Fault(
                    path + "link", kind.get().word() + " holds elements and no link", "write code: qr or data-matrix"));
        if (draft.link() != null && !draft.link().matches("https?://[^/?#\\s]+(/[^?#\\s]*[^/?#\\s])?"))
            faults.add(new Fault(
                    path + "link",
                    "‘" + draft.link() + "’ is not an address that a link can begin with",
                    "write it without a slash at the end, such as https://id.larkmoor.example"));
        boolean readable = Boolean.TRUE.equals(draft.readable());
        if (readable && !kind.get().isLinear())
            faults.add(new Fault(
                    path + "readable", "is for bar codes that are read along one line", "add a text beside it"));
        return template(path + "content", draft.content())
                .map(template -> new Mark.Code(
                        kind.get(),
                        template,
                        Optional.ofNullable(draft.link()),
                        draft.module() == null
                                ? OptionalDouble.empty()
                                : OptionalDouble.of(size(path + "module", draft.module())),
                        Boolean.TRUE.equals(draft.transport()),
                        readable,
                        letters(path, draft.size()),
                        alignment));
    }

    private Optional<Template> template(String path, String text) {
        try {
            return Optional.of(Template.parse(text));
        } catch (PatternException e) {
            faults.add(new Fault(path, "at symbol " + e.column() + ": " + e.problem(), e.accepted()));
            return Optional.empty();
        }
    }
}
