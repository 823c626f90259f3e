package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.PositionState;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;

/**
 * Journals that earlier builds wrote, kept as they are for ever: this build opens, replays, rebuilds and audits them.
 * That it writes each of their lines to the byte is told by {@link org.youngtally.ledger.journal.GoldenLineTest}.
 */
class GoldenLedgerTest {
    private static final Path GOLDEN = Path.of("src/test/resources/golden");
    private static final InstantSource LATER = () -> Instant.parse("2026-03-03T09:00:00Z");

    @TempDir
    private Path data;

    static Stream<Path> folders() throws IOException {
        try (Stream<Path> folders = Files.list(GOLDEN)) {
            return folders.filter(Files::isDirectory).sorted().toList().stream();
        }
    }

    private static void copy(Path from, Path to) throws IOException {
        Files.walkFileTree(from, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes attributes) throws IOException {
                Files.createDirectories(to.resolve(from.relativize(folder)));
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.copy(file, to.resolve(from.relativize(file)));
                return FileVisitResult.CONTINUE;
            }
        });
    }

    private static List<Entry> entries(Path folder) throws IOException, JournalBroken {
        var disk = new FolderDisk(folder.resolve("journal"));
        var entries = new ArrayList<Entry>();
        try (Journal journal = Journal.open(disk, 0, false)) {
            Journal.read(disk, 0, journal.head().seq(), (entry, head) -> entries.add(entry));
        }
        return entries;
    }

    /** The folder came without its lock, and nobody else has it. */
    private LedgerOptions options() {
        return LedgerOptions.in(data).withClock(LATER).withZone(ZoneOffset.UTC).withPatience(Duration.ZERO);
    }

    private Ledger open() throws IOException {
        return Ledger.open(options());
    }

    @ParameterizedTest
    @MethodSource("folders")
    void isReplayedAndPassesTheAudit(Path folder) throws Exception {
        copy(folder, data);
        List<Entry> entries = entries(data);
        try (Ledger ledger = open()) {
            assertThat(ledger.status().stopped()).isEmpty();
            assertThat(ledger.status().head().seq()).isEqualTo(entries.size());
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    @ParameterizedTest
    @MethodSource("folders")
    void isRebuiltAndPassesTheAudit(Path folder) throws Exception {
        copy(folder, data);
        open().close();
        Ledger.rebuild(options());
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).isEmpty();
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    @Test
    void everyKindOfEntryIsAmongThem() throws Exception {
        Set<Entry.Kind> kinds = EnumSet.noneOf(Entry.Kind.class);
        for (Path folder : folders().toList()) for (Entry entry : entries(folder)) kinds.add(entry.kind());
        assertThat(kinds).as("whoever adds an act adds a golden folder").containsExactlyInAnyOrder(Entry.Kind.values());
    }

    @Test
    void everyEffectIsAmongThem() throws Exception {
        Set<Class<?>> effects = new HashSet<>();
        for (Path folder : folders().toList())
            for (Entry entry : entries(folder)) entry.effects().forEach(effect -> effects.add(effect.getClass()));
        assertThat(effects)
                .as("whoever adds an effect adds a golden folder")
                .containsExactlyInAnyOrderElementsOf(sorts(Effect.class).collect(Collectors.toSet()));
    }

    private static Stream<Class<?>> sorts(Class<?> type) {
        return type.isSealed()
                ? Arrays.stream(type.getPermittedSubclasses()).flatMap(GoldenLedgerTest::sorts)
                : Stream.of(type);
    }

    @Test
    void everyStateOfAPositionIsAmongThem() throws Exception {
        Set<PositionState> states = EnumSet.of(PositionState.SKIPPED);
        for (Path folder : folders().toList())
            for (Entry entry : entries(folder))
                for (Effect effect : entry.effects()) {
                    if (effect instanceof Effect.Settled settled) states.add(settled.now());
                    if (effect instanceof Effect.Issued issued) states.add(issued.state());
                    if (effect instanceof Effect.GapClosed) states.add(PositionState.GAP_CLOSED);
                }
        assertThat(states).containsExactlyInAnyOrder(PositionState.values());
    }

    /**
     * Makes a golden folder, and one with the same entries in batches: {@code mvn -pl core,ledger test
     * -Dtest=GoldenLedgerTest -Dgolden.write=NAME}. Existing ones are not touched.
     */
    @Test
    @EnabledIfSystemProperty(named = "golden.write", matches = "[a-z-]+")
    void write() throws Exception {
        Path folder = GOLDEN.resolve(System.getProperty("golden.write"));
        assertThat(folder).as("golden folders never change").doesNotExist();
        if (folder.endsWith("comparison")) {
            copy(GOLDEN.resolve("first"), data);
            new GoldenActs(data).compare();
        } else if (folder.endsWith("tables")) new GoldenActs(data).repair();
        else if (folder.endsWith("layouts")) new GoldenActs(data).layouts();
        else if (folder.endsWith("jobs")) new GoldenActs(data).jobs();
        else if (folder.endsWith("printers")) new GoldenActs(data).printers();
        else if (folder.endsWith("rollback")) new GoldenActs(data).rollback();
        else if (folder.endsWith("documents")) new GoldenActs(data).documents();
        else new GoldenActs(data).perform();
        Files.createDirectories(folder);
        for (String kept : List.of("journal", "files", "secret")) keep(kept, folder);
        Path batches = GOLDEN.resolve(System.getProperty("golden.write") + "-batches");
        Files.createDirectories(batches);
        for (String kept : List.of("files", "secret")) keep(kept, batches);
        List<Entry> entries = entries(data);
        try (Journal journal = Journal.open(new FolderDisk(batches.resolve("journal")), 0, false)) {
            for (int from = 0; from < entries.size(); from += 7)
                journal.append(entries.subList(from, Math.min(from + 7, entries.size())));
        }
    }

    private void keep(String name, Path folder) throws IOException {
        if (Files.exists(data.resolve(name))) copy(data.resolve(name), folder.resolve(name));
    }
}
