package org.youngtally.ledger;

import java.util.function.Function;
import org.jooq.DSLContext;

/** What was answered, for whoever asks. */
interface Committed {
    /** Asks something of the tables, once they hold all that was answered; all of it of one state. */
    <T> T read(Function<DSLContext, T> question);

    /** What is defined, who works here and how far everything is counted, as it was answered last. */
    LedgerSnapshot snapshot();
}
