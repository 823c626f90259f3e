package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.fault.Fault;
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
    record Exhausted(String series, LocalDate date, long quantity, long left, Optional<LocalDate> opensNext) implements Refusal {}

    /** A field of the request is missing, unknown, or holds what the series cannot take. */
    record FieldFaulty(String series, FieldFault fault) implements Refusal {}

    /**
     * A block would fall into too many pieces around values that are never given.
     *
     * @param most how many numbers could be taken as one block from where the series stands
     */
    record BlockInPieces(String series, long quantity, long most) implements Refusal {}

    /** The series gives no blocks: its numbers are only looked up one by one, or come round again. */
    record NoBlocks(String series, boolean repeats) implements Refusal {}

    /** The key stands for another request. */
    record KeyReused(String key, long seq) implements Refusal {}

    /** The reference stands for another request. */
    record ReferenceReused(String series, String reference, long seq) implements Refusal {}

    /** The definitions have faults. */
    record DefinitionsFaulty(List<DraftFaults> faults) implements Refusal {}

    /** What is defined. */
    enum What { NAMESPACE, CODEBOOK, SERIES }

    /**
     * The faults of one definition.
     *
     * @param index its place among those of its kind that are defined together, from 0; -1 for one that stands already
     * @param clash the two numbers that would be alike, where that is the fault
     */
    record DraftFaults(What what, int index, String key, List<Fault> faults, Optional<Clash> clash) {}

    /** Somebody else changed the definition in the meantime. */
    record VersionMoved(What what, String key, int expected, int actual) implements Refusal {}

    /** The store holds the identifier already. The proofs rule this out; it is the last guard. */
    record IdentifierTaken(String series) implements Refusal {}
}
