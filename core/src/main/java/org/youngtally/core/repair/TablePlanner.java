package org.youngtally.core.repair;

import it.unimi.dsi.fastutil.longs.LongArrayList;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.PlanStep.InUse;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.reading.Deviation;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;

/**
 * Plans what is done with the numbers of a table: it gets every row once, and then says of each what becomes of it. It
 * keeps some 20 bytes for each row.
 */
public final class TablePlanner {
    /** Texts that are no numbers: of more than these it is the wrong table, or the wrong series. */
    public static final int MOST_UNREAD = 100_000;
    /** Each is an object in memory. */
    private static final int MOST_CHANGES = 1_500_000;

    private static final int MOST_STRETCHES = 1_500_000;
    /** Numbers for the same are kept in stretches without their texts only where there are many. */
    private static final int MANY = 1_000;

    private final Series series;
    private final SeriesReader reader;
    private final Fields fields;
    private final Choices choices;
    private final Rows rows = new Rows();
    private final Places places = new Places();
    private final Map<Located.Place, Integer> undated = new IdentityHashMap<>();
    private final LongArrayList dates = new LongArrayList();
    private int unread;

    public TablePlanner(SeriesReader reader, Fields fields, Choices choices) {
        this.series = reader.series();
        this.reader = reader;
        this.fields = fields;
        this.choices = choices;
    }

    /**
     * The next row.
     *
     * @param date of the row, if the table has one
     * @param given what the row says for the fields of the series
     * @return false where too many rows are no numbers of the series
     */
    public boolean row(long line, String text, Optional<LocalDate> date, Map<String, String> given) {
        long day = date.isPresent() ? date.get().toEpochDay() : Long.MAX_VALUE;
        dates.add(day);
        if (text.isEmpty()) {
            blank(line, date, given);
            return true;
        }
        List<Located> read =
                reader.read(text).stream().filter(TablePlanner::isInRange).toList();
        if (!read.isEmpty()) {
            if (isAmbiguous(read)) return left(line, Change.Why.AMBIGUOUS);
            add(line, read.getFirst(), date);
            return true;
        }
        if (!reader.read(text).isEmpty()) return left(line, Change.Why.OUTSIDE);
        List<Located> near = reader.nearest(text);
        boolean certain = near.size() == 1
                && isInRange(near.getFirst())
                && near.getFirst().reading().deviations().size() == 1
                && !near.getFirst().reading().deviations().contains(Deviation.CHECK);
        if (!certain) return left(line, near.size() > 1 ? Change.Why.AMBIGUOUS : Change.Why.NO_NUMBER);
        add(line, near.getFirst(), date);
        return true;
    }

    private static boolean isInRange(Located found) {
        return found.place().range().isPresent() && found.position() >= 0;
    }

    private static boolean isAmbiguous(List<Located> read) {
        Located first = read.getFirst();
        return read.stream()
                .anyMatch(other -> other.position() != first.position()
                        || !other.place().range().equals(first.place().range())
                        || !other.place().lane().equals(first.place().lane()));
    }

    private boolean left(long line, Change.Why why) {
        rows.add(line, Rows.UNREAD, why.ordinal(), -1);
        return ++unread <= MOST_UNREAD;
    }

    private void blank(long line, Optional<LocalDate> date, Map<String, String> given) {
        if (choices.fixed().contains(line)) {
            rows.add(line, Rows.UNREAD, Change.Why.FORMULA.ordinal(), -1);
            return;
        }
        switch (fields.read(given)) {
            case Fields.Reading.Faulty faulty -> rows.add(line, Rows.UNREAD, Change.Why.FIELD.ordinal(), -1);
            case Fields.Reading.Understood understood ->
                rows.add(
                        line,
                        Rows.BLANK,
                        places.of(new Particulars(date.orElse(choices.date()), understood.fields())),
                        -1);
        }
    }

    private void add(long line, Located found, Optional<LocalDate> date) {
        Integer known = date.isEmpty() ? undated.get(found.place()) : null;
        int place = known == null ? place(found, date) : known;
        places.counted(place);
        rows.add(line, found.reading().deviations().isEmpty() ? Rows.RIGHT : Rows.SLIP, place, found.position());
    }

