package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.FolderDisk;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.store.IdentifierQueries;

/** The end of a journal after a process or a machine ended: what was answered is told from what never was. */
class DamagedTailTest {
    private static final boolean KILLED = false;
    private static final boolean MACHINE_DOWN = true;

    private static final boolean ALL_BITS = Boolean.getBoolean("tail.bits");
    private static final long FIRST_SEED = Long.getLong("proof.seed", 0);

    @TempDir
    private Path data;

    private Path segment;
    private byte[] whole;
    /** Where the last line begins. */
    private int last;

    @BeforeEach
    void fill() throws IOException {
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            ledger.perform(Acts.define(), "ines");
            for (int i = 0; i < 3; i++) ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        }
        segment = data.resolve("journal/000000000000000001.jsonl");
        whole = Files.readAllBytes(segment);
        last = new String(whole, StandardCharsets.ISO_8859_1).lastIndexOf("{\"seq\":4,");
    }

    /** @return the entry that the journal ends at, or what is wrong with it */
    private String opened(byte[] bytes, boolean machineWentDown) throws IOException {
        Files.write(segment, bytes);
        try (Journal journal = Journal.open(new FolderDisk(segment.getParent()), 0, machineWentDown)) {
            return "" + journal.head().seq();
        } catch (JournalBroken e) {
            return e.getMessage() + ". " + e.wayOut();
        }
    }

    private byte[] flipped(int place, int bit) {
        byte[] bytes = whole.clone();
        bytes[place] ^= (byte) (1 << bit);
        return bytes;
    }

    /** Of each byte these, so that every byte is flipped; all eight where it is asked for. */
    private static IntStream bits(int place) {
        return ALL_BITS ? IntStream.range(0, Byte.SIZE) : IntStream.of((int) ((place + FIRST_SEED) % Byte.SIZE));
    }

    @Test
    void noFlippedBitOfTheLastBatchIsTakenForAnUnfinishedWriteAfterAKill() throws IOException {
        var taken = new ArrayList<String>();
        for (int place = last; place < whole.length; place++)
            for (int bit : bits(place).toArray()) {
                String found = opened(flipped(place, bit), KILLED);
                if (!found.contains("line 4 of 000000000000000001.jsonl (entry 4)"))
                    taken.add("byte " + place + " bit " + bit + ": " + found);
            }
        assertThat(taken).isEmpty();
    }

    @Test
    void theWayOutPutsAFlippedBitBack() throws IOException {
        var wrong = new ArrayList<String>();
        for (int place = last; place < whole.length; place++) {
            String command = "printf '\\%03o' | dd of=000000000000000001.jsonl bs=1 seek=%d conv=notrunc"
                    .formatted((int) whole[place], place);
            String found = opened(flipped(place, place % Byte.SIZE), KILLED);
            if (!found.endsWith(command)) wrong.add("byte " + place + ": " + found);
        }
        assertThat(wrong).isEmpty();
    }

    /** Where the machine went down, a byte without any bit may be what a disk has not written. */
    @Test
    void noFlippedBitOfTheLastBatchIsTakenForATornWriteAfterTheMachineWentDown() throws IOException {
        var taken = new ArrayList<String>();
        for (int place = last; place < whole.length; place++)
            for (int bit : bits(place).toArray()) {
                byte[] bytes = flipped(place, bit);
                if (bytes[place] != 0 && !opened(bytes, MACHINE_DOWN).contains("(entry 4)"))
                    taken.add("byte " + place + " bit " + bit);
            }
        assertThat(taken).isEmpty();
    }

    @Test
    void aLineThatWasNotWrittenToItsEndIsDropped() throws IOException {
        for (int end = last + 1; end < whole.length - 1; end++)
            assertThat(opened(Arrays.copyOf(whole, end), KILLED))
                    .as("%d bytes", end)
                    .isEqualTo("3");
    }

    /** It may have been answered. */
    @Test
    void aLineThatLacksNothingButItsLineFeedIsKept() throws IOException {
        assertThat(opened(Arrays.copyOf(whole, whole.length - 1), KILLED)).isEqualTo("4");
        assertThat(Files.readAllBytes(segment)).isEqualTo(whole);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 100})
    void zerosAreATornWriteAfterTheMachineWentDown(int zeros) throws IOException {
        byte[] bytes = whole.clone();
        Arrays.fill(bytes, last + 20, last + 20 + zeros, (byte) 0);
        assertThat(opened(bytes, MACHINE_DOWN)).isEqualTo("3");
    }

    @Test
    void zerosAreDamageAfterAKill() throws IOException {
        byte[] bytes = whole.clone();
        Arrays.fill(bytes, last + 20, last + 120, (byte) 0);
        assertThat(opened(bytes, KILLED)).contains("(entry 4)", "Restore 000000000000000001.jsonl from a copy");
    }

    @Test
    void aDamagedLineBeforeTheLastIsDamageHoweverTheRunEnded() throws IOException {
        for (boolean down : List.of(KILLED, MACHINE_DOWN)) {
            byte[] bytes = whole.clone();
            bytes[last - 100] ^= 1;
            assertThat(opened(bytes, down)).contains("line 3", "whole entries follow it up to 4");
        }
    }

    /** A segment begins once the one before is on disk as a whole. */
    @Test
    void nothingFollowsADamagedLineInAnotherSegment() throws IOException {
        Path next = segment.resolveSibling("000000000000000004.jsonl");
        Files.write(next, Arrays.copyOfRange(whole, last, whole.length));
        byte[] first = Arrays.copyOf(whole, last);
        first[last - 100] ^= 1;
        assertThat(opened(first, MACHINE_DOWN))
                .contains("line 3", "whole entries follow it, in segment 000000000000000004.jsonl");
        Files.write(next, new byte[0]);
        assertThat(opened(first, MACHINE_DOWN)).as("one that was only begun").doesNotContain("follow it");
    }

    @Test
    void damageStopsNumberingAndLeavesTheFileAsItIs() throws IOException {
        Files.writeString(data.resolve("in-use"), MachineRun.current() + "\n0\n");
        byte[] damaged = flipped(last + 30, 2);
        Files.write(segment, damaged);
        Files.delete(data.resolve("tables/tally.mv.db"));
        Files.delete(data.resolve("last-seen"));
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            assertThat(ledger.status().stopped()).contains("(entry 4)", "No numbers are allocated", "printf");
        }
        assertThat(Files.readAllBytes(segment)).isEqualTo(damaged);
    }

    /** Who signs in must be known, and what stood before the damage can be found. */
    @Test
    void whatStandsBeforeTheDamageCanBeAsked() throws IOException {
        Files.write(segment, flipped(last + 30, 2));
        Files.delete(data.resolve("tables/tally.mv.db"));
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            List<IdentifierQueries.Found> found = ledger.read(dsl -> new IdentifierQueries(dsl).find("LW26-0000002"));
            assertThat(found).hasSize(1);
            assertThat(ledger.snapshot().series()).containsKey(Acts.KEY);
        }
    }

    @Test
    void theAuditDoesNotPassWhileTheJournalIsDamaged() throws IOException {
        Files.write(segment, flipped(last + 30, 2));
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .first()
                    .asString()
                    .contains("cannot be trusted", "(entry 4)");
        }
    }
}
