package org.youngtally.ledger;

import java.io.IOException;

/** The journal did not take a batch. */
final class AppendFailed extends Exception {
    private static final long serialVersionUID = 1L;

    AppendFailed(IOException cause) {
        super(cause);
    }
}
