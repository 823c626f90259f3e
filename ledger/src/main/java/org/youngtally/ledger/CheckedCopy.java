package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Optional;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.Store;

/** Opens a copy of a journal in tables of its own. */
public final class CheckedCopy {
    /** Where numbers are allocated a hundred at a time, tables in memory take fifty times what their journal does. */
    private static final int MEMORY_PER_JOURNAL = 60;

    private CheckedCopy() {}

    /** Whether the tables of a journal are small enough for the memory of a process that does nothing else. */
    public static boolean fitsInMemory(Disk journal) throws IOException {
        return Journal.size(journal) < Runtime.getRuntime().maxMemory() / MEMORY_PER_JOURNAL;
    }

    /**
     * @param tables a folder that is not there
     * @param secrets of the ledger that the journal is of
     */
    public static AuditReport audit(Disk journal, Head head, Path tables, Secrets secrets)
            throws IOException, SQLException, JournalBroken {
        return audit(
                journal,
                head,
                Store.open(
                        "jdbc:h2:file:" + tables.toAbsolutePath().resolve("tally") + ";DB_CLOSE_ON_EXIT=FALSE",
                        secrets));
    }

    /** The same in memory. */
    public static AuditReport audit(Disk journal, Head head, Secrets secrets)
            throws IOException, SQLException, JournalBroken {
        return audit(journal, head, Store.inMemory(secrets));
    }

    private static AuditReport audit(Disk journal, Head head, Store fresh)
            throws IOException, SQLException, JournalBroken {
        try (fresh) {
            Replay.run(journal, head, fresh);
            return fresh.read(dsl -> Audit.of(journal, dsl, Optional.empty(), Head.EMPTY));
        }
    }
}
