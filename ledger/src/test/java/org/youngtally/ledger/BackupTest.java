package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.backup.Backup;
import org.youngtally.ledger.backup.BackupAbout;
import org.youngtally.ledger.backup.Restore;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.copy.CopyPolicy;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.receipt.Receipt;

/** Backups, and the folders that are made of them: no number is allocated before it is known that none is missing. */
class BackupTest {
    private static final char[] PASSPHRASE = "the organ in the loft".toCharArray();
    private static final Instant NIGHT = Instant.parse("2026-03-02T23:00:00Z");

    @TempDir
    private Path folder;

    private Ledger ledger;

    @BeforeEach
    void begin() throws IOException {
        ledger = Ledger.open(LedgerOptions.in(folder.resolve("data")));
        ledger.perform(Acts.define(), "ines");
        take(ledger, 3);
    }

    private static List<String> take(Ledger from, long quantity) {
        return Acts.identifiers(from.perform(Acts.take(Acts.KEY, quantity), "ines"));
    }

    private Path backup() throws IOException {
        return backup(false, NIGHT);
    }

    private Path backup(boolean scheduled, Instant at) throws IOException {
        return new Backup(ledger.data(), ledger.journalDisk(), ledger.status().head())
                .into(folder.resolve("backups"), Optional.of(PASSPHRASE), at, scheduled, Backup.Tables.BESIDE)
                .place();
    }

    private LedgerOptions restored() {
        return LedgerOptions.in(folder.resolve("restored"));
    }

    private Restore.Done restore(Path backup, Restore.Proof proof) throws IOException {
        return Restore.run(backup, restored(), Optional.of(PASSPHRASE), proof);
    }

    private static Act.StateHighest stated(String series, long highest) {
        LaneKey lane = new LaneKey(series, 1, series.equals(Acts.KEY) ? "2026" : "");
        return new Act.StateHighest(
                series,
                1,
                highest < 0
                        ? List.of()
                        : List.of(new Act.HighestIn(lane, Particulars.on(LocalDate.of(2026, 3, 2)), highest)),
                Optional.of("the last invoice on paper"),
                mark());
    }

    private static RequestMark mark() {
        return new RequestMark("ines", Optional.empty(), "d");
    }

    private static Outcome<?> resume(Ledger stands) {
        return stands.resume(Optional.of("all is stated"), mark(), "ines", List.of());
    }

    @Test
    void aBackupHasWhatWasAnsweredBeforeIt() throws IOException {
        Head head = ledger.status().head();
        assertThat(restore(backup(), Restore.Proof.NONE).audit().head()).isEqualTo(head);
    }

    @Test
    void aBackupIsMadeWhileNumbersAreAllocated() throws IOException {
        var stop = new AtomicBoolean();
        Thread taking = Thread.startVirtualThread(() -> {
            while (!stop.get()) take(ledger, 1);
        });
        try {
            var places = new ArrayList<Path>();
            for (int i = 0; i < 3; i++) places.add(backup(false, NIGHT.plusSeconds(i)));
            assertThat(places).allMatch(place -> Files.exists(place.resolve("backup.json")));
        } finally {
            stop.set(true);
            join(taking);
        }
    }

