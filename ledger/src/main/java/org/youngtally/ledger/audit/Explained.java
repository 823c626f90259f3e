package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.VOIDED;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.DefinitionVersions;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.PlanQueries;

/** Tells, lane by lane, what is neither plainly issued nor a gap, and why; and counts positions by their state. */
final class Explained {
    /** The most that is told of one state of a lane. */
    private static final int MOST = 10;

    private final DSLContext dsl;
    private final DefinitionVersions definitions;
    private final List<String> lines = new ArrayList<>();
    private final Map<PositionState, Long> states = new EnumMap<>(PositionState.class);
    private final Map<PositionState, List<Stretch>> told = new EnumMap<>(PositionState.class);
    private final Map<PositionState, Long> counts = new EnumMap<>(PositionState.class);
    private final Map<Long, Map<PositionState, Long>> blocks = new TreeMap<>();
    private final Map<Long, Preexisting> preexisting = new TreeMap<>();
    private final Map<Long, Long> stated = new HashMap<>();
    private final Map<Long, Boolean> fromBefore = new HashMap<>();
    private long typedAhead;
    private DefinitionVersions.Lane lane;
    private String name;

    Explained(DSLContext dsl, DefinitionVersions definitions) {
        this.dsl = dsl;
        this.definitions = definitions;
    }

    void begin(DefinitionVersions.Lane begun, String called) {
        lane = begun;
        name = called;
        told.clear();
        counts.clear();
        blocks.clear();
        preexisting.clear();
    }

    void add(Stretch stretch) {
        states.merge(stretch.state(), stretch.quantity(), Long::sum);
        if (stretch.block() != 0 && !isFromBefore(stretch))
            blocks.computeIfAbsent(stretch.block(), added -> new EnumMap<>(PositionState.class))
                    .merge(stretch.state(), stretch.quantity(), Long::sum);
        boolean ahead = stretch.from() >= lane.next();
        if (ahead) typedAhead += stretch.quantity();
        if (!ahead && (stretch.state() == PositionState.ISSUED || stretch.state() == PositionState.USED)) return;
        if (stretch.state() == PositionState.PREEXISTING) {
            preexisting
                    .computeIfAbsent(statedBy(stretch.origin().seq()), added -> new Preexisting(stretch))
                    .add(stretch);
            return;
        }
        counts.merge(stretch.state(), stretch.quantity(), Long::sum);
        List<Stretch> own = told.computeIfAbsent(stretch.state(), added -> new ArrayList<>());
        if (own.size() < MOST) own.add(stretch);
    }

    /** Those too are kept together, and some of them may have become void since. */
    private boolean isFromBefore(Stretch stretch) {
        return stretch.state() == PositionState.PREEXISTING
                || fromBefore.computeIfAbsent(stretch.origin().seq(), seq -> entry(seq)
                        .filter(entry -> entry.kind().recordsPreexisting())
                        .isPresent());
    }

    /** Numbers from before that one act, or one plan, stated. */
    private static final class Preexisting {
        private final Stretch first;
        private Stretch last;
        private long quantity;

        Preexisting(Stretch first) {
            this.first = first;
        }

        void add(Stretch stretch) {
            last = stretch;
            quantity += stretch.quantity();
        }
    }

    /** The entry that says where numbers from before come from: of a table's the one that began its plan. */
    private long statedBy(long recorded) {
        return stated.computeIfAbsent(
                recorded, seq -> new PlanQueries(dsl).planOf(seq).orElse(seq));
    }

    private void told(long seq, Preexisting group) {
        String first = at(group.first, group.first.from());
        String last = at(group.last, group.last.to());
        lines.add(name + ": " + "%,d".formatted(group.quantity)
                + (group.quantity == 1 ? " position" : " positions") + " pre-existing, " + first
                + (first.equals(last) ? "" : " to " + last) + ", entry " + seq
                + entry(seq)
                        .flatMap(EntryQueries.Row::note)
                        .map(note -> ": " + note)
                        .orElse(""));
    }

    void end() {
        preexisting.forEach(this::told);
        if (told.containsKey(PositionState.SKIPPED)) skipped(told.remove(PositionState.SKIPPED));
        told.forEach((state, stretches) -> {
            for (Stretch stretch : stretches) lines.add(name + ": " + text(stretch) + " " + what(stretch));
            long more = counts.get(state)
                    - stretches.stream().mapToLong(Stretch::quantity).sum();
            if (more > 0) lines.add(name + ": " + "%,d".formatted(more) + " more " + state.word());
        });
        blocks.forEach(this::block);
    }

