package org.youngtally.core.act;

import java.util.List;

/** Which numbers of a series an act is about. */
public sealed interface Selection {

    /** These, one by one. */
    record Identifiers(List<String> texts) implements Selection {
        public Identifiers {
            texts = List.copyOf(texts);
        }
    }

    /** All in a row, both included. */
    record Through(String first, String last) implements Selection {}

    /**
     * All that one entry gave, as far as they are still what the act asks for; of a block what was not reported yet.
     */
    record Taken(long seq) implements Selection {}

    /** The same, by what they were taken for. */
    record Reference(String reference) implements Selection {}
}
