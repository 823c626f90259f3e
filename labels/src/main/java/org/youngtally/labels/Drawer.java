package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.BarCodeKind;
import org.youngtally.core.label.LabelContent;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Item;
import org.youngtally.core.label.Layout.Mark;
import org.youngtally.labels.BarCode.Unfit;
import org.youngtally.labels.Drawing.Ink;
import org.youngtally.labels.Drawing.Part;

/**
 * Draws the labels of a layout. What does not fit its box, or cannot be scanned, is a fault and never cut off. Not for
 * several threads.
 */
public final class Drawer {
    /** What rounding may add, in mm. */
    private static final double SLACK = 0.001;
    /** Between the bars of a bar code and what is written below it, in mm. */
    private static final double BELOW = 0.5;

    private final Layout layout;
    private final Map<Item, Optional<Image>> pictures = new HashMap<>();
    private List<Fault> faults = new ArrayList<>();
    /** How many dots further pictures may have: all of them are in memory. */
    private long dotsLeft = 10_000_000;

    public Drawer(Layout layout) {
        this.layout = layout;
    }

    /** @param faults why it cannot be printed; empty where it can */
    public record Drawn(Drawing drawing, List<Fault> faults) {}

    public Drawn of(LabelContent content) {
        faults = new ArrayList<>();
        var parts = new ArrayList<Part>();
        for (int i = 0; i < layout.items().size(); i++) {
            Item item = layout.items().get(i);
            parts.add(new Part(place(item), ink("items[" + i + "]", item, content)));
        }
        return new Drawn(new Drawing(layout.width(), layout.height(), layout.resolution(), parts), List.copyOf(faults));
    }

    private static AffineTransform place(Item item) {
        AffineTransform place = AffineTransform.getTranslateInstance(item.left(), item.top());
        switch (item.turn()) {
            case 90 -> place.translate(item.height(), 0);
            case 180 -> place.translate(item.width(), item.height());
            case 270 -> place.translate(0, item.width());
            default -> {}
        }
        place.quadrantRotate(item.turn() / 90);
        return place;
    }

    private List<Ink> ink(String path, Item item, LabelContent content) {
        return switch (item.mark()) {
            case Mark.Text text -> text(path, item, text, text.template().of(content));
            case Mark.Code code -> code(path, item, code, code.content().of(content));
            case Mark.Line line -> List.of(new Ink.Line(0, 0, item.width(), item.height(), line.thickness()));
            case Mark.Frame frame -> frame(item, frame.thickness());
            case Mark.Picture picture ->
                pictures.computeIfAbsent(item, added -> picture(path, picture)).stream()
                        .<Ink>map(image -> fitted(item, image))
                        .toList();
        };
    }

    private Optional<Image> picture(String path, Mark.Picture picture) {
        Optional<Image> image = Image.of(picture.base64(), dotsLeft);
        if (image.isEmpty())
            faults.add(new Fault(
                    path + ".picture",
                    "is not a PNG or JPEG picture of at most %,d dots".formatted(dotsLeft),
                    "write the file in Base64, as base64 -w0 writes it"));
        image.ifPresent(
                each -> dotsLeft -= (long) each.dots().getWidth() * each.dots().getHeight());
        return image;
    }

    /** As large as its box allows, in the middle of it. */
    private static Ink fitted(Item item, Image image) {
        double scale = Math.min(
                item.width() / image.dots().getWidth(),
                item.height() / image.dots().getHeight());
        double width = image.dots().getWidth() * scale;
        double height = image.dots().getHeight() * scale;
        return new Ink.Picture((item.width() - width) / 2, (item.height() - height) / 2, width, height, image);
    }

    /** Four bars, so that it lies within its box. */
    private static List<Ink> frame(Item item, double thickness) {
        return List.of(
                new Ink.Bar(0, 0, item.width(), thickness),
                new Ink.Bar(0, item.height() - thickness, item.width(), thickness),
                new Ink.Bar(0, thickness, thickness, item.height() - 2 * thickness),
                new Ink.Bar(item.width() - thickness, thickness, thickness, item.height() - 2 * thickness));
    }

    private List<Ink> text(String path, Item item, Mark.Text text, String written) {
        var ink = new ArrayList<Ink>();
        List<String> lines = written.lines().toList();
        double line = text.size() * Letters.LEADING * Layout.POINT;
        if (lines.size() * line > item.height() + SLACK)
            faults.add(new Fault(
                    path + ".height",
                    (lines.size() == 1 ? "a line" : lines.size() + " lines") + " of " + mm(text.size()) + " points "
                            + (lines.size() == 1 ? "is " : "are ") + mm(lines.size() * line)
                            + " mm high, and its box " + mm(item.height()),
                    "make it higher, or the letters smaller"));
        for (int i = 0; i < lines.size(); i++) {
            String each = lines.get(i);
            if (isMissing(path + ".text", each)) continue;
            double width = Letters.font().width(each, text.size());
            if (width > item.width() + SLACK)
                faults.add(new Fault(
                        path + ".width",
                        "‘" + each + "’ is " + mm(width) + " mm wide, and its box " + mm(item.width()),
                        "make it wider, or size at most " + down(text.size() * item.width() / width)));
            double foot = i * line + text.size() * Letters.ASCENT * Layout.POINT;
            ink.add(new Ink.Text(text.alignment().offset(item.width(), width), foot, text.size(), each));
        }
        return ink;
    }