    private static void join(Thread thread) {
        try {
            thread.join();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void theSecretIsInNoFileOfABackupAsItIs() throws IOException {
        String secret = Files.readString(folder.resolve("data/secret")).strip();
        try (var files = Files.walk(backup())) {
            assertThat(files.filter(Files::isRegularFile).filter(file -> has(file, secret)))
                    .isEmpty();
        }
    }

    private static boolean has(Path file, String text) {
        try {
            return Files.readString(file, StandardCharsets.ISO_8859_1).contains(text);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void aWrongPassphraseRestoresNothing() throws IOException {
        Path backup = backup();
        assertThatThrownBy(() -> Restore.run(
                        backup, restored(), Optional.of("another passphrase".toCharArray()), Restore.Proof.NONE))
                .hasMessageContaining("the passphrase does not open the secret");
        assertThat(folder.resolve("restored")).doesNotExist();
    }

    @Test
    void aFolderThatIsNotEmptyIsNotWrittenOver() throws IOException {
        Path backup = backup();
        Files.createDirectories(folder.resolve("restored/journal"));
        assertThatThrownBy(() -> restore(backup, Restore.Proof.NONE)).hasMessageContaining("is not empty");
    }

    @Test
    void aDamagedBackupIsNotRestored() throws IOException {
        Path backup = backup();
        Path journal = backup.resolve("journal/000000000000000001.jsonl");
        Files.writeString(journal, Files.readString(journal).replace("LW26-0000002", "LW26-0000007"));
        assertThatThrownBy(() -> restore(backup, Restore.Proof.NONE)).hasMessageContaining("is damaged");
        assertThat(folder.resolve("restored")).doesNotExist();
    }

    @Test
    void aJournalThatIsNotInOrderIsNotCalledABackup() throws IOException {
        Path journal = folder.resolve("data/journal/000000000000000001.jsonl");
        Files.writeString(journal, Files.readString(journal).replace("LW26-0000002", "LW26-0000007"));
        assertThatThrownBy(this::backup).hasMessageContaining("the backup is not good");
        assertThat(Backup.in(folder.resolve("backups"))).isEmpty();
    }

    @Test
    void tablesAreKeptOnRequest() throws IOException {
        Path backup = new Backup(
                        ledger.data(), ledger.journalDisk(), ledger.status().head())
                .into(folder.resolve("backups"), Optional.of(PASSPHRASE), NIGHT, false, Backup.Tables.KEPT)
                .place();
        Restore.Done done = restore(backup, Restore.Proof.NONE);
        assertThat(done.told()).noneMatch(told -> told.contains("replayed"));
        assertThat(done.audit().findings()).isEmpty();
    }

    @Test
    void filesOfRecordsAreInIt() throws IOException {
        var kept = ledger.files().keep(new ByteArrayInputStream("a drawing".getBytes(StandardCharsets.UTF_8)), 100);
        restore(backup(), Restore.Proof.NONE);
        assertThat(folder.resolve("restored/files").resolve(kept.digest())).hasContent("a drawing");
    }

    @Test
    void scheduledBackupsBeyondThoseToKeepAreDeleted() throws IOException {
        Path asked = backup(false, NIGHT);
        for (int i = 1; i <= 4; i++) backup(true, NIGHT.plusSeconds(i));
        String name = BackupAbout.in(asked).ledger();
        Backup.tidy(folder.resolve("backups"), name, 2);
        assertThat(Backup.in(folder.resolve("backups"))).hasSize(3).contains(asked);
    }

    @Test
    void aRestoredLedgerAllocatesNothing() throws IOException {
        restore(backup(), Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            assertThatThrownBy(() -> take(old, 1))
                    .isInstanceOfSatisfying(LedgerUnavailable.class, e -> assertThat(e.kind())
                            .isEqualTo(LedgerUnavailable.Kind.NEWEST_UNKNOWN));
        }
    }

    @Test
    void aHeadThatWasKeptElsewhereProvesIt() throws IOException {
        Path backup = backup();
        Head head = ledger.status().head();
        assertThat(restore(backup, new Restore.Proof(Optional.empty(), Optional.of(head)))
                        .proved())
                .isTrue();
        try (Ledger old = Ledger.open(restored())) {
            assertThat(take(old, 1)).containsExactly("LW26-0000004");
        }
    }

    @Test
    void aHeadThatTheBackupDoesNotReachProvesNothing() throws IOException {
        Path backup = backup();
        take(ledger, 1);
        Head head = ledger.status().head();
        assertThatThrownBy(() -> restore(backup, new Restore.Proof(Optional.empty(), Optional.of(head))))
                .hasMessageContaining("it is not the newest");
        try (Ledger old = Ledger.open(restored())) {
            assertThat(old.rollback()).isPresent();
        }
    }

    @Test
    void aJournalCopyUnderThePolicyStopProvesIt() throws IOException {
        ledger.close();
        ledger = Ledger.open(LedgerOptions.in(folder.resolve("data"))
                .withCopy(Optional.of(new CopyPlace(folder.resolve("copy"), CopyPolicy.STOP))));
        Path backup = backup();
        take(ledger, 2);
        ledger.close();
        assertThat(restore(backup, new Restore.Proof(Optional.of(folder.resolve("copy")), Optional.empty()))
                        .proved())
                .isTrue();
        try (Ledger old = Ledger.open(restored())) {
            assertThat(take(old, 1)).containsExactly("LW26-0000006");
        }
    }

    @Test
    void aRestoredFolderThatIsServedWithItsJournalCopyIsProvedByIt() throws IOException {
        ledger.close();
        var copy = Optional.of(new CopyPlace(folder.resolve("copy"), CopyPolicy.STOP));
        ledger = Ledger.open(LedgerOptions.in(folder.resolve("data")).withCopy(copy));
        Path backup = backup();
        take(ledger, 2);
        ledger.close();
        restore(backup, Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored().withCopy(copy))) {
            assertThat(take(old, 1)).containsExactly("LW26-0000006");
        }
    }

    @Test
    void aCopyThatMayLackNumbersIsCaughtUpFromAndProvesNothing() throws IOException {
        ledger.close();
        ledger = Ledger.open(LedgerOptions.in(folder.resolve("data"))
                .withCopy(Optional.of(new CopyPlace(folder.resolve("copy"), CopyPolicy.GO_ON))));
        Path backup = backup();
        take(ledger, 2);
        Head head = ledger.status().head();
        ledger.close();
        Restore.Done done = restore(backup, new Restore.Proof(Optional.of(folder.resolve("copy")), Optional.empty()));
        assertThat(done.audit().head()).isEqualTo(head);
        assertThat(done.proved()).isFalse();
    }

    @Test
    void whatIsStatedIsInDoubtAndNeverIssuedAgain() throws IOException {
        Path backup = backup();
        List<String> lost = take(ledger, 4);
        restore(backup, Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
            old.perform(stated("short", -1), "ines");
            resume(old);
            assertThat(take(old, 5)).doesNotContainAnyElementsOf(lost);
            AuditReport audit = Audit.of(old, Optional.empty(), Head.EMPTY);
            assertThat(audit.findings()).isEmpty();
            assertThat(audit.in(PositionState.IN_DOUBT)).isEqualTo(4);
        }
    }

    @Test
    void theAuditSaysWhatIsInDoubt() throws IOException {
        Path backup = backup();
        restore(backup, Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
            assertThat(Audit.of(old, Optional.empty(), Head.EMPTY).explained())
                    .anyMatch(line -> line.contains("LW26-0000004 to LW26-0000007 in doubt")
                            && line.contains("the last invoice on paper"));
        }
    }

    @Test
    void nothingIsAllocatedBeforeAllIsStated() throws IOException {
        restore(backup(), Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
            assertThat(old.unstated()).containsExactly("short");
            assertThatThrownBy(() -> resume(old)).hasMessageContaining("short");
        }
    }

    @Test
    void whatWasStatedHoldsAfterAStart() throws IOException {
        restore(backup(), Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
        }
        try (Ledger old = Ledger.open(restored())) {
            assertThat(old.unstated()).containsExactly("short");
        }
    }

    /** The act is in the journal, and the process ended before the note in the folder was gone. */
    @Test
    void aLedgerThatWentOnStaysSoThoughTheNoteIsLeft() throws IOException {
        restore(backup(), Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            PossibleRollback note = old.rollback().orElseThrow();
            old.perform(stated(Acts.KEY, 6), "ines");
            old.perform(stated("short", -1), "ines");
            resume(old);
            note.keep(old.data());
        }
        try (Ledger old = Ledger.open(restored())) {
            assertThat(old.rollback()).isEmpty();
        }
    }

    @Test
    void aReceiptOfALostEntryStopsAnOlderCopy() throws IOException {
        Path backup = backup();
        Head head = ledger.status().head();
        take(ledger, 1);
        Receipt receipt = ledger.receipt().orElseThrow();
        restore(backup, new Restore.Proof(Optional.empty(), Optional.of(head)));
        try (Ledger old = Ledger.open(restored())) {
            old.show(receipt);
            assertThatThrownBy(() -> take(old, 1))
                    .hasMessageContaining("a receipt of entry 3 was shown, and the ledger ends at entry 2");
        }
        try (Ledger old = Ledger.open(restored())) {
            assertThat(old.rollback()).as("at the next start").isPresent();
        }
    }

    /** The older copy has gone on by itself: its entry of that number is another one. */
    @Test
    void aReceiptTellsAForkThatIsLonger() throws IOException {
        Path backup = backup();
        Head head = ledger.status().head();
        take(ledger, 1);
        Receipt receipt = ledger.receipt().orElseThrow();
        restore(backup, new Restore.Proof(Optional.empty(), Optional.of(head)));
        try (Ledger old = Ledger.open(restored())) {
            take(old, 1);
            take(old, 1);
            old.show(receipt);
            assertThatThrownBy(() -> take(old, 1)).hasMessageContaining("is another one");
        }
    }

    @Test
    void aForgedReceiptIsIgnored() throws IOException {
        Receipt genuine = ledger.receipt().orElseThrow();
        ledger.show(new Receipt(genuine.ledger(), genuine.epoch(), genuine.entry() + 1, genuine.mac()));
        assertThat(take(ledger, 1)).containsExactly("LW26-0000004");
    }

    @Test
    void aSecretThatCannotBeReadStopsNoNumber() throws IOException {
        ledger.close();
        Files.writeString(folder.resolve("data/secret"), "no secret");
        ledger = Ledger.open(LedgerOptions.in(folder.resolve("data")));
        assertThat(take(ledger, 1)).containsExactly("LW26-0000004");
    }

    @Test
    void aReceiptOfAnEntryThatIsThereChangesNothing() throws IOException {
        Receipt receipt = ledger.receipt().orElseThrow();
        take(ledger, 1);
        ledger.show(receipt);
        assertThat(take(ledger, 1)).containsExactly("LW26-0000005");
    }

    @Test
    void receiptsOfWhatWasStatedToBeLostStopNothing() throws IOException {
        Path backup = backup();
        take(ledger, 1);
        Receipt receipt = ledger.receipt().orElseThrow();
        restore(backup, Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
            old.perform(stated("short", -1), "ines");
            resume(old);
            old.show(receipt);
            assertThat(take(old, 1)).containsExactly("LW26-0000008");
        }
    }

    /** A copy from before the loss was settled is put back once more. */
    @Test
    void aReceiptFromBehindALossStopsWhatDoesNotKnowOfIt() throws IOException {
        Path backup = backup();
        restore(backup, Restore.Proof.NONE);
        Receipt receipt;
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated(Acts.KEY, 6), "ines");
            old.perform(stated("short", -1), "ines");
            resume(old);
            receipt = old.receipt().orElseThrow();
        }
        ledger.show(receipt);
        assertThat(ledger.rollback()).isPresent();
    }

    @Test
    void holdsDoNotLapseInALedgerThatMayNotBeTheNewest() throws IOException {
        ledger.perform(
                new Act.Allocate(
                        Acts.KEY,
                        Optional.of(LocalDate.of(2026, 3, 2)),
                        1,
                        new Act.Form.Held(Duration.ofMillis(1)),
                        Optional.empty(),
                        mark()),
                "ines");
        Path backup = backup();
        restore(backup, Restore.Proof.NONE);
        try (Ledger old = Ledger.open(restored())) {
            old.perform(stated("short", -1), "ines");
            assertThat(Audit.of(old, Optional.empty(), Head.EMPTY).in(PositionState.HELD)
                            + Audit.of(old, Optional.empty(), Head.EMPTY).in(PositionState.RETURNED))
                    .isEqualTo(1);
        }
    }

    @AfterEach
    void end() throws IOException {
        ledger.close();
    }
}
