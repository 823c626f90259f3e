package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;

/** Another process owns the data folder. */
public final class LedgerInUse extends IOException {
    private static final long serialVersionUID = 1L;

    private LedgerInUse(String message) {
        super(message);
    }

    static LedgerInUse locked(Path data) {
        return new LedgerInUse(
                "another process is using the data folder " + data + "; stop it, or choose another folder");
    }

    /** Its lock was free, and its journal grew all the same. */
    static LedgerInUse writing(Path data) {
        return new LedgerInUse("another process is writing to the data folder " + data
                + ", although its lock was deleted; stop that process, then start this one again");
    }

    /** Its lock was free, and its tables are open elsewhere. */
    static LedgerInUse tables(Path data) {
        return new LedgerInUse("another process has the tables of the data folder " + data
                + " open, although its lock was free; stop that process, then start this one again");
    }
}
