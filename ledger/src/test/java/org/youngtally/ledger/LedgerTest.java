package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Refusal;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;

class LedgerTest {
    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void open() throws Exception {
        ledger = Ledger.open(LedgerOptions.in(data));
        ledger.perform(Acts.define(), "ines");
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private void reopen() throws Exception {
        ledger.close();
        ledger = Ledger.open(LedgerOptions.in(data));
    }

    private static <T> List<T> together(int callers, IntFunction<Callable<T>> call) throws Exception {
        try (var threads = Executors.newFixedThreadPool(callers)) {
            var results = new ArrayList<T>();
            for (var future :
                    threads.invokeAll(IntStream.range(0, callers).mapToObj(call).toList())) results.add(future.get());
            return results;
        }
    }

    private AuditReport audit() {
        return Audit.of(ledger, Optional.empty(), Head.EMPTY);
    }

    private List<IdentifierQueries.Found> find(String text) {
        return ledger.read(dsl -> new IdentifierQueries(dsl).find(text));
    }

    private List<EntryQueries.Row> page(Optional<String> series, long before, int most) {
        return ledger.read(dsl -> new EntryQueries(dsl).page(series.map(List::of), before, most));
    }

    @Test
    void sixtyFourCallersOnOneSeriesGetAGapFreeRow() throws Exception {
        List<List<String>> taken = together(
                64,
                caller -> () -> IntStream.range(0, 25)
                        .mapToObj(i -> Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1 + i % 2), "c" + caller)))
                        .flatMap(List::stream)
                        .toList());
        Set<String> all = taken.stream().flatMap(List::stream).collect(Collectors.toSet());
        int expected = 64 * (13 + 24);
        assertThat(taken.stream().mapToInt(List::size).sum()).isEqualTo(expected);
        assertThat(all)
                .containsExactlyInAnyOrderElementsOf(IntStream.rangeClosed(1, expected)
                        .mapToObj("LW26-%07d"::formatted)
                        .toList());
        assertThat(audit().findings()).isEmpty();
        assertThat(audit().positions()).isEqualTo(expected);
    }

    @Test
    void oneRefusedActDoesNotHarmTheOthersOfItsBatch() throws Exception {
        List<Outcome<?>> outcomes = together(
                32, caller -> () -> ledger.perform(Acts.take(caller % 2 == 0 ? "short" : Acts.KEY, 1), "c" + caller));
        assertThat(outcomes.stream().filter(Outcome.Taken.class::isInstance)).hasSize(16 + 3);
        assertThat(outcomes.stream()
                        .filter(Outcome.Refused.class::isInstance)
                        .map(outcome -> ((Outcome.Refused<?>) outcome).refusal()))
                .hasSize(13)
                .allMatch(Refusal.Exhausted.class::isInstance);
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void concurrentEqualKeysGetOneNumber() throws Exception {
        List<Outcome<?>> outcomes =
                together(48, caller -> () -> ledger.perform(Acts.take(Acts.KEY, 2, "key-" + caller % 3, null), "ines"));
        assertThat(outcomes.stream().map(Acts::identifiers).distinct()).hasSize(3);
        assertThat(outcomes.stream().filter(outcome -> !((Outcome.Taken) outcome).repeated()))
                .hasSize(3);
    }

    @Test
    void concurrentEqualReferencesGetOneNumberWhoeverAsks() throws Exception {
        List<Outcome<?>> outcomes = together(
                48, caller -> () -> ledger.perform(Acts.take(Acts.KEY, 1, null, "ORDER-" + caller % 3), "c" + caller));
        assertThat(outcomes.stream().map(Acts::identifiers).distinct()).hasSize(3);
    }

    @Test
    void keysAndReferencesHoldAfterARestart() throws Exception {
        List<String> first = Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 3, "k", "ORDER-1"), "ines"));
        reopen();
        assertThat(ledger.perform(Acts.take(Acts.KEY, 3, "k", "ORDER-1"), "ines"))
                .isInstanceOfSatisfying(Outcome.Taken.class, taken -> {
                    assertThat(taken.repeated()).isTrue();
                    assertThat(taken.taking().identifiers()).isEqualTo(first);
                });
        assertThat(ledger.perform(Acts.take(Acts.KEY, 4, "k", null), "ines"))
                .isEqualTo(new Outcome.Refused<>(new Refusal.KeyReused("k", 2)));
    }

    @Test
    void aRepeatedRequestIsAnsweredAlsoWhereItWouldBeRefusedByNow() throws Exception {
        List<String> first = Acts.identifiers(ledger.perform(Acts.take("short", 3, "k", "r"), "ines"));
        assertThat(ledger.perform(Acts.take("short", 1, "other", null), "ines").toString())
                .contains("Exhausted");
        reopen();
        assertThat(Acts.identifiers(ledger.perform(Acts.take("short", 3, "k", "r"), "ines")))
                .isEqualTo(first);
        assertThat(ledger.perform(Acts.take("short", 1, "k", null), "ines").toString())
                .contains("KeyReused");
        assertThat(ledger.perform(Acts.take("short", 1, null, "r"), "tobin").toString())
                .contains("ReferenceReused");
        reopen();
        assertThat(Acts.identifiers(ledger.perform(Acts.take("short", 3, "new", "r"), "tobin")))
                .isEqualTo(first);
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void oldAndNewKeysInOneBatchAreToldApart() throws Exception {
        List<String> old = together(
                16,
                caller -> () -> Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1, "k" + caller, null), "ines"))
                        .getFirst());
        reopen();
        List<String> mixed = together(
                64,
                caller -> () -> Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1, "k" + caller, null), "ines"))
                        .getFirst());
        assertThat(mixed.subList(0, 16)).isEqualTo(old);
        assertThat(mixed).doesNotHaveDuplicates();
        assertThat(audit().positions()).isEqualTo(64);
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void aBlockIsOneRowAndEveryNumberInItIsFound() {
        ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        var block = ((Outcome.Taken) ledger.perform(Acts.block(Acts.KEY, 1_000_000), "ines")).taking();
        assertThat(List.of(block.first(), block.last())).containsExactly("LW26-0000002", "LW26-1000001");
        assertThat(Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")))
                .containsExactly("LW26-1000002");
        var found = find("lw26-0500000");
        assertThat(found).singleElement().satisfies(each -> {
            assertThat(each.position()).isEqualTo(499_999);
            assertThat(each.block()).isTrue();
        });
        assertThat(find("LW26-1000003")).isEmpty();
        assertThat(audit().findings()).isEmpty();
        assertThat(audit().positions()).isEqualTo(1_000_002);
    }

    @Test
    void entriesArePagedFromNewToOld() {
        for (int i = 0; i < 7; i++) ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        ledger.perform(Acts.take("short", 1), "ines");
        var page = page(Optional.of(Acts.KEY), Long.MAX_VALUE, 3);
        assertThat(page).extracting(EntryQueries.Row::seq).containsExactly(8L, 7L, 6L);
        assertThat(page(Optional.of(Acts.KEY), 3, 9))
                .extracting(EntryQueries.Row::seq)
                .containsExactly(2L, 1L);
        assertThat(page(Optional.empty(), Long.MAX_VALUE, 2))
                .extracting(EntryQueries.Row::seq)
                .containsExactly(9L, 8L);
    }

    @Test
    void oneProcessOwnsTheFolder() {
        assertThatThrownBy(() -> Ledger.open(LedgerOptions.in(data)))
                .isInstanceOf(LedgerInUse.class)
                .hasMessageContaining("another process is using");
    }

    @Test
    void anEarlierHeadProvesThatNothingWasRewritten() throws Exception {
        Head early = audit().head();
        ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        assertThat(Audit.of(ledger, Optional.empty(), early).findings()).isEmpty();
        assertThat(Audit.of(ledger, Optional.empty(), new Head(1, "a".repeat(64)))
                        .findings())
                .singleElement()
                .asString()
                .contains("rewritten");
        assertThat(Audit.of(ledger, Optional.empty(), new Head(99, "a".repeat(64)))
                        .findings())
                .singleElement()
                .asString()
                .contains("cut off");
    }

    @Test
    void nothingIsReplayedAfterACleanStop() throws Exception {
        ledger.perform(Acts.take(Acts.KEY, 5), "ines");
        reopen();
        assertThat(ledger.status().opening()).isEmpty();
    }
}
