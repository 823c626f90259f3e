package org.youngtally.core.act;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.record.KeptRecord.Attached;
import org.youngtally.core.record.LineOrder;

/** What is changed about a record. Its number changes by {@link Renumber} alone. */
public sealed interface RecordChange {

    /**
     * Its fields hold something else.
     *
     * @param values of all its fields in the unit, as they were written
     * @param lines all its lines in order; absent where they stay
     */
    record Edit(Map<String, String> values, Optional<List<LineOrder.Wanted>> lines) implements RecordChange {
        public Edit {
            values = Map.copyOf(values);
        }
    }

    /** Its lines keep their numbers from now on. */
    record Fix() implements RecordChange {}

    /**
     * It gets the number that a new record like it would get; the old one is void.
     *
     * @param typed the number as somebody typed it; absent for one that is counted
     * @param series the one that the one who asks may take from
     */
    record Renumber(Optional<String> reason, Optional<String> typed, String series) implements RecordChange {}

    /**
     * It stands for nothing any more.
     *
     * @param reason why; absent is enough where its number is returned
     */
    record Delete(Optional<String> reason) implements RecordChange {}

    /**
     * It is in the unit too.
     *
     * @param values what it holds there, as far as that is not what it holds elsewhere
     */
    record TakeOver(Map<String, String> values) implements RecordChange {
        public TakeOver {
            values = Map.copyOf(values);
        }
    }

    /** A file goes with it, which is kept already. */
    record Attach(Attached file) implements RecordChange {}
}
