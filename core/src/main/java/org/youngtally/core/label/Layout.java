package org.youngtally.core.label;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;

/**
 * How labels look. One that exists has been checked: everything on it lies on it, and it fits its sheet. Lengths are
 * millimetres from the upper left corner.
 *
 * @param resolution the dots per inch of the printer
 * @param sheet on which several labels are; absent where each is a page of its own
 * @param asked the fields that are asked for when labels are printed
 * @param items from the back to the front
 */
public record Layout(
        String key,
        String title,
        double width,
        double height,
        int resolution,
        Advance advance,
        Optional<Sheet> sheet,
        List<Asked> asked,
        List<Item> items) {
    /** Millimetres of an inch. */
    public static final double INCH = 25.4;
    /** Millimetres of a point. */
    public static final double POINT = INCH / 72;

    public Layout {
        asked = List.copyOf(asked);
        items = List.copyOf(items);
    }

    /** Before which a new identifier is used. */
    public enum Advance {
        LABEL,
        SHEET,
        ROW,
        JOB
    }

    /** The side of a dot of the printer. */
    public double dot() {
        return INCH / resolution;
    }

    /** The fields that its texts show. */
    public Set<String> fields() {
        var fields = new TreeSet<String>();
        for (Item item : items)
            switch (item.mark()) {
                case Mark.Text text -> fields.addAll(text.template().fields());
                case Mark.Code code -> fields.addAll(code.content().fields());
                case Mark.Line line -> {}
                case Mark.Frame frame -> {}
                case Mark.Picture picture -> {}
            }
        return fields;
    }

    /**
     * A sheet with labels in columns and rows.
     *
     * @param left the margin at the left
     * @param across the gap between two columns
     * @param down the gap between two rows
     */
    public record Sheet(
            double width, double height, int columns, int rows, double left, double top, double across, double down) {
        public int labels() {
            return columns * rows;
        }
    }

    /** A field that is asked for when labels are printed. */
    public record Asked(String name, String title) {}

    /**
     * Something in its place.
     *
     * @param turn by how many degrees the box is turned clockwise: 0, 90, 180 or 270; its corner stays the upper left
     *     one of the turned box
     */
    public record Item(double left, double top, double width, double height, int turn, Mark mark) {
        /** Its width on the label. */
        public double across() {
            return turn % 180 == 0 ? width : height;
        }

        /** Its height on the label. */
        public double down() {
            return turn % 180 == 0 ? height : width;
        }
    }

    /** Where something is in the width of its box. */
    public enum Alignment {
        LEFT,
        CENTER,
        RIGHT;

        /** From the left of a box to what is in it. */
        public double offset(double room, double width) {
            return switch (this) {
                case LEFT -> 0;
                case CENTER -> (room - width) / 2;
                case RIGHT -> room - width;
            };
        }
    }

    /** What is seen. */
    public sealed interface Mark {
        /** @param size of the letters, in points */
        record Text(Template template, double size, Alignment alignment) implements Mark {}

        /**
         * @param link with what a GS1 Digital Link of the elements begins; absent where it holds the elements
         * @param module the module's width; absent for the largest that fits
         * @param transport whether it is scanned in transport and warehousing
         * @param readable whether what it holds is written below it
         * @param size of the letters below it, in points
         */
        record Code(
                BarCodeKind kind,
                Template content,
                Optional<String> link,
                OptionalDouble module,
                boolean transport,
                boolean readable,
                double size,
                Alignment alignment)
                implements Mark {}

        /** From the upper left corner of its box to the lower right one; its box may have no width or no height. */
        record Line(double thickness) implements Mark {}

        record Frame(double thickness) implements Mark {}

        /** @param base64 a PNG or JPEG file */
        record Picture(String base64) implements Mark {}
    }
}
