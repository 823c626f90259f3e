package org.youngtally.core.act;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.access.AccountRefusal;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.FieldFault;

/** Why an act is not done, as facts. Text for people is made from it at the edge. */
public sealed interface Refusal {

    record UnknownSeries(String series, Optional<String> nearest) implements Refusal {}

    /** The quantity is below 1 or above what one request may take. */
    record QuantityOutOfBounds(long quantity, long most, Act.Form form) implements Refusal {}

    /** No range of the series serves the date. */
    record DateNotServed(String series, LocalDate date, List<DateWindow> served) implements Refusal {}

    /**
     * The ranges that serve the date have too few positions left.
     *
     * @param left how many they have
     * @param opensNext when a further range opens, if one will
     */
    record Exhausted(String series, LocalDate date, long quantity, long left, Optional<LocalDate> opensNext)
            implements Refusal {}

    /** A field of the request is missing, unknown, or holds what the series cannot take. */
    record FieldFaulty(String series, FieldFault fault) implements Refusal {}

    /** More numbers, or runs of numbers, than one act settles. */
    record TooManyPieces(String series, long pieces, long most) implements Refusal {}

    /**
     * A block would fall into too many pieces around values that are never given.
     *
     * @param most how many numbers could be taken as one block from where the series stands
     */
    record BlockInPieces(String series, long quantity, long most) implements Refusal {}

    /** The series gives no blocks: its numbers are only looked up one by one, or come round again. */
    record NoBlocks(String series, boolean repeats) implements Refusal {}

    /** A series, or the unit that numbers are for, is out of use. */
    record Retired(What what, String key) implements Refusal {}

    /** The series wants its numbers typed, or wants none typed. */
    record TypedNotAllowed(String series, boolean required) implements Refusal {}

    /**
     * What somebody typed is no number that can be taken.
     *
     * @param instead what it would have to read; absent where that cannot be told
     */
    record TypedFaulty(String series, String text, TypedFault fault, Optional<String> instead) implements Refusal {}

    /** What is wrong with a typed number. */
    enum TypedFault {
        NOT_OF_THE_PATTERN,
        CHECK_WRONG,
        OUTSIDE_THE_RANGES,
        SKIPPED,
        TAKEN,
        RETIRED
    }

    /** A series that follows the calendar has given a number for a later date. */
    record NotChronological(String series, LocalDate date, LocalDate latest) implements Refusal {}

    /** A hold of no time, or of more than a year. */
    record HoldOutOfBounds(String series, Duration time, Duration most) implements Refusal {}

    /** The series never gave the identifier. */
    record NeverGiven(String series, String text) implements Refusal {}

    /** The first of a row does not lie before the last, or in another lane. */
    record NotARow(String series, String first, String last) implements Refusal {}

    /**
     * A number is not in a state for this.
     *
     * @param identifier it
     * @param changed the entry that made it so
     */
    record Unfit(String series, String identifier, PositionState state, Act.Deed deed, long changed)
            implements Refusal {}

    /** Nothing that was selected is in a state for this. */
    record NothingFit(String series, Act.Deed deed) implements Refusal {}

    /** There is no such entry, or it took no numbers of the series. */
    record UnknownTaking(String series, String what) implements Refusal {}

    /** A number that stands alone is not reported as used; it is. */
    record NotOfABlock(String series, String identifier) implements Refusal {}

    /** A block has fewer numbers left than are wanted of it. */
    record BlockTooSmall(long block, long quantity, long left) implements Refusal {}

    /** Numbers of the series are not given back once they are issued. */
    record NoReturns(String series) implements Refusal {}

    /** It is not said why. */
    record ReasonMissing(String what) implements Refusal {}

    /**
     * The date lies in a period that is closed.
     *
     * @param closing the entry that closed it
     */
    record DateClosed(String series, LocalDate date, Period period, long closing) implements Refusal {}

    /** What is to be closed does not exist. */
    record UnknownScope(Period period, Optional<String> nearest) implements Refusal {}

    /** Numbers inside the period are still held. */
    record StillHeld(Period period, long held) implements Refusal {}

    /** Some of the period is closed already. */
    record ClosedAlready(Period period, Period other, long closing) implements Refusal {}

    /** No period is closed by this entry. */
    record NotClosed(long closing) implements Refusal {}

    /** The key stands for another request. */
    record KeyReused(String key, long seq) implements Refusal {}

    /** The reference stands for another request. */
    record ReferenceReused(String series, String reference, long seq) implements Refusal {}

    /** The definitions have faults. */
    record DefinitionsFaulty(List<DraftFaults> faults) implements Refusal {}

    /** What is defined. */
    enum What {
        NAMESPACE,
        CODEBOOK,
        SERIES,
        UNIT,
        KIND,
        ROUTE,
        LAYOUT
    }

    /**
     * The faults of one definition.
     *
     * @param index its place among those of its kind that are defined together, from 0; -1 for one that stands already
     * @param clash the two numbers that would be alike, where that is the fault
     */
    record DraftFaults(What what, int index, String key, List<Fault> faults, Optional<Clash> clash) {}

    /** Somebody else changed the definition in the meantime. */
    record VersionMoved(What what, String key, int expected, int actual) implements Refusal {}

    /** There is no such route. */
    record UnknownRoute(String route, Optional<String> nearest) implements Refusal {}

    /** An account cannot be changed so. */
    record AccountFaulty(AccountRefusal refusal) implements Refusal {}

    /** There is no such kind of record. */
    record UnknownKind(String kind, Optional<String> nearest) implements Refusal {}