    private boolean isMissing(String path, String text) {
        OptionalInt missing = Letters.font().missing(text);
        missing.ifPresent(symbol -> faults.add(new Fault(
                path,
                "the font has no ‘" + Character.toString(symbol) + "’ (U+" + "%04X".formatted(symbol) + ") for ‘" + text
                        + "’",
                "use another symbol")));
        return missing.isPresent();
    }

    private List<Ink> code(String path, Item item, Mark.Code code, String held) {
        BarCode bars;
        try {
            bars = BarCode.of(code, held);
        } catch (Unfit unfit) {
            for (Fault fault : unfit.faults())
                faults.add(new Fault(
                        path + ".content",
                        fault.path().isEmpty() ? fault.problem() : fault.path() + " " + fault.problem(),
                        fault.accepted()));
            return List.of();
        }
        var ink = new ArrayList<Ink>();
        double below = code.readable() ? code.size() * Letters.LEADING * Layout.POINT + BELOW : 0;
        double room = item.height() - below;
        double module = module(path, item, code, bars, room);
        BarCodeKind kind = code.kind();
        double quiet = kind.quietLeft() * module;
        double whole = quiet + (bars.columns() + kind.quietRight()) * module;
        double left = toDot(item.left() + code.alignment().offset(item.width(), whole) + quiet) - item.left();
        double high = kind.isLinear() ? room : module;
        double top = kind.isLinear() ? 0 : toDot(item.top() + quiet) - item.top();
        for (BarCode.Bar bar : bars.bars())
            ink.add(new Ink.Bar(
                    left + bar.x() * module, top + bar.y() * high, bar.width() * module, bar.height() * high));
        if (code.readable()) readable(path, item, code, bars.readable()).ifPresent(ink::add);
        return ink;
    }

    /** A place at a dot of the printer, not before this one by more than rounding. */
    private double toDot(double place) {
        return Math.ceil(place / layout.dot() - SLACK) * layout.dot();
    }

    private Optional<Ink> readable(String path, Item item, Mark.Code code, String text) {
        if (isMissing(path + ".content", text)) return Optional.empty();
        double width = Letters.font().width(text, code.size());
        if (width > item.width() + SLACK)
            faults.add(new Fault(
                    path + ".size",
                    "‘" + text + "’ below the bar code is " + mm(width) + " mm wide, and its box " + mm(item.width()),
                    "write size: " + down(code.size() * item.width() / width) + ", or make the box wider"));
        return Optional.of(new Ink.Text(
                (item.width() - width) / 2,
                item.height() - code.size() * (Letters.LEADING - Letters.ASCENT) * Layout.POINT,
                code.size(),
                text));
    }

    /** The width of a module, in whole dots; what is too small to scan is a fault. */
    private double module(String path, Item item, Mark.Code code, BarCode bars, double room) {
        BarCodeKind kind = code.kind();
        BarCodeKind.Size size = kind.size(code.transport());
        int across = kind.quietLeft() + bars.columns() + kind.quietRight();
        int down = kind.quietLeft() + bars.rows() + kind.quietLeft();
        // One dot is kept to come to a whole one.
        double fits = (item.width() - layout.dot()) / across;
        if (!kind.isLinear()) fits = Math.min(fits, (room - layout.dot()) / down);
        double wanted = code.module().orElse(Math.min(fits, size.most()));
        double module = Math.floor(wanted / layout.dot() + SLACK) * layout.dot();
        if (wanted > fits + SLACK)
            faults.add(new Fault(
                    path + ".module",
                    "modules of " + mm(wanted) + " mm make the bar code " + mm(across * wanted)
                            + " mm wide with its quiet zones, and its box has " + mm(item.width())
                            + (kind.isLinear() ? "" : " by " + mm(room)),
                    "make the box larger, or module at most " + down(fits)));
        else if (module < size.least() - SLACK) tooSmall(path, size, module, across, kind);
        else if (module > size.most() + SLACK)
            faults.add(new Fault(
                    path + ".module",
                    "is " + mm(module) + " mm in whole dots",
                    "use at most " + mm(size.most()) + " mm for " + kind.word() + use(size)));
        if (kind.isLinear() && room < size.height() - SLACK)
            faults.add(new Fault(
                    path + ".height",
                    "leaves " + mm(room) + " mm for the bars",
                    "make it at least " + mm(item.height() - room + size.height()) + " mm: bars of " + kind.word()
                            + use(size) + " are " + mm(size.height()) + " mm high"));
        return module;
    }

    private void tooSmall(String path, BarCodeKind.Size size, double module, int across, BarCodeKind kind) {
        double least = Math.ceil(size.least() / layout.dot() - SLACK) * layout.dot();
        double box = Math.ceil((across * least + layout.dot()) * 10) / 10;
        faults.add(new Fault(
                path + ".width",
                "its modules would be " + mm(module) + " mm in whole dots, too small to scan",
                "make the box at least " + mm(box) + " mm wide" + (kind.isLinear() ? "" : " and high")
                        + ": modules of " + kind.word() + use(size) + " are at least " + mm(size.least())
                        + " mm, and whole dots of " + mm(layout.dot())));
    }

    private static String use(BarCodeKind.Size size) {
        return size.transport() ? " in transport" : "";
    }

    /** A length for people. */
    private static String mm(double length) {
        return BigDecimal.valueOf(length)
                .setScale(3, RoundingMode.HALF_UP)
                .stripTrailingZeros()
                .toPlainString();
    }

    /** The most that fits, for people: rounded down. */
    private static String down(double length) {
        return BigDecimal.valueOf(Math.max(0, length))
                .setScale(2, RoundingMode.FLOOR)
                .stripTrailingZeros()
                .toPlainString();
    }
}