    private void block(long block, Map<PositionState, Long> parts) {
        Optional<EntryQueries.Row> entry = entry(block);
        // Of a job of labels nothing is reported: each label has a state of its own.
        if (entry.filter(row -> row.kind() == Entry.Kind.PRINT).isPresent())
            lines.add(name + ": label job " + block + ": " + parts(parts, PositionState.ISSUED.word()));
        else
            lines.add(name + ": block " + block
                    + entry.flatMap(EntryQueries.Row::note)
                            .map(holder -> " of " + holder)
                            .orElse("")
                    + ": " + parts(parts, "not reported yet"));
    }

    private void skipped(List<Stretch> stretches) {
        List<String> values = stretches.stream()
                .map(stretch -> stretch.from() == stretch.to()
                        ? written(stretch.from(), stretch)
                        : written(stretch.from(), stretch) + " to " + written(stretch.to(), stretch))
                .toList();
        long count = counts.get(PositionState.SKIPPED);
        lines.add(name + ": " + "%,d".formatted(count) + (count == 1 ? " position" : " positions")
                + " void, skipped by the definition: " + String.join(", ", values)
                + (values.size() == MOST ? " …" : ""));
    }

    /** @param issued what is said of those that are issued */
    private static String parts(Map<PositionState, Long> parts, String issued) {
        var words = new ArrayList<String>();
        parts.forEach((state, quantity) ->
                words.add("%,d ".formatted(quantity) + (state == PositionState.ISSUED ? issued : state.word())));
        return String.join(", ", words);
    }

    private String what(Stretch stretch) {
        Optional<EntryQueries.Row> changed = stretch.changed() == 0 ? Optional.empty() : entry(stretch.changed());
        String by = changed.map(entry -> ", " + entry.kind().past() + " by " + entry.by() + ", entry " + entry.seq()
                        + entry.note().map(note -> ": " + note).orElse(""))
                .orElse("");
        String ahead = stretch.from() >= lane.next()
                ? entry(stretch.origin().seq())
                                .filter(entry -> entry.kind() == Entry.Kind.TYPE)
                                .map(typed -> ", typed")
                                .orElse(",")
                        + " ahead of the counter (entry "
                        + stretch.origin().seq() + ")"
                : "";
        return switch (stretch.state()) {
            case ISSUED, USED -> stretch.state().word() + ahead;
            case HELD ->
                "held until " + stretch.origin().until().orElseThrow() + ", entry "
                        + stretch.origin().seq();
            case RETURNED -> "returned, issued again next" + ahead + by;
            case PREEXISTING -> "pre-existing";
            case IN_DOUBT -> "in doubt, may have been issued before the restore" + by;
            case GAP_CLOSED ->
                "void (gap closed)"
                        + entry(stretch.origin().seq())
                                .map(entry -> ", by " + entry.by() + ", entry " + entry.seq())
                                .orElse("");
            case SKIPPED, VOIDED, LAPSED, RELEASED, UNUSED, CLOSED ->
                "void (" + stretch.state().word() + ")" + ahead + by;
        };
    }

    private Optional<EntryQueries.Row> entry(long seq) {
        return new EntryQueries(dsl).at(seq);
    }

    private String text(Stretch stretch) {
        String first = at(stretch, stretch.from());
        return stretch.from() == stretch.to() ? first : first + " to " + at(stretch, stretch.to());
    }

    private String at(Stretch stretch, long position) {
        return stretch.origin()
                .text()
                .orElseGet(() -> definitions.render(lane.id(), stretch.origin().particulars(), position));
    }

    private String written(long position, Stretch stretch) {
        Series series = definitions.version(lane, stretch.origin().version());
        if (series.order().isSealed()) return "position " + (position + 1);
        Range range = series.range(lane.range()).orElseThrow();
        return series.pattern()
                .count()
                .written(series.order()
                        .valueAt(range, new LaneKey(lane.series(), lane.range(), lane.period()), position));
    }

    List<String> lines() {
        return lines;
    }

    /** How many positions of all lanes were ahead of the counters. */
    long ahead() {
        return typedAhead;
    }

    Map<PositionState, Long> states() {
        return states;
    }
}
