package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;

/** Another process owns the data folder. */
public final class LedgerInUse extends IOException {
    private static final long serialVersionUID = 1L;

    LedgerInUse(Path data) {
        super("another process is using the data folder " + data + "; stop it, or choose another folder");
    }
}
