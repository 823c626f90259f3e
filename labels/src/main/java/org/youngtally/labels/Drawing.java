package org.youngtally.labels;

import java.awt.geom.AffineTransform;
import java.util.List;

/**
 * What is drawn on one label, in mm from its upper left corner, from the back to the front.
 *
 * @param resolution the dots per inch of the printer
 */
public record Drawing(double width, double height, int resolution, List<Part> parts) {
    public Drawing {
        parts = List.copyOf(parts);
    }

    /** @param place from the place of an item's box to its place on the label */
    record Part(AffineTransform place, List<Ink> ink) {
        Part {
            ink = List.copyOf(ink);
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
