package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;

/** Half a symbol in a text, which earlier builds let in and no request brings any more. */
class HalfSymbolTest {
    @TempDir
    private Path data;

    private LedgerOptions options() {
        return LedgerOptions.in(data);
    }

    @BeforeEach
    void write() throws IOException {
        try (Ledger ledger = Ledger.open(options())) {
            change(ledger, new AccountChange.Open("A till", Account.Sort.PROGRAM, Optional.empty(), List.of()));
            change(
                    ledger,
                    new AccountChange.Issue(new Token(
                            "1234abcd",
                            "the till \ud800",
                            "hash",
                            Instant.parse("2026-03-02T09:00:00Z"),
                            LocalDate.of(2026, 12, 31),
                            Optional.empty())));
        }
    }

    private static void change(Ledger ledger, AccountChange change) {
        ledger.perform(
                new Act.ChangeAccount("till", change, "note", new RequestMark("ines", Optional.empty(), "")), "ines");
    }

    private static AuditReport audit(Ledger ledger) throws IOException {
        return Audit.of(ledger, Optional.empty(), Head.EMPTY);
    }

    @Test
    void aLedgerThatHoldsOneOpensAndPassesTheAudit() throws IOException {
        try (Ledger ledger = Ledger.open(options())) {
            assertThat(audit(ledger).findings()).isEmpty();
        }
    }

    @Test
    void theAuditNamesIt() throws IOException {
        try (Ledger ledger = Ledger.open(options())) {
            assertThat(audit(ledger).explained())
                    .anyMatch(line -> line.contains("entry 2") && line.contains("half a symbol"));
        }
    }

    @Test
    void itPassesOnceRebuilt() throws IOException {
        Ledger.rebuild(options());
        try (Ledger ledger = Ledger.open(options())) {
            assertThat(audit(ledger).findings()).isEmpty();
        }
    }
}
