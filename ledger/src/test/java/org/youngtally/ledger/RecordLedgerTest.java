package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.ledger.store.SeriesStatusQueries;
import org.youngtally.ledger.store.StateQueries;

/** Records on disk: they stand after every start with their numbers, and are held against the journal. */
class RecordLedgerTest {
    private static final Instant NOW = Instant.parse("2026-03-02T09:00:00Z");
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);
    private static final RequestMark MARK = new RequestMark("ines", Optional.empty(), "digest");

    @TempDir
    private Path folder;

    private Ledger open() throws IOException {
        return Ledger.open(LedgerOptions.in(folder)
                .withClock(Clock.fixed(NOW, ZoneOffset.UTC))
                .withZone(ZoneOffset.UTC));
    }

    private static KindFieldDraft text(String name) {
        return new KindFieldDraft(name, null, null, null, null, null);
    }

    private static SeriesDraft series(String key) {
        return SeriesDraft.of(key, key + "{count 3}")
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 999L, null, "2026-01-01", null, null)));
    }

    /** Small jobs are numbered by n, large ones by m. */
    private static Act<?> define() {
        KindDraft job = new KindDraft(
                "job",
                null,
                List.of(
                        text("number"),
                        text("name"),
                        new KindFieldDraft("dated", null, "date", null, null, null),
                        text("size")),
                List.of(text("what")),
                List.of("name"),
                null,
                null,
                "dated",
                null);
        return new Act.Define(
                new Drafts(
                        List.of(),
                        List.of(),
                        List.of(series("n"), series("m")),
                        List.of(
                                new UnitDraft("works", null, null, null, null),
                                new UnitDraft("care", null, null, null, null)),
                        List.of(job),
                        List.of(
                                new RouteDraft("job", "works", null, "n", null),
                                new RouteDraft(
                                        "job",
                                        "works",
                                        Map.of("size", new TestDraft(List.of("large"), null, null)),
                                        "m",
                                        null),
                                new RouteDraft("job", "care", null, "n", null))),
                List.of(),
                Optional.empty());
    }

    private static KeptRecord save(Ledger ledger, String name) {
        return ((Outcome.Recorded) ledger.perform(
                        new Act.SaveRecord(
                                "job",
                                "works",
                                Map.of("name", name),
                                List.of(),
                                Optional.empty(),
                                Optional.empty(),
                                "n",
                                MARK),
                        "ines"))
                .record();
    }

    private static KeptRecord change(Ledger ledger, long record, String unit, RecordChange change) {
        return ((Outcome.Recorded)
                        ledger.perform(new Act.ChangeRecord(record, unit, change, Optional.empty(), MARK), "ines"))
                .record();
    }

    private static List<String> table(Ledger ledger, String... sizes) {
        List<Map<String, String>> rows = List.of(sizes).stream()
                .map(size -> Map.of("size", size, "dated", "2026-02-0" + size.length()))
                .toList();
        return ((Outcome.Filled) ledger.perform(
                        new Act.FillTable("job", "works", rows, Optional.empty(), Set.of("n", "m"), MARK), "ines"))
                .identifiers();
    }

    private static void fill(Ledger ledger) {
        ledger.perform(define(), "ines");
        save(ledger, "Pallet");
        save(ledger, "Slider");
        change(ledger, 1, "care", new RecordChange.TakeOver(Map.of("size", "small")));
        change(ledger, 1, "care", new RecordChange.Renumber(Optional.of("counted wrongly"), Optional.empty(), "n"));
        change(ledger, 2, "works", new RecordChange.Delete(Optional.of("twice")));
        table(ledger, "small", "large", "small");
    }

    private static List<List<RecordQueries.Version>> histories(Ledger ledger) {
        return LongStream.rangeClosed(1, 2)
                .mapToObj(id -> ledger.read(dsl -> new RecordQueries(dsl).versions(id)))
                .toList();
    }

    @Test
    void recordsStandWithTheirNumbersAfterAStartAndAfterARebuild() throws IOException {
        List<List<RecordQueries.Version>> before;
        try (Ledger ledger = open()) {
            fill(ledger);
            before = histories(ledger);
            assertThat(before.getFirst())
                    .extracting(version -> version.record().number().text())
                    .containsExactly("n003", "n001", "n001");
            assertThat(before.getLast().getFirst().record().deleted()).isTrue();
        }
        Ledger.rebuild(LedgerOptions.in(folder));
        try (Ledger ledger = open()) {
            assertThat(histories(ledger)).isEqualTo(before);
            assertThat(ledger.<Optional<Long>>read(dsl -> new RecordQueries(dsl)
                            .numbered(new StateQueries(dsl).series().getFirst(), "N001")))
                    .as("the old number leads there too")
                    .contains(1L);
            assertThat(ledger.perform(
                            new Act.SaveRecord(
                                    "job",
                                    "works",
                                    Map.of("name", "pallet"),
                                    List.of(),
                                    Optional.empty(),
                                    Optional.empty(),
                                    "n",
                                    MARK),
                            "ines"))
                    .isInstanceOfSatisfying(Outcome.Recorded.class, known -> assertThat(known.known())
                            .isTrue());
            assertThat(save(ledger, "Slider").number().text())
                    .as("a deleted one is known by nothing")
                    .isEqualTo("n006");
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
    }

    @Test
    void aTableOverTwoSeriesIsSeenAtEachOfThemWithItsOwnNumbers() throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(define(), "ines");
            assertThat(table(ledger, "small", "large", "large", "tiny"))
                    .containsExactly("n001", "m001", "m002", "n002");
            for (String series : List.of("n", "m")) {
                EntryQueries.Row row = ledger.read(
                                dsl -> new EntryQueries(dsl).page(Optional.of(List.of(series)), Long.MAX_VALUE, 1))
                        .getFirst();
                assertThat(row.kind()).isEqualTo(Entry.Kind.FILL);
                assertThat(ledger.<List<String>>read(dsl -> new EntryQueries(dsl).ends(row, series::equals)))
                        .containsExactly(series + "001", series + "002");
            }
            List<SeriesStatusQueries.Newest> newest = ledger
                    .read(dsl -> new SeriesStatusQueries(dsl, ledger.snapshot().counters())
                            .all(ledger.snapshot().series().values(), TODAY))
                    .stream()
                    .map(standing -> standing.newest().orElseThrow())
                    .toList();
            assertThat(newest)
                    .extracting(SeriesStatusQueries.Newest::identifier)
                    .containsExactly("m002", "n002");
            assertThat(newest)
                    .extracting(SeriesStatusQueries.Newest::date)
                    .as("each of the last row of its own")
                    .containsExactly(LocalDate.of(2026, 2, 5), LocalDate.of(2026, 2, 4));
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "update record_version set content = replace(content, 'Pallet', 'Palet') where record_id = 1",
                "delete from record_version where record_id = 2 and version = 1",
                "delete from record_number where record_id = 1",
                "insert into record_version select 3, 1, seq, content from record_version where record_id = 1 and version = 1",
                "update allocation set text = 'n009', text_key = 'n009' where text = 'n003'"
            })
    void theAuditFindsWhatTheTablesSayOtherwise(String tampering) throws IOException, SQLException {
        try (Ledger ledger = open()) {
            fill(ledger);
        }
        try (var connection =
                DriverManager.getConnection(LedgerOptions.in(folder).storeUrl(), "tally", "")) {
            assertThat(connection.createStatement().executeUpdate(tampering)).isPositive();
        }
        try (Ledger ledger = open()) {
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isNotEmpty();
        }
    }

    /** A record that is known by its name already is not somebody else's request. */
    @Test
    void aKeyStandsForItsOwnRequestAlsoWhereAnotherRecordIsKnown() throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(define(), "ines");
            Act<?> first = named("Pallet", "key-1", "first");
            assertThat(ledger.perform(first, "ines")).isInstanceOf(Outcome.Recorded.class);
            assertThat(ledger.perform(named("Slider", "key-2", "second"), "ines"))
                    .isInstanceOf(Outcome.Recorded.class);
            assertThat(ledger.perform(named("Slider", "key-1", "third"), "ines"))
                    .isEqualTo(new Outcome.Refused<>(new Refusal.KeyReused("key-1", 2)));
            assertThat(((Outcome.Recorded) ledger.perform(first, "ines")).repeated())
                    .isTrue();
        }
    }

    private static Act<?> named(String name, String key, String digest) {
        return new Act.SaveRecord(
                "job",
                "works",
                Map.of("name", name),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                "n",
                new RequestMark("ines", Optional.of(key), digest));
    }
}
