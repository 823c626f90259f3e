package org.youngtally.core.act;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.access.Account;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/**
 * What an act does to the ledger. Effects are facts: applying them takes no further decision. Positions are counted
 * from 0, and both ends of a stretch of them are included.
 */
public sealed interface Effect {

    /** A lane comes into being with its first position still to give. */
    record LaneOpened(int lane, LaneKey key) implements Effect {}

    /**
     * Positions are given. Unless they lie ahead of the counter, or were returned before, the counter then stands
     * behind them.
     *
     * @param version the version of the series that rendered them
     * @param round of a series that starts over, from 1; 0 for any other
     * @param texts the identifiers in order; empty for a block, whose identifiers are rendered when asked for
     */
    record Issued(
            int lane,
            long from,
            long to,
            int version,
            Particulars particulars,
            long round,
            List<String> texts,
            Manner manner)
            implements Effect {
        public Issued {
            texts = List.copyOf(texts);
        }

        public long quantity() {
            return to - from + 1;
        }

        public boolean isBlock() {
            return texts.isEmpty();
        }

        /** What the positions are from now on. */
        public PositionState state() {
            if (manner.until().isPresent()) return PositionState.HELD;
            return manner.preexisting().isPresent() ? PositionState.PREEXISTING : PositionState.ISSUED;
        }

        /** Whether the counter stands behind them afterwards. */
        public boolean isCounted() {
            return !manner.ahead() && manner.formerly().isEmpty();
        }

        /**
         * One of its numbers, or all of its block, as it is in the ledger.
         *
         * @param seq the entry that it belongs to
         */
        public Stretch stretch(long seq, int index) {
            Optional<String> text = isBlock() ? Optional.empty() : Optional.of(texts.get(index));
            boolean ahead = manner.ahead()
                    || manner.formerly()
                            .map(stretch -> stretch.origin().ahead())
                            .orElse(false);
            return new Stretch(
                    isBlock() ? from : from + index,
                    isBlock() ? to : from + index,
                    state(),
                    0,
                    isBlock() ? seq : 0,
                    new Origin(seq, version, particulars, manner.until(), ahead, text));
        }
    }

    /**
     * What is out of the ordinary about positions that are given.
     *
     * @param until when they lapse, if they are held
     * @param ahead whether the counter had not come so far
     * @param formerly what they were before, if they were returned; one position then
     * @param preexisting the lines of the table in which they are, one for each, if they were in use before they came
     *     here; {@link FileLines#NONE} without a table
     */
    record Manner(Optional<Instant> until, boolean ahead, Optional<Stretch> formerly, Optional<FileLines> preexisting) {
        public static final Manner USUAL = new Manner(Optional.empty(), false, Optional.empty());

        public Manner(Optional<Instant> until, boolean ahead, Optional<Stretch> formerly) {
            this(until, ahead, formerly, Optional.empty());
        }

        /** Of numbers that were in use before they came here. */
        public static Manner preexisting(boolean ahead, FileLines lines) {
            return new Manner(Optional.empty(), ahead, Optional.empty(), Optional.of(lines));
        }
    }

    /**
     * Positions are passed over for ever, because their values are never given.
     *
     * @param version the version of the series that says so
     */
    record Skipped(int lane, long from, long to, int version, Particulars particulars) implements Effect {
        public long quantity() {
            return to - from + 1;
        }
    }

    /**
     * Positions that lie between numbers from before are passed over for ever.
     *
     * @param first the identifier that would have been at the first of them
     * @param last the one at the last
     */
    record GapClosed(int lane, long from, long to, int version, Particulars particulars, String first, String last)
            implements Effect {
        public long quantity() {
            return to - from + 1;
        }

        /** As it is in the ledger. */
        public Stretch stretch(long seq) {
            return new Stretch(
                    from,
                    to,
                    PositionState.GAP_CLOSED,
                    0,
                    0,
                    new Origin(seq, version, particulars, Optional.empty(), false, Optional.empty()));
        }
    }

    /** A plan for the numbers of a table is begun; it is known by this act's entry. */
    record PlanBegun(TablePlan plan) implements Effect {}

    /**
     * A piece of a plan is done.
     *
     * @param plan the entry that began it
     * @param recorded how many stretches of numbers from before are recorded by now
     * @param numbered how many rows have a new number by now
     */
    record PlanAdvanced(long plan, long recorded, long numbered) implements Effect {}

    /**
     * A plan is carried out or abandoned.
     *
     * @param plan the entry that began it
     */
    record PlanEnded(long plan, boolean completed) implements Effect {}

