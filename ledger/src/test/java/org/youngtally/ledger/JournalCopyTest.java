package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.ledger.copy.CopyNote;
import org.youngtally.ledger.copy.CopyPlace;
import org.youngtally.ledger.copy.CopyPolicy;

/** A second journal on another disk: what is in it, and what becomes of numbers when one of the two is lost. */
class JournalCopyTest {
    @TempDir
    private Path folder;

    private Path data() {
        return folder.resolve("data");
    }

    private Path copy() {
        return folder.resolve("copy");
    }

    private LedgerOptions options(CopyPolicy policy) {
        return LedgerOptions.in(data()).withCopy(Optional.of(new CopyPlace(copy(), policy)));
    }

    private Ledger open(CopyPolicy policy) throws IOException {
        return Ledger.open(options(policy));
    }

    private static List<String> take(Ledger ledger, long quantity) {
        return Acts.identifiers(ledger.perform(Acts.take("short", quantity), "ines"));
    }

    private void begin(CopyPolicy policy) throws IOException {
        try (Ledger ledger = open(policy)) {
            ledger.perform(Acts.define(), "ines");
            take(ledger, 1);
        }
    }

    private static String journal(Path folder) throws IOException {
        return Files.readString(folder.resolve("journal/000000000000000001.jsonl"));
    }

