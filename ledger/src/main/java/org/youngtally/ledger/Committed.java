package org.youngtally.ledger;

import java.util.function.Function;
import org.jooq.DSLContext;

/** What was committed, for whoever asks. */
interface Committed {
    /** Asks something of the committed tables, all of it of one state. */
    <T> T read(Function<DSLContext, T> question);

    /** What is defined, who works here and how far everything is counted, as it was committed last. */
    LedgerSnapshot snapshot();
}
