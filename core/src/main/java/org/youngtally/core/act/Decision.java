package org.youngtally.core.act;

import java.util.List;

/** What the ledger makes of an act. */
public sealed interface Decision {

    /** It is done, with these effects; none where the act asks for what is so already. */
    record Done(List<Effect> effects) implements Decision {
        public Done {
            effects = List.copyOf(effects);
        }
    }

    /** It was done before, by the act with this sequence number, whose answer is given again. */
    record Repeated(long seq) implements Decision {}

    /**
     * There is such a record already, and nothing has changed.
     *
     * @param record by its number
     */
    record Known(long record) implements Decision {}

    /** It is not done, and nothing has changed. */
    record Refused(Refusal refusal) implements Decision {}
}
