package org.youngtally.core.numbering;

import org.youngtally.core.numbering.Item.Place;

/** Columns and rows of one size that lie over each sheet, counted from 1 from the upper left corner. */
public record Grid(int columns, int rows) {
    public Grid {
        if (columns < 1 || rows < 1) throw new IllegalArgumentException(columns + " columns, " + rows + " rows");
    }

    /**
     * A sheet.
     *
     * @param name for people
     * @param width in its own units
     */
    public record Sheet(String name, double width, double height) {}

    public int column(Place place, Sheet sheet) {
        return cell(place.x(), sheet.width(), columns);
    }

    public int row(Place place, Sheet sheet) {
        return cell(place.y(), sheet.height(), rows);
    }

    /** What lies beyond an edge belongs to the cell beside it. */
    private static int cell(double at, double size, int cells) {
        return (int) Math.clamp(Math.floor(at / size * cells) + 1, 1, cells);
    }
}
