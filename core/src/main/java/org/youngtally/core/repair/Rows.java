package org.youngtally.core.repair;

import it.unimi.dsi.fastutil.ints.IntArrayList;
import it.unimi.dsi.fastutil.ints.IntArrays;
import it.unimi.dsi.fastutil.longs.LongArrayList;

/** The rows of a table as a plan sees them: 20 bytes for each. */
final class Rows {
    static final int BLANK = 0;
    /** Written as the series writes it. */
    static final int RIGHT = 1;
    /** Read otherwise than it is written. */
    static final int SLIP = 2;
    /** No number. */
    static final int UNREAD = 3;
    /** A number that another row keeps. */
    static final int AGAIN = 4;

    private final IntArrayList lines = new IntArrayList();
    private final IntArrayList kinds = new IntArrayList();
    /** What each is for, see {@link Places}; of a row that was not read why not. */
    private final IntArrayList places = new IntArrayList();

    private final LongArrayList positions = new LongArrayList();

    void add(long line, int kind, int place, long position) {
        lines.add((int) line);
        kinds.add(kind);
        places.add(place);
        positions.add(position);
    }

    int size() {
        return lines.size();
    }

    long line(int row) {
        return lines.getInt(row);
    }

    int kind(int row) {
        return kinds.getInt(row);
    }

    void setKind(int row, int kind) {
        kinds.set(row, kind);
    }

    int place(int row) {
        return places.getInt(row);
    }

    long position(int row) {
        return positions.getLong(row);
    }

    /** The rows that have a number, by lane and position; of those with the same number in the order of the lines. */
    int[] byNumber(Places known) {
        int[] order = new int[size()];
        int count = 0;
        for (int row = 0; row < size(); row++) if (kind(row) == RIGHT || kind(row) == SLIP) order[count++] = row;
        order = IntArrays.trim(order, count);
        IntArrays.parallelQuickSort(order, (one, other) -> {
            int lanes = Integer.compare(known.lane(place(one)), known.lane(place(other)));
            if (lanes != 0) return lanes;
            int numbers = Long.compare(position(one), position(other));
            return numbers != 0 ? numbers : Integer.compare(one, other);
        });
        return order;
    }
}
