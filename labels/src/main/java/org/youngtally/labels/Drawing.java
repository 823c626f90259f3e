package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.label.Layout;

/**
 * What is drawn on one label, in mm from its upper left corner, from the back to the front.
 *
 * @param resolution the dots per inch of the printer
 */
public record Drawing(double width, double height, int resolution, List<Part> parts) {
    private static final String EXPECTED = "expected";

    public Drawing {
        parts = List.copyOf(parts);
    }

    /** About how many bytes it is as a drawing in PDF. */
    long size() {
        return parts.stream()
                .flatMap(part -> part.ink().stream())
                .mapToLong(
                        ink -> ink instanceof Ink.Text text ? 100L + text.text().length() * 4L : 40)
                .sum();
    }

    /** The same with a word in light gray behind everything: that its number is expected, and not allocated. */
    public Drawing expected() {
        double size = Math.min(height / 3, width / 4) / Layout.POINT;
        double wide = Letters.font().width(EXPECTED, size);
        double scale = Math.min(1, width * 0.9 / wide);
        var all = new ArrayList<Part>();
        all.add(new Part(
                new AffineTransform(),
                List.of(new Ink.Text((width - wide * scale) / 2, height * 0.62, size * scale, EXPECTED)),
                0.85f));
        all.addAll(parts);
        return new Drawing(width, height, resolution, all);
    }

    /**
     * @param place from the place of an item's box to its place on the label
     * @param gray 0 for black to 1 for white
     */
    record Part(AffineTransform place, List<Ink> ink, float gray) {
        Part {
            ink = List.copyOf(ink);
        }

        Part(AffineTransform place, List<Ink> ink) {
            this(place, ink, 0);
        }
    }

    /** Something in black. */
    sealed interface Ink {
        /** A filled rectangle. */
        record Bar(double x, double y, double width, double height) implements Ink {}

        /**
         * A text on one line.
         *
         * @param y the foot of its letters
         * @param size of the letters, in points
         */
        record Text(double x, double y, double size, String text) implements Ink {}

        record Line(double fromX, double fromY, double toX, double toY, double thickness) implements Ink {}

        /** @param file a PNG or JPEG file */
        record Picture(double x, double y, double width, double height, Image file) implements Ink {}
    }
}