    /** There is no such unit. */
    record UnknownUnit(String unit, Optional<String> nearest) implements Refusal {}

    /** No rule says which series numbers the record. */
    record NoRoute(String kind, String unit) implements Refusal {}

    /** The rules lead to another series by now than the one that was asked for. */
    record RouteMoved(String kind, String unit, String series) implements Refusal {}

    /** There is no such record. */
    record UnknownRecord(long record) implements Refusal {}

    /** The record was deleted. */
    record RecordDeleted(long record, String text) implements Refusal {}

    /** Somebody else changed the record in the meantime. */
    record RecordMoved(long record, String text, int expected, int actual) implements Refusal {}

    /**
     * The record is not in the unit.
     *
     * @param units those in which it does
     */
    record NotInUnit(long record, String text, String unit, List<String> units) implements Refusal {}

    /** The record is in the unit already. */
    record InUnitAlready(long record, String text, String unit) implements Refusal {}

    /**
     * A field that is alike in all units would not be.
     *
     * @param theirs what it holds in the unit where the record stands
     * @param given what it would hold
     */
    record Disagreeing(String text, String field, String unit, String theirs, String given) implements Refusal {}

    /**
     * Another record is known by the same.
     *
     * @param record its number
     * @param text its identifier
     */
    record KnownAlready(String field, String value, long record, String text) implements Refusal {}

    /**
     * A line is wanted that there is not, or twice.
     *
     * @param index from 0
     */
    record LineFaulty(int index, int number, boolean twice) implements Refusal {}

    /** The kind has no lines. */
    record NoLines(String kind) implements Refusal {}

    /** A number belongs to a record that stands, and is not given back without it. */
    record OfARecord(String series, String identifier, long record) implements Refusal {}

    /**
     * A row of a table cannot be numbered.
     *
     * @param row from 0
     */
    record RowFaulty(int row, Refusal refusal) implements Refusal {}

    /** More is defined in one act than one act may define. */
    record TooManyDefinitions(int definitions, int most) implements Refusal {}

    /**
     * A series cannot go on from a number.
     *
     * @param next the number that comes next as it is
     */
    record NotContinued(String series, String text, ContinueFault fault, Optional<String> next) implements Refusal {}

    /** It cannot be stated how far numbers of a series may have been issued. */
    record NotStated(String series, String text, ContinueFault fault) implements Refusal {}

    /** What stands against going on from a number. */
    enum ContinueFault {
        /** The counter has come so far already. */
        BEHIND,
        /** The values of the series are not in order: they are scattered, or come round again. */
        OUT_OF_ORDER,
        /** More numbers lie ahead of the counter than one act steps over. */
        IN_PIECES,
        /** The series has no proof, and that many numbers cannot be recorded one by one. */
        UNPROVED,
        /** The definition was changed since the number was read. */
        MOVED
    }

    /**
     * A plan for a table of the series is being carried out.
     *
     * @param plan the entry that began it
     */
    record PlanOpen(String series, long plan) implements Refusal {}

    /** A plan cannot be begun. */
    record PlanRefused(String series, PlanFault fault) implements Refusal {}

    /** What stands against a plan. */
    enum PlanFault {
        /** The definition or the counters changed since it was made. */
        LEDGER_MOVED,
        /** Gaps of a chronological series can only be closed. */
        CHRONOLOGICAL,
        /** The values of the series are not in order: they are scattered, or come round again. */
        OUT_OF_ORDER,
        /** The table reaches into more lanes than one plan may. */
        TOO_MANY_LANES
    }

    /** No plan that is begun and not ended is known by the entry. */
    record UnknownPlan(long plan) implements Refusal {}

    /**
     * A step of a plan does not follow on the one before: somebody else carries it out as well, or it is done already.
     *
     * @param recorded how many stretches are recorded
     * @param numbered how many rows have their number
     */
    record PlanMoved(long plan, long recorded, long numbered) implements Refusal {}

    /**
     * Items of a document were numbered since it was looked at.
     *
     * @param seq the entry that did it
     */
    record DocumentMoved(String document, long seq) implements Refusal {}

    /** The layout of labels was changed since the job was prepared. */
    record LayoutChanged(String layout) implements Refusal {}

    /** No job of labels is known by the entry. */
    record UnknownLabelJob(long job) implements Refusal {}

    /**
     * A job has fewer labels.
     *
     * @param from the first place that was named, from 0
     * @param to the last one
     * @param size how many labels it has
     */
    record NoSuchLabel(long job, long from, long to, long size) implements Refusal {}

    /** Labels are named that do not lie behind those named before them. */
    record LabelsTwice(long job, long from, long to) implements Refusal {}

    /** More labels, or numbers of labels, than one act is about. */
    record TooManyLabels(long job, long labels, long most) implements Refusal {}

    /** A job has no labels with which it could be done. */
    record NoLabels(long job, String step) implements Refusal {}

    /**
     * A label is in a state in which it cannot be done.
     *
     * @param place from 0
     */
    record LabelUnfit(long job, long place, LabelState state, String step) implements Refusal {}

    /**
     * The number of a label stands for nothing any more.
     *
     * @param place from 0
     */
    record LabelDead(long job, long place, String identifier, PositionState state) implements Refusal {}

    /** A number is on a label, and is given back with it only. */
    record OnALabel(String series, String identifier, long job) implements Refusal {}

    /** The store holds the identifier already. The proofs rule this out; it is the last guard. */
    record IdentifierTaken(String series) implements Refusal {}
}