    private int place(Located found, Optional<LocalDate> date) {
        Range range = found.place().range().orElseThrow();
        var lane = new LaneKey(series.key(), range.id(), found.place().lane());
        Particulars read = found.place().particulars();
        Particulars dated = date.map(day -> new Particulars(day, read.fields()))
                .filter(particulars -> range.serves().includes(particulars.date())
                        && series.lane(range, particulars).equals(lane)
                        && series.render(range, particulars, found.position())
                                .equals(found.reading().identifier()))
                .orElse(read);
        int place = places.of(lane, range, dated);
        // Texts that differ in nothing but the count share the object.
        if (undated.size() > Places.MOST) undated.clear();
        if (date.isEmpty()) undated.put(found.place(), place);
        return place;
    }

    /**
     * What is done with a table.
     *
     * @param changes of all rows whose number is not simply kept, in the order of the lines
     * @param stretches that are recorded, by lane and position
     * @param ends of each lane the first position behind the highest number that is recorded
     * @param rows how many there are
     * @param kept how many rows keep their number as it is, and are recorded
     * @param preexisting how many numbers are recorded, those that are corrected among them
     * @param gaps how many positions are free below the ends
     */
    public record Planned(
            List<Change> changes,
            List<InUse> stretches,
            Map<LaneKey, Long> ends,
            long rows,
            long kept,
            long preexisting,
            long gaps) {

        /** How many changes there are of a kind. */
        public long count(Change.Kind kind) {
            return changes.stream().filter(change -> change.kind() == kind).count();
        }
    }

    /** Plans for the ledger as it stands. */
    public Planned plan(LedgerNumbers ledger) {
        var changes = new ArrayList<Change>();
        int[] order = duplicates(rows.byNumber(places), changes);
        var recorded = new HashMap<LaneKey, LongArrayList>();
        var stretches = new ArrayList<InUse>();
        long preexisting = 0;
        long kept = 0;
        for (int from = 0; from < order.length; ) {
            int lane = places.lane(rows.place(order[from]));
            int to = from;
            while (to < order.length && places.lane(rows.place(order[to])) == lane) to++;
            var used = new Used(ledger, places.key(lane), order, from, to);
            LongArrayList own = new LongArrayList();
            var run = new Run(stretches);
            for (int i = from; i < to; i++) {
                int row = order[i];
                Optional<PositionState> state = used.at(rows.position(row));
                if (state.filter(PositionState::isVoid).isPresent()) {
                    changes.add(Change.leave(rows.line(row), Change.Why.VOID));
                } else if (state.filter(PositionState::isLive).isPresent()) {
                    changes.add(
                            rows.kind(row) == Rows.SLIP
                                    ? Change.correct(rows.line(row), rendered(row))
                                    : Change.known(rows.line(row)));
                } else if (ledger.isClosed(places.particulars(rows.place(row)).date())) {
                    changes.add(Change.leave(rows.line(row), Change.Why.DATE));
                } else {
                    if (rows.kind(row) == Rows.SLIP) changes.add(Change.correct(rows.line(row), rendered(row)));
                    else kept++;
                    run.add(row);
                    own.add(rows.position(row));
                    preexisting++;
                }
            }
            run.end();
            if (!own.isEmpty()) recorded.put(places.key(lane), own);
            from = to;
        }
        var ends = new HashMap<LaneKey, Long>();
        recorded.forEach((lane, own) -> ends.put(lane, own.getLong(own.size() - 1) + 1));
        changes.replaceAll(change -> choices.fixed().contains(change.line())
                        && (change.kind() == Change.Kind.CORRECT || change.kind() == Change.Kind.RENUMBER)
                ? Change.leave(change.line(), Change.Why.FORMULA)
                : change);
        allocate(ledger, recorded, changes);
        changes.sort(Comparator.comparingLong(Change::line));
        return new Planned(
                List.copyOf(changes),
                List.copyOf(stretches),
                Map.copyOf(ends),
                rows.size(),
                kept,
                preexisting,
                gaps(ledger, recorded));
    }