    /**
     * Items of a document have the numbers that the entry issues, in this order.
     *
     * @param document its name, within its series
     */
    record ItemsNumbered(String series, String document, List<String> items) implements Effect {
        public ItemsNumbered {
            items = List.copyOf(items);
        }
    }

    /** Labels are to be printed, and wait for it; their job is known by this act's entry. */
    record LabelJobBegun(LabelJob job, List<LabelPiece> pieces) implements Effect {
        public LabelJobBegun {
            pieces = List.copyOf(pieces);
        }
    }

    /**
     * Labels are to be printed behind all others of a job.
     *
     * @param job the entry that began it
     */
    record LabelsAdded(long job, LabelPiece piece) implements Effect {}

    /**
     * Labels in a row change their state.
     *
     * @param job the entry that began it
     * @param from the place of the first, from 0
     * @param to the place of the last
     * @param printer to which they were sent; absent where they were not
     */
    record LabelsMoved(long job, long from, long to, LabelState was, LabelState now, Optional<String> printer)
            implements Effect {
        public LabelsMoved(long job, long from, long to, LabelState was, LabelState now) {
            this(job, from, to, was, now, Optional.empty());
        }
    }

    /** The counter steps over positions that were given ahead of it. */
    record Passed(int lane, long from, long to) implements Effect {}

    /**
     * Positions change their state.
     *
     * @param since the entry that had changed it before; 0 where they were as given
     * @param first the identifier at the first of them
     * @param last the identifier at the last
     */
    record Settled(
            int lane, long from, long to, PositionState was, long since, PositionState now, String first, String last)
            implements Effect {
        public long quantity() {
            return to - from + 1;
        }
    }

    /**
     * Positions of a block become a block of their own, known by this act's entry.
     *
     * @param was the block that they were of
     */
    record Handed(int lane, long from, long to, long was) implements Effect {}

    /** A returned position is given anew and reads otherwise: its former text is never given again. */
    record Retired(int lane, long position, Origin origin) implements Effect {}

    /**
     * A reference stands for nothing any more, and can be used again.
     *
     * @param seq the entry that it stood for
     */
    record ReferenceFreed(String series, String reference, long seq) implements Effect {}

    /** What may have been issued of a series by a later state of the ledger that is lost is all in doubt. */
    record SeriesStated(String series) implements Effect {}

    /** The ledger was opened, or goes on after a loss: receipts name the epoch in which their entry was written. */
    record EpochBegun(String epoch) implements Effect {}

    /**
     * A period is closed.
     *
     * @param totals what was given in it, lane by lane
     */
    record PeriodClosed(Period period, List<LaneTotal> totals) implements Effect {
        public PeriodClosed {
            totals = List.copyOf(totals);
        }
    }

    /**
     * What a lane had given inside a period when it was closed.
     *
     * @param first the first identifier that stands for something; absent where none does
     * @param last the last one
     * @param issued how many stand for something
     * @param voids how many are void
     */
    record LaneTotal(LaneKey lane, Optional<String> first, Optional<String> last, long issued, long voids) {}

    /**
     * A closed period is open again.
     *
     * @param closing the entry that had closed it
     */
    record PeriodReopened(long closing) implements Effect {}

    /** A file of definitions is kept in the place of an earlier one of its name. */
    record FileKept(KeptFile file) implements Effect {}

    /** A record is kept, or has a new version. */
    record RecordKept(KeptRecord record) implements Effect {}

    /** Something about who works here changes. */
    sealed interface Organising extends Effect {}

    /** A unit is defined, or has a new version. */
    record UnitDefined(Unit unit) implements Organising {}

    /** A kind of record is defined, or has a new version. */
    record KindDefined(Kind kind) implements Organising {}

    /** A layout of labels is defined, or has a new version. */
    record LayoutDefined(KeptLayout layout) implements Organising {}

    /** A route is defined, or has a new version. */
    record RouteDefined(Route route) implements Organising {}

    /**
     * A route is taken away.
     *
     * @param route its key
     */
    record RouteRemoved(String route) implements Organising {}

    /**
     * An account is opened or changed.
     *
     * @param account as it is from now on
     */
    record AccountChanged(Account account) implements Organising {}

    /** A series is defined, or has a new version. */
    record Defined(Series series) implements Effect {}

    /** A codebook is defined, or has a new version. */
    record CodebookDefined(Codebook codebook) implements Effect {}

    /**
     * From now on the identifiers of a namespace are compared by a rule.
     *
     * @param before the rule until now; absent for a namespace that begins
     */
    record ComparisonChanged(String namespace, Optional<Comparison> before, Comparison now) implements Effect {}

    /** A namespace is defined, or has a new version. */
    record NamespaceDefined(Namespace namespace) implements Effect {}
}