    static void delete(Path folder) throws IOException {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
        }
    }

    static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) Files.copy(file, to.resolve(from.relativize(file)));
        }
    }

    @Test
    void theCopyIsTheJournalByteForByte() throws IOException {
        begin(CopyPolicy.STOP);
        assertThat(journal(copy())).isEqualTo(journal(data()));
    }

    @Test
    void aCopyThatIsBegunLaterHasAllFromTheFirstEntryOn() throws IOException {
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data()))) {
            ledger.perform(Acts.define(), "ines");
        }
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            take(ledger, 1);
        }
        assertThat(journal(copy())).isEqualTo(journal(data()));
    }

    @Test
    void whatTheJournalLostIsTakenFromTheCopy() throws IOException {
        begin(CopyPolicy.STOP);
        copy(data(), folder.resolve("old"));
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            take(ledger, 1);
        }
        delete(data());
        Files.move(folder.resolve("old"), data());
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            assertThat(ledger.rollback()).isEmpty();
            assertThat(take(ledger, 1)).containsExactly("S003");
        }
    }

    private static void cutLastByte(Path folder) throws IOException {
        try (FileChannel file =
                FileChannel.open(folder.resolve("journal/000000000000000001.jsonl"), StandardOpenOption.WRITE)) {
            file.truncate(file.size() - 1);
        }
    }

    /** The machine went down with all of the last batch on disk but its line feed. */
    @ParameterizedTest
    @ValueSource(strings = {"data", "copy"})
    void aLineFeedThatOneOfTheTwoLacksIsWrittenAgain(String lacking) throws IOException {
        begin(CopyPolicy.STOP);
        cutLastByte(folder.resolve(lacking));
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            assertThat(take(ledger, 1)).containsExactly("S002");
        }
        assertThat(journal(copy())).isEqualTo(journal(data())).doesNotContain("\n\n");
    }

    /** It is the longer one that lacks it, from which the other is made whole. */
    @ParameterizedTest
    @CsvSource({"data, copy", "copy, data"})
    void theShorterIsMadeWholeFromOneThatLacksItsLastLineFeed(String longer, String shorter) throws IOException {
        begin(CopyPolicy.STOP);
        Path journal = folder.resolve(shorter).resolve("journal");
        copy(journal, folder.resolve("earlier"));
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            take(ledger, 1);
        }
        delete(journal);
        Files.move(folder.resolve("earlier"), journal);
        cutLastByte(folder.resolve(longer));
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            assertThat(take(ledger, 1)).containsExactly("S003");
        }
        assertThat(journal(copy())).isEqualTo(journal(data())).doesNotContain("\n\n");
    }

    @Test
    void aLedgerWhoseDiskIsLostGoesOnFromTheCopy() throws IOException {
        begin(CopyPolicy.STOP);
        delete(data());
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            assertThat(take(ledger, 1)).containsExactly("S002");
        }
    }

    @Test
    void whatIsTakenFromACopyThatMayLackNumbersProvesNothing() throws IOException {
        begin(CopyPolicy.GO_ON);
        delete(data());
        try (Ledger ledger = open(CopyPolicy.GO_ON)) {
            assertThatThrownBy(() -> take(ledger, 1))
                    .isInstanceOfSatisfying(LedgerUnavailable.class, e -> assertThat(e.kind())
                            .isEqualTo(LedgerUnavailable.Kind.NEWEST_UNKNOWN));
        }
    }

    @Test
    void aForkStopsNumbering() throws IOException {
        begin(CopyPolicy.STOP);
        copy(data(), folder.resolve("other"));
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            take(ledger, 1);
        }
        delete(data());
        Files.move(folder.resolve("other"), data());
        Files.delete(data().resolve("journal-copy"));
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data()))) {
            take(ledger, 1);
        }
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            assertThat(ledger.status().stopped()).contains("went different ways");
        }
    }

    @Test
    void nothingIsAllocatedWhileTheCopyIsAway() throws IOException {
        begin(CopyPolicy.STOP);
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            Files.move(copy(), folder.resolve("away"));
            Files.createFile(copy());
            assertThatThrownBy(() -> take(ledger, 1)).isInstanceOf(LedgerUnavailable.class);
        }
        assertThat(journal(data())).isEqualTo(journal(folder.resolve("away")));
    }

    @Test
    void numbersGoOnWithAWarningWhereThePolicySaysSo() throws IOException {
        begin(CopyPolicy.GO_ON);
        try (Ledger ledger = open(CopyPolicy.GO_ON)) {
            Files.move(copy(), folder.resolve("away"));
            Files.createFile(copy());
            assertThat(take(ledger, 1)).containsExactly("S002");
            assertThat(ledger.status().remarks()).singleElement().asString().contains("has not been written since");
        }
    }

    @Test
    void aCopyThatIsBackCatchesUp() throws IOException {
        begin(CopyPolicy.GO_ON);
        try (Ledger ledger = open(CopyPolicy.GO_ON)) {
            Files.move(copy(), folder.resolve("away"));
            Files.createFile(copy());
            take(ledger, 1);
            Files.delete(copy());
            Files.move(folder.resolve("away"), copy());
            while (!ledger.status().remarks().isEmpty()) Thread.onSpinWait();
            take(ledger, 1);
        }
        assertThat(journal(copy())).isEqualTo(journal(data()));
    }

    @Test
    void anUnfinishedWriteToTheCopyIsDropped() throws IOException {
        begin(CopyPolicy.STOP);
        Files.writeString(
                copy().resolve("journal/000000000000000001.jsonl"), "{\"seq\":3,\"at", StandardOpenOption.APPEND);
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            take(ledger, 1);
        }
        assertThat(journal(copy())).isEqualTo(journal(data()));
    }

    @Test
    void aFolderWithACopyIsNotOpenedWithoutIt() throws IOException {
        begin(CopyPolicy.STOP);
        assertThatThrownBy(() -> Ledger.open(LedgerOptions.in(data())).close())
                .hasMessageContaining("--journal-copy " + copy());
    }

    @Test
    void aCopyThatIsEndedProvesNothingAnyMore() throws IOException {
        begin(CopyPolicy.STOP);
        Ledger.endCopy(LedgerOptions.in(data()), false);
        assertThat(CopyNote.in(copy()).orElseThrow().proves()).isFalse();
    }

    @Test
    void aCopyThatIsAwayIsNotEndedUnlessItIsLostForGood() throws IOException {
        begin(CopyPolicy.STOP);
        delete(copy());
        assertThatThrownBy(() -> Ledger.endCopy(LedgerOptions.in(data()), false))
                .hasMessageContaining("--journal-copy-lost");
    }

    @Test
    void twoLedgersDoNotWriteOneCopy() throws IOException {
        try (Ledger ledger = open(CopyPolicy.STOP)) {
            ledger.perform(Acts.define(), "ines");
            assertThatThrownBy(() -> Ledger.open(LedgerOptions.in(folder.resolve("another"))
                                    .withCopy(Optional.of(new CopyPlace(copy(), CopyPolicy.STOP))))
                            .close())
                    .hasMessageContaining("another process is writing");
        }
    }
}
