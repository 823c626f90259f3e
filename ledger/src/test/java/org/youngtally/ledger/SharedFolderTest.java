package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.youngtally.ledger.store.db.Tables.ENTRY;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Comparator;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** What somebody deletes, replaces or cuts in the folder of a ledger that runs. */
class SharedFolderTest {
    @TempDir
    private Path folder;

    private Path data;
    private Ledger ledger;

    @BeforeEach
    void open() throws IOException {
        data = folder.resolve("data");
        ledger = Ledger.open(options());
        ledger.perform(Acts.define(), "ines");
        take();
    }

    @AfterEach
    void close() throws IOException {
        ledger.close();
    }

    private LedgerOptions options() {
        return LedgerOptions.in(data).withPatience(Duration.ofMillis(1_500));
    }

    private String take() {
        return Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")).getFirst();
    }

    private Path segment() {
        return data.resolve("journal/000000000000000001.jsonl");
    }

    /**
     * The ledger that runs may still put a file there while the others go; then it is begun anew, as a person would.
     */
    private static void remove(Path path) throws IOException {
        while (Files.exists(path)) {
            try (Stream<Path> files = Files.walk(path)) {
                for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
            } catch (DirectoryNotEmptyException | UncheckedIOException e) {
                // Begun anew, with what was put there meanwhile.
                continue;
            }
        }
    }

    /** What somebody does to a folder. */
    enum Deed {
        LOCK_DELETED {
            @Override
            void on(Path data) throws IOException {
                Files.delete(data.resolve("lock"));
            }
        },
        LOCK_REPLACED {
            @Override
            void on(Path data) throws IOException {
                Files.move(data.resolve("lock"), data.resolve("lock-old"));
                Files.copy(data.resolve("lock-old"), data.resolve("lock"));
            }
        },
        JOURNAL_UNLINKED {
            @Override
            void on(Path data) throws IOException {
                Files.delete(data.resolve("journal/000000000000000001.jsonl"));
            }
        },
        JOURNAL_TRUNCATED {
            @Override
            void on(Path data) throws IOException {
                Files.newByteChannel(data.resolve("journal/000000000000000001.jsonl"), StandardOpenOption.WRITE)
                        .truncate(400)
                        .close();
            }
        },
        JOURNAL_LENGTHENED {
            @Override
            void on(Path data) throws IOException {
                Files.writeString(
                        data.resolve("journal/000000000000000001.jsonl"), "{\"seq\":3,\n", StandardOpenOption.APPEND);
            }
        },
        JOURNAL_REPLACED_BY_ITS_COPY {
            @Override
            void on(Path data) throws IOException {
                Path segment = data.resolve("journal/000000000000000001.jsonl");
                Files.copy(segment, data.resolve("copy"));
                Files.move(data.resolve("copy"), segment, StandardCopyOption.REPLACE_EXISTING);
            }
        },
        JOURNAL_FOLDER_REMOVED {
            @Override
            void on(Path data) throws IOException {
                remove(data.resolve("journal"));
            }
        },
        FOLDER_REMOVED {
            @Override
            void on(Path data) throws IOException {
                remove(data);
            }
        },
        FOLDER_RENAMED {
            @Override
            void on(Path data) throws IOException {
                Files.move(data, data.resolveSibling("elsewhere"));
            }
        };

        abstract void on(Path data) throws IOException;
    }

    @ParameterizedTest
    @EnumSource(Deed.class)
    void noNumberIsGivenAfterIt(Deed deed) throws IOException {
        deed.on(data);
        assertThatThrownBy(this::take)
                .isInstanceOfSatisfying(
                        LedgerUnavailable.class, e -> assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.STOPPED))
                .hasMessageContaining("another process may be using the data folder");
    }

    @ParameterizedTest
    @EnumSource(Deed.class)
    void itIsNoticedWithoutAnybodyAsking(Deed deed) throws Exception {
        deed.on(data);
        CompletableFuture.runAsync(() -> {
                    while (ledger.status().running()) Thread.onSpinWait();
                })
                .get(10, TimeUnit.SECONDS);
        assertThat(ledger.status().stopped()).contains("Writing has stopped");
    }

    @Test
    void whatStandsInTheTablesCanStillBeAskedAfterIt() throws IOException {
        Deed.LOCK_DELETED.on(data);
        assertThatThrownBy(this::take).hasMessageContaining("lock");
        int entries = ledger.read(dsl -> dsl.fetchCount(ENTRY));
        assertThat(entries).isEqualTo(2);
    }

    /** Closing another channel on the lock would let go of it. */
    @Test
    void aSecondStartInTheSameProcessDoesNotLetGoOfTheLock() throws Exception {
        for (int i = 0; i < 3; i++)
            assertThatThrownBy(() -> Ledger.open(options())).isInstanceOf(LedgerInUse.class);
        assertThat(SecondProcess.start(data)).contains("another process is using the data folder");
    }

    @Test
    void aSecondProcessIsRefusedAfterTheLockWasDeleted() throws Exception {
        Files.delete(data.resolve("lock"));
        assertThat(SecondProcess.start(data)).contains("another process has the tables of the data folder");
    }

    @Test
    void aSecondProcessIsRefusedWhileTheFirstGoesOnWriting() throws Exception {
        ledger.close();
        Files.delete(data.resolve("lock"));
        // A first one that does not look whether the lock is still its own.
        byte[] more = "{\"seq\":3,".getBytes(StandardCharsets.US_ASCII);
        var writing = Thread.ofVirtual().start(() -> {
            while (!Thread.interrupted()) {
                try {
                    Files.write(segment(), more, StandardOpenOption.APPEND);
                } catch (IOException e) {
                    return; // interrupted in the middle of a write
                }
            }
        });
        try {
            assertThatThrownBy(() -> Ledger.open(options()))
                    .isInstanceOf(LedgerInUse.class)
                    .hasMessageContaining("although its lock was deleted");
        } finally {
            writing.interrupt();
            writing.join();
        }
    }

    @Test
    void aFolderWithoutAJournalButWithTracesOfOneIsNoNewLedger() throws Exception {
        ledger.close();
        remove(data.resolve("journal"));
        remove(data.resolve("tables"));
        ledger = Ledger.open(options());
        assertThat(ledger.status().stopped()).contains("the journal is gone, while entries up to 2 were written");
    }

    @Test
    void aJournalPutBackToAnOlderCopyIsNotThePresent() throws Exception {
        byte[] older = Files.readAllBytes(segment());
        take();
        ledger.close();
        remove(data.resolve("tables"));
        Files.write(segment(), older);
        ledger = Ledger.open(options());
        assertThat(ledger.status().stopped()).contains("ends at entry 2, while entries up to 3 were written");
    }
}
