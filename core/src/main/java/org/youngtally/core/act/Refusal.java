package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.Fault;

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

    /** The key stands for another request. */
    record KeyReused(String key, long seq) implements Refusal {}

    /** The reference stands for another request. */
    record ReferenceReused(String series, String reference, long seq) implements Refusal {}

    /** The definitions have faults. */
    record DefinitionsFaulty(List<SeriesFaults> faults) implements Refusal {}

    /**
     * The faults of one series.
     *
     * @param index its place among those defined together, from 0
     * @param clash the two numbers that would be alike, where that is the fault
     */
    record SeriesFaults(int index, String series, List<Fault> faults, Optional<Clash> clash) {
        public SeriesFaults(int index, String series, List<Fault> faults) {
            this(index, series, faults, Optional.empty());
        }
    }

    /** Somebody else changed the series in the meantime. */
    record VersionMoved(String series, int expected, int actual) implements Refusal {}

    /** The store holds the identifier already. The proofs rule this out; it is the last guard. */
    record IdentifierTaken(String series) implements Refusal {}
}