    /** How many positions below the ends nobody has. */
    private long gaps(LedgerNumbers ledger, Map<LaneKey, LongArrayList> recorded) {
        long gaps = 0;
        for (Map.Entry<LaneKey, LongArrayList> lane : recorded.entrySet()) {
            long next = ledger.next(lane.getKey());
            LongArrayList own = lane.getValue();
            long end = own.getLong(own.size() - 1) + 1;
            if (end <= next) continue;
            long above = own.longStream().filter(position -> position >= next).count();
            long ahead = ledger.stretches(lane.getKey(), next, end - 1).stream()
                    .mapToLong(Stretch::quantity)
                    .sum();
            gaps += end - next - above - ahead;
        }
        return gaps;
    }

    private String rendered(int row) {
        Range range = places.range(places.lane(rows.place(row)));
        return series.render(range, places.particulars(rows.place(row)), rows.position(row));
    }

    /** Of rows with the same number one keeps it; the others are taken out of the order. */
    private int[] duplicates(int[] order, List<Change> changes) {
        int[] keeping = new int[order.length];
        int count = 0;
        for (int from = 0; from < order.length; ) {
            int to = from + 1;
            while (to < order.length && isSame(order[from], order[to])) to++;
            int keeper = order[from];
            for (int i = from + 1; i < to; i++) if (isBefore(order[i], keeper)) keeper = order[i];
            keeping[count++] = keeper;
            for (int i = from; i < to; i++) {
                if (order[i] == keeper) continue;
                bounded(changes);
                rows.setKind(order[i], Rows.AGAIN);
                changes.add(new Change(
                        rows.line(order[i]),
                        Change.Kind.RENUMBER,
                        Optional.empty(),
                        Optional.of(wanted(order[i])),
                        Optional.empty(),
                        rows.line(keeper)));
            }
            from = to;
        }
        return Arrays.copyOf(keeping, count);
    }

    private static void bounded(List<Change> changes) {
        if (changes.size() >= MOST_CHANGES)
            throw new TooLargePlan("more than %,d rows that would change".formatted(MOST_CHANGES));
    }

    private boolean isSame(int one, int other) {
        return rows.position(one) == rows.position(other)
                && places.lane(rows.place(one)) == places.lane(rows.place(other));
    }

    /** Whether a row keeps a number that another one has as well, which stands above it. */
    private boolean isBefore(int below, int above) {
        boolean chosen = choices.chosen().contains(rows.line(below));
        if (chosen != choices.chosen().contains(rows.line(above))) return chosen;
        boolean fixed = choices.fixed().contains(rows.line(below));
        if (fixed != choices.fixed().contains(rows.line(above))) return fixed;
        boolean right = rows.kind(below) == Rows.RIGHT;
        if (right != (rows.kind(above) == Rows.RIGHT)) return right;
        return choices.keep() == Choices.Keep.OLDEST && dates.getLong(below) < dates.getLong(above)
                || choices.keep() == Choices.Keep.OLDEST
                        && dates.getLong(below) == dates.getLong(above)
                        && rows.line(below) < rows.line(above);
    }

    private Particulars wanted(int row) {
        long day = dates.getLong(row);
        Particulars read = places.particulars(rows.place(row));
        if (day == Long.MAX_VALUE) return read;
        return new Particulars(LocalDate.ofEpochDay(day), read.fields());
    }

    /** Says which numbers blank rows and those with another's number get, and which get none. */
    private void allocate(LedgerNumbers ledger, Map<LaneKey, LongArrayList> recorded, List<Change> changes) {
        for (int row = 0; row < rows.size(); row++) {
            bounded(changes);
            if (rows.kind(row) == Rows.BLANK)
                changes.add(new Change(
                        rows.line(row),
                        Change.Kind.ALLOCATE,
                        Optional.empty(),
                        Optional.of(places.particulars(rows.place(row))),
                        Optional.empty(),
                        0));
            if (rows.kind(row) == Rows.UNREAD)
                changes.add(Change.leave(rows.line(row), Change.Why.values()[rows.place(row)]));
        }
        Comparator<Change> byLine = Comparator.comparingLong(Change::line);
        changes.sort(
                series.policy().chronological()
                        ? Comparator.comparing((Change change) ->
                                        change.wanted().map(Particulars::date).orElse(LocalDate.MIN))
                                .thenComparing(byLine)
                        : byLine);
        Map<LaneKey, LocalDate> latest = latest();
        var expected = new Expected(series, ledger, choices.gaps(), recorded);
        for (int i = 0; i < changes.size(); i++) {
            Change change = changes.get(i);
            if (!change.kind().allocates()) continue;
            Particulars wanted = change.wanted().orElseThrow();
            Optional<Change.Why> against = against(ledger, wanted, latest);
            Optional<String> number = against.isPresent() ? Optional.empty() : expected.next(wanted);
            if (against.isEmpty() && number.isEmpty()) against = Optional.of(Change.Why.EXHAUSTED);
            changes.set(
                    i,
                    against.isPresent()
                            ? Change.leave(change.line(), against.get())
                            : new Change(
                                    change.line(),
                                    change.kind(),
                                    number,
                                    change.wanted(),
                                    Optional.empty(),
                                    change.other()));
        }
    }

