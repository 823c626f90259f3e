package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Optional;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.Store;

/** Opens a copy of a journal in tables of its own, which are thrown away afterwards. */
public final class CheckedCopy {
    private CheckedCopy() {}

    /**
     * @param tables a folder that is not there
     * @param secrets of the ledger that the journal is of
     */
    public static AuditReport audit(Disk journal, Head head, Path tables, Secrets secrets)
            throws IOException, SQLException, JournalBroken {
        try (Store store = Store.open(
                "jdbc:h2:file:" + tables.toAbsolutePath().resolve("tally") + ";DB_CLOSE_ON_EXIT=FALSE", secrets)) {
            Replay.run(journal, head, store);
            return store.read(dsl -> Audit.of(journal, dsl, Optional.empty(), Head.EMPTY));
        }
    }
}
