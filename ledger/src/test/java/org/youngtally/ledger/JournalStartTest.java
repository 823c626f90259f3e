package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.lang.reflect.Proxy;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.BooleanSupplier;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.CheckpointFile;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalSizes;
import org.youngtally.ledger.journal.Sha256;

/** What a start proves of a long journal, and what is proved and compressed behind it. */
class JournalStartTest {
    /** Every journal is a long one, of segments with a few entries each. */
    private static final JournalSizes SMALL = new JournalSizes(2_000, 0);
    /** One segment, so that nothing is compressed. */
    private static final JournalSizes ONE_SEGMENT = new JournalSizes(64L << 20, 0);

    @TempDir
    private Path data;

    private Ledger open(JournalSizes sizes) throws IOException {
        return Ledger.open(LedgerOptions.in(data).withSizes(sizes));
    }

    private Path checkpoints() {
        return data.resolve("checkpoints");
    }

    private Path segment() {
        return data.resolve("journal/000000000000000001.jsonl");
    }

    private Path packed() {
        return data.resolve("journal/000000000000000001.jsonl.gz");
    }

    private static List<String> take(Ledger ledger, int times) {
        var taken = new ArrayList<String>();
        for (int i = 0; i < times; i++) taken.addAll(Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")));
        return taken;
    }

    private void fill(JournalSizes sizes, int numbers) throws IOException {
        try (Ledger ledger = open(sizes)) {
            if (ledger.status().head().seq() == 0) ledger.perform(Acts.define(), "ines");
            take(ledger, numbers);
        }
    }

    private static void await(BooleanSupplier condition) {
        while (!condition.getAsBoolean()) Thread.onSpinWait();
    }

    private List<String> names() throws IOException {
        try (Stream<Path> files = Files.list(data.resolve("journal"))) {
            return files.map(file -> file.getFileName().toString()).sorted().toList();
        }
    }

    /** All segments but the last. */
    private boolean allPacked() {
        try {
            List<String> names = names();
            return names.stream().filter(name -> !name.endsWith(".gz")).count() == 1;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void packed(int numbers) throws IOException {
        fill(SMALL, numbers);
        try (Ledger ledger = open(SMALL)) {
            await(() -> ledger.status().proof().isEmpty() && allPacked());
        }
        assertThat(packed()).exists();
    }

    private void replace(Path file, String from, String to) throws IOException {
        String text = Files.readString(file);
        assertThat(text).contains(from);
        Files.writeString(file, text.replaceFirst(from, to));
    }

    /** Counts what is read of the journal. */
    private static Disk counting(Disk disk, AtomicLong read) {
        return (Disk) Proxy.newProxyInstance(
                Disk.class.getClassLoader(), new Class<?>[] {Disk.class}, (proxy, method, arguments) -> {
                    Object result = method.invoke(disk, arguments);
                    return result instanceof InputStream in ? new Counted(in, read) : result;
                });
    }

    private static final class Counted extends FilterInputStream {
        private final AtomicLong read;

        Counted(InputStream in, AtomicLong read) {
            super(in);
            this.read = read;
        }

        @Override
        public int read(byte[] bytes, int from, int most) throws IOException {
            int got = super.read(bytes, from, most);
            read.addAndGet(Math.max(0, got));
            return got;
        }
    }

    /** @return bytes that a start has read when it allocates numbers */
    private long readAtStart() throws Exception {
        var read = new AtomicLong();
        var atOnce = new AtomicLong();
        LedgerOptions options = LedgerOptions.in(data).withSizes(ONE_SEGMENT);
        // The upkeep reads from its beginning, which is held back until the start is over.
        DataFolder folder = DataFolder.own(options);
        try {
            LedgerOpening opened =
                    LedgerOpening.of(options.withJournal(counting(options.journal(), read)), folder, Optional.empty());
            atOnce.set(read.get());
            opened.journal().close();
            opened.store().close();
            folder.unmark();
        } finally {
            folder.close();
        }
        return atOnce.get();
    }

    @Test
    void whatAStartReadsDoesNotGrowWithTheJournal() throws Exception {
        fill(ONE_SEGMENT, 100);
        long early = readAtStart();
        fill(ONE_SEGMENT, 1_000);
        assertThat(readAtStart()).isLessThan(2 * early + 10_000);
    }

    @Test
    void damageBeforeTheCheckpointStopsNumberingOnceTheProofMeetsIt() throws IOException {
        fill(ONE_SEGMENT, 20);
        replace(segment(), "LW26-0000002", "LW26-0000009");
        try (Ledger ledger = open(ONE_SEGMENT)) {
            await(() -> !ledger.status().running());
            assertThat(ledger.status().stopped())
                    .contains("line 3 of 000000000000000001.jsonl (entry 3) is not what was written");
        }
    }

    @Test
    void afterSuchDamageTheNextStartAllocatesNothingAtAll() throws IOException {
        fill(ONE_SEGMENT, 20);
        replace(segment(), "LW26-0000002", "LW26-0000009");
        try (Ledger ledger = open(ONE_SEGMENT)) {
            await(() -> !ledger.status().running());
        }
        try (Ledger ledger = open(ONE_SEGMENT)) {
            assertThat(ledger.status().stopped()).contains("(entry 3) is not what was written");
        }
    }

    @Test
    void damageBehindTheCheckpointStopsTheStartItself() throws IOException {
        fill(ONE_SEGMENT, 5);
        byte[] then = Files.readAllBytes(checkpoints());
        fill(ONE_SEGMENT, 5);
        Files.write(checkpoints(), then);
        replace(segment(), "LW26-0000007", "LW26-0000009");
        try (Ledger ledger = open(ONE_SEGMENT)) {
            assertThat(ledger.status().stopped())
                    .contains("line 8 of 000000000000000001.jsonl (entry 8) is not what was written");
        }
    }

    /** Whatever becomes of the file, the ledger goes on where it was. */
    @Test
    void noDamageOfTheCheckpointsChangesWhatIsAllocatedNext() throws IOException {
        fill(ONE_SEGMENT, 3);
        fill(ONE_SEGMENT, 3);
        byte[] whole = Files.readAllBytes(checkpoints());
        String next = "LW26-0000007";
        var failures = new ArrayList<String>();
        var disk = new FolderDisk(data.resolve("journal"));
        for (int place = 0; place < whole.length; place++) {
            byte[] flipped = whole.clone();
            flipped[place] ^= (byte) (1 << (place % 7));
            Files.write(checkpoints(), flipped);
            var proved = new CheckpointFile(checkpoints()).newest();
            try (var journal = Journal.open(disk, 0, false, proved, 1 << 20)) {
                if (journal.head().seq() != 7) failures.add("byte " + place + ": " + journal.head());
            } catch (JournalBroken e) {
                failures.add("byte " + place + ": " + e.getMessage());
            }
        }
        assertThat(failures).isEmpty();
        try (Ledger ledger = open(ONE_SEGMENT)) {
            assertThat(take(ledger, 1)).containsExactly(next);
        }
    }

    @Test
    void checkpointsOfAnotherJournalAreNotBelieved() throws IOException {
        fill(ONE_SEGMENT, 9);
        byte[] foreign = Files.readAllBytes(checkpoints());
        for (String each : List.of("journal", "tables"))
            try (Stream<Path> files = Files.list(data.resolve(each))) {
                for (Path file : files.toList()) Files.delete(file);
            }
        Files.delete(data.resolve("last-seen"));
        Files.delete(checkpoints());
        fill(ONE_SEGMENT, 9);
        Files.write(checkpoints(), foreign);
        try (Ledger ledger = open(ONE_SEGMENT)) {
            assertThat(take(ledger, 1)).containsExactly("LW26-0000010");
        }
        assertThat(Files.readAllLines(checkpoints())).hasSize(1);
    }

    /** Somebody changes an entry and makes the chain fit, up to the newest checkpoint and the tables. */
    @Test
    void aJournalThatWasRewrittenIsToldByItsOlderCheckpoints() throws IOException {
        fill(ONE_SEGMENT, 4);
        fill(ONE_SEGMENT, 4);
        fill(ONE_SEGMENT, 4);
        // The newest checkpoint stays what it was: only entries between two older ones are another history's.
        changeOldest(JournalStartTest::forged);
        try (Ledger ledger = open(ONE_SEGMENT)) {
            await(() -> !ledger.status().running());
            assertThat(ledger.status().stopped()).contains("entry 5 is another one than when it was proved before");
        }
    }

    @Test
    void aJournalThatWasRewrittenStopsNumberingAfterEveryStart() throws IOException {
        fill(ONE_SEGMENT, 4);
        fill(ONE_SEGMENT, 4);
        changeOldest(JournalStartTest::forged);
        for (int i = 0; i < 2; i++)
            try (Ledger ledger = open(ONE_SEGMENT)) {
                await(() -> !ledger.status().running());
                assertThat(ledger.status().stopped()).contains("delete the file ‘checkpoints’");
            }
    }

    /** Whoever can write into the folder can write a line of the right shape. */
    @Test
    void aCheckpointThatNamesAnImpossiblePlaceIsNotBelieved() throws IOException {
        fill(ONE_SEGMENT, 4);
        changeOldest(line -> line.replaceFirst("\"end\":[0-9]+", "\"end\":1"));
        try (Ledger ledger = open(ONE_SEGMENT)) {
            assertThat(take(ledger, 1)).containsExactly("LW26-0000005");
        }
    }

    private static String forged(String line) {
        return line.replaceFirst("\"head\":\"[0-9a-f]{4}", "\"head\":\"0000");
    }

    /** Changes the oldest checkpoint, and gives each the hash that its chain asks for. */
    private void changeOldest(UnaryOperator<String> change) throws IOException {
        String previous = Head.EMPTY.hash();
        List<String> noted = Files.readAllLines(checkpoints());
        noted.set(0, change.apply(noted.getFirst()));
        var lines = new ArrayList<String>();
        for (String line : noted) {
            String body = line.substring(0, line.indexOf(",\"hash\":"));
            previous = HexFormat.of()
                    .formatHex(Sha256.fresh().digest((previous + body).getBytes(StandardCharsets.US_ASCII)));
            lines.add(body + ",\"hash\":\"" + previous + "\"}");
        }
        Files.write(checkpoints(), lines);
    }

    @Test
    void fullSegmentsAreCompressedAndReadAsBefore() throws IOException {
        packed(40);
        try (Ledger ledger = open(SMALL)) {
            assertThat(take(ledger, 1)).containsExactly("LW26-0000041");
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    /** As the reference shows it. */
    @Test
    void stockToolsCheckTheChainOfCompressedSegments() throws Exception {
        packed(40);
        String script = "previous=$(printf '0%.0s' $(seq 64)); gzip -cdf '" + data
                + "'/journal/*.jsonl* | while IFS= read -r line; do"
                + " body=${line%,\\\"hash\\\":*}; hash=${line##*,\\\"hash\\\":\\\"}; hash=${hash%??};"
                + " [ \"$(printf '%s%s' \"$previous\" \"$body\" | sha256sum | cut -c1-64)\" = \"$hash\" ] || exit 1;"
                + " previous=$hash; echo ok; done";
        Process shell = new ProcessBuilder("bash", "-c", script)
                .redirectErrorStream(true)
                .start();
        String said = new String(shell.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(said.lines()).hasSize(41).containsOnly("ok");
    }

    @Test
    void aCompressedSegmentThatIsDamagedStopsNumberingAndIsNamed() throws IOException {
        packed(40);
        byte[] bytes = Files.readAllBytes(packed());
        bytes[bytes.length / 2] ^= 4;
        Files.write(packed(), bytes);
        try (Ledger ledger = open(SMALL)) {
            await(() -> !ledger.status().running());
            assertThat(ledger.status().stopped())
                    .contains("000000000000000001.jsonl.gz")
                    .contains("Restore 000000000000000001.jsonl.gz from a copy");
        }
    }

    /** The service was killed when the newest checkpoint was in a segment that is compressed by now. */
    @Test
    void aCompressedSegmentThatIsDamagedUnderTheNewestCheckpointIsNamedToo() throws IOException {
        fill(SMALL, 3);
        byte[] early = Files.readAllBytes(checkpoints());
        packed(40);
        Files.write(checkpoints(), early);
        byte[] bytes = Files.readAllBytes(packed());
        bytes[bytes.length / 2] ^= 4;
        Files.write(packed(), bytes);
        try (Ledger ledger = open(SMALL)) {
            assertThat(ledger.status().stopped()).contains("000000000000000001.jsonl.gz");
        }
    }

    @Test
    void aCompressedSegmentThatWasCutStopsNumbering() throws IOException {
        packed(40);
        byte[] bytes = Files.readAllBytes(packed());
        Files.write(packed(), Arrays.copyOf(bytes, bytes.length - 9));
        try (Ledger ledger = open(SMALL)) {
            await(() -> !ledger.status().running());
            assertThat(ledger.status().stopped()).contains("000000000000000001.jsonl.gz");
        }
    }

    /** It ends between the steps of compressing: with the beginning of a new file, or with both files whole. */
    @Test
    void aProcessThatDiesWhileItCompressesLeavesNothingToRepair() throws IOException {
        packed(40);
        byte[] compressed = Files.readAllBytes(packed());
        try (InputStream in = new FolderDisk(data.resolve("journal"))
                .read(segment().getFileName().toString())) {
            Files.copy(in, segment());
        }
        Files.write(
                data.resolve("journal/000000000000000001.jsonl12345.part"),
                Arrays.copyOf(compressed, compressed.length / 2));
        try (Ledger ledger = open(SMALL)) {
            await(() -> ledger.status().proof().isEmpty() && allPacked());
            assertThat(take(ledger, 1)).containsExactly("LW26-0000041");
        }
        assertThat(names()).noneMatch(name -> name.endsWith(".part")).doesNotContain("000000000000000001.jsonl");
    }

    @Test
    void whatWasLeftOfAnEmptySegmentIsDroppedAndTheCompressedOneBeforeGoesOn() throws IOException {
        packed(40);
        List<String> names = names();
        Path last = data.resolve("journal").resolve(names.getLast());
        long lastFirst = Long.parseLong(names.getLast().substring(0, 18));
        // A restored journal ends with its last compressed segment.
        Files.write(last, new byte[0]);
        Files.delete(checkpoints());
        Files.delete(data.resolve("last-seen"));
        try (Stream<Path> files = Files.list(data.resolve("tables"))) {
            for (Path file : files.toList()) Files.delete(file);
        }
        try (Ledger ledger = open(SMALL)) {
            assertThat(ledger.status().head().seq()).isEqualTo(lastFirst - 1);
            take(ledger, 1);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    @Test
    void aStartWithoutCheckpointsReadsCompressedSegmentsToo() throws IOException {
        packed(40);
        Files.delete(checkpoints());
        try (Stream<Path> files = Files.list(data.resolve("tables"))) {
            for (Path file : files.toList()) Files.delete(file);
        }
        try (Ledger ledger = open(SMALL)) {
            assertThat(take(ledger, 1)).containsExactly("LW26-0000041");
        }
    }
}