    private Optional<Change.Why> against(LedgerNumbers ledger, Particulars wanted, Map<LaneKey, LocalDate> latest) {
        List<Range> serving = series.serving(wanted.date());
        if (serving.isEmpty() || ledger.isClosed(wanted.date())) return Optional.of(Change.Why.DATE);
        LocalDate newest = latest.get(series.lane(serving.getFirst(), wanted));
        return series.policy().chronological() && newest != null && newest.isAfter(wanted.date())
                ? Optional.of(Change.Why.CHRONOLOGICAL)
                : Optional.empty();
    }

    /** The latest date of a number in each lane. */
    private Map<LaneKey, LocalDate> latest() {
        var latest = new HashMap<LaneKey, LocalDate>();
        if (!series.policy().chronological()) return latest;
        for (int row = 0; row < rows.size(); row++)
            if (rows.kind(row) == Rows.RIGHT || rows.kind(row) == Rows.SLIP)
                latest.merge(
                        places.key(places.lane(rows.place(row))),
                        places.particulars(rows.place(row)).date(),
                        (one, other) -> one.isAfter(other) ? one : other);
        return latest;
    }

    /** Gathers positions in a row that are for the same. */
    private final class Run {
        /** The most positions of a stretch whose texts are kept one by one. */
        private static final int LONGEST = 500;

        private final List<InUse> stretches;
        private final LongArrayList lines = new LongArrayList();
        private int place = -1;
        private long from;

        Run(List<InUse> stretches) {
            this.stretches = stretches;
        }

        void add(int row) {
            boolean goesOn = place == rows.place(row)
                    && rows.position(row) == from + lines.size()
                    && lines.size() < (isTogether() ? Integer.MAX_VALUE : LONGEST);
            if (!goesOn) {
                end();
                place = rows.place(row);
                from = rows.position(row);
            }
            lines.add(rows.line(row));
        }

        private boolean isTogether() {
            return places.count(place) >= MANY;
        }

        void end() {
            if (place < 0) return;
            if (stretches.size() >= MOST_STRETCHES)
                throw new TooLargePlan("more than %,d runs of numbers".formatted(MOST_STRETCHES));
            stretches.add(new InUse(
                    places.key(places.lane(place)),
                    places.particulars(place),
                    from,
                    from + lines.size() - 1,
                    isTogether(),
                    FileLines.of(lines.toLongArray())));
            lines.clear();
            place = -1;
        }
    }

    /** What the ledger has at the positions of a lane, which are asked for in order. */
    private final class Used {
        private static final int PAGE = 1_000;

        private final LedgerNumbers ledger;
        private final LaneKey lane;
        private final int[] order;
        private final int to;
        private int next;
        private List<Stretch> page = List.of();
        private int at;

        Used(LedgerNumbers ledger, LaneKey lane, int[] order, int from, int to) {
            this.ledger = ledger;
            this.lane = lane;
            this.order = order;
            this.to = to;
            this.next = from;
        }

        Optional<PositionState> at(long position) {
            if (next < to && position >= rows.position(order[next])) {
                int last = Math.min(to, next + PAGE) - 1;
                page = ledger.stretches(lane, position, rows.position(order[last]));
                next = last + 1;
                at = 0;
            }
            while (at < page.size() && page.get(at).to() < position) at++;
            return at < page.size() && page.get(at).from() <= position
                    ? Optional.of(page.get(at).state())
                    : Optional.empty();
        }
    }
}
