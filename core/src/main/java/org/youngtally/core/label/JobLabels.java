package org.youngtally.core.label;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;

/**
 * A job with all its labels, as one entry left them.
 *
 * @param seq the entry that began it
 * @param pieces with the numbers, in the order of their places
 * @param stretches with the states, in the same order; two beside each other are in different states
 */
public record JobLabels(long seq, LabelJob job, List<LabelPiece> pieces, List<LabelStretch> stretches) {
    public JobLabels {
        pieces = List.copyOf(pieces);
        stretches = List.copyOf(stretches);
    }

    /** A job that is begun: all its labels wait. */
    public static JobLabels begun(long seq, LabelJob job, List<LabelPiece> pieces) {
        return new JobLabels(
                seq, job, pieces, List.of(new LabelStretch(0, pieces.getLast().to(), LabelState.WAITING)));
    }

    /** How many labels there are, with all copies and all that are printed again. */
    public long size() {
        return pieces.getLast().to() + 1;
    }

    public LabelPiece piece(long place) {
        int low = 0;
        int high = pieces.size() - 1;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (pieces.get(middle).to() < place) low = middle + 1;
            else high = middle;
        }
        return pieces.get(low);
    }

    public LabelState state(long place) {
        return between(place, place).getFirst().state();
    }

    /** With labels behind all others, which wait. */
    public JobLabels with(LabelPiece added) {
        var all = new ArrayList<>(pieces);
        all.add(added);
        return new JobLabels(
                seq,
                job,
                all,
                with(stretches, List.of(new LabelStretch(added.from(), added.to(), LabelState.WAITING))));
    }

    /** With some labels in another state. */
    public JobLabels with(long from, long to, LabelState now) {
        return with(List.of(new LabelStretch(from, to, now)));
    }

    /** @param changed labels in other states, in order */
    public JobLabels with(List<LabelStretch> changed) {
        return new JobLabels(seq, job, pieces, with(stretches, changed));
    }

    /**
     * Stretches with others in the place of whatever is there.
     *
     * @param among in order
     * @param changed in order
     */
    public static List<LabelStretch> with(List<LabelStretch> among, List<LabelStretch> changed) {
        var states = new ArrayList<LabelStretch>();
        Iterator<LabelStretch> next = changed.iterator();
        LabelStretch wanted = next.hasNext() ? next.next() : null;
        for (LabelStretch each : among) {
            long from = each.from();
            while (wanted != null && wanted.from() <= each.to()) {
                if (from < wanted.from()) append(states, new LabelStretch(from, wanted.from() - 1, each.state()));
                append(
                        states,
                        new LabelStretch(
                                Math.max(from, wanted.from()), Math.min(each.to(), wanted.to()), wanted.state()));
                from = wanted.to() + 1;
                if (wanted.to() > each.to()) break;
                wanted = next.hasNext() ? next.next() : null;
            }
            if (from <= each.to()) append(states, new LabelStretch(from, each.to(), each.state()));
        }
        // What lies behind all of them is new.
        for (; wanted != null; wanted = next.hasNext() ? next.next() : null) append(states, behind(states, wanted));
        return states;
    }

    private static LabelStretch behind(List<LabelStretch> states, LabelStretch wanted) {
        long from = states.isEmpty()
                ? wanted.from()
                : Math.max(wanted.from(), states.getLast().to() + 1);
        return new LabelStretch(from, wanted.to(), wanted.state());
    }

    private static void append(List<LabelStretch> to, LabelStretch next) {
        if (!to.isEmpty() && to.getLast().state() == next.state())
            to.set(to.size() - 1, new LabelStretch(to.getLast().from(), next.to(), next.state()));
        else to.add(next);
    }

    /** The stretches between two places, cut to them. */
    public List<LabelStretch> between(long from, long to) {
        return stretches.stream()
                .filter(each -> each.to() >= from && each.from() <= to)
                .map(each -> new LabelStretch(Math.max(from, each.from()), Math.min(to, each.to()), each.state()))
                .toList();
    }

    /**
     * Labels in a row in one state, with numbers of one piece.
     *
     * @param from the place of the first
     * @param to the place of the last
     */
    public record Part(LabelPiece piece, long from, long to, LabelState state) {}

    /** What lies between two places, in order. */
    public List<Part> parts(long from, long to) {
        var parts = new ArrayList<Part>();
        for (LabelStretch stretch : between(from, to))
            for (long place = stretch.from(); place <= stretch.to(); ) {
                LabelPiece piece = piece(place);
                long last = Math.min(piece.to(), stretch.to());
                parts.add(new Part(piece, place, last, stretch.state()));
                place = last + 1;
            }
        return parts;
    }

    /** All labels that bear the number at a position. */
    public List<Part> bearing(int lane, long position) {
        var parts = new ArrayList<Part>();
        for (LabelPiece piece : pieces)
            if (piece.bears(lane, position)) parts.addAll(parts(piece.firstOf(position), piece.lastOf(position)));
        return parts;
    }

    /** How many labels are in each state. */
    public Map<LabelState, Long> counts() {
        var counts = new EnumMap<LabelState, Long>(LabelState.class);
        stretches.forEach(each -> counts.merge(each.state(), each.quantity(), Long::sum));
        return counts;
    }

    /** All labels that wait. */
    public List<LabelStretch> waiting() {
        return stretches.stream()
                .filter(each -> each.state() == LabelState.WAITING)
                .toList();
    }

    /**
     * The first labels that wait.
     *
     * @param most how many at the most
     * @param mostParts in how many {@link Part}s at the most
     */
    public List<LabelStretch> waiting(long most, int mostParts) {
        var first = new ArrayList<LabelStretch>();
        long left = most;
        int parts = 0;
        for (LabelStretch stretch : waiting())
            for (Part part : parts(stretch.from(), stretch.to())) {
                if (left == 0 || parts++ == mostParts) return first;
                long to = Math.min(part.to(), part.from() + left - 1);
                boolean goesOn = !first.isEmpty() && first.getLast().to() + 1 == part.from();
                long from = goesOn ? first.removeLast().from() : part.from();
                first.add(new LabelStretch(from, to, LabelState.WAITING));
                left -= to - part.from() + 1;
            }
        return first;
    }
}
