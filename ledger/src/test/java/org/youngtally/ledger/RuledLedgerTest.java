package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.DriverManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SkipsDraft;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.IdentifierQueries.Found;
import org.youngtally.ledger.store.SeriesStatusQueries;

/**
 * Series with fields, codebooks, skipped values, scattered and repeating ones, on disk: after a restart and made anew
 * from the journal.
 */
class RuledLedgerTest {
    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void open() throws Exception {
        ledger = Ledger.open(LedgerOptions.in(data));
        var book = new CodebookDraft(
                "part",
                "Parts",
                List.of(
                        new ChoiceDraft("Wind-chest", "WC", null, List.of(new ChoiceDraft("Pallet", "PL", null, null))),
                        new ChoiceDraft("Case", "CA", true, null),
                        new ChoiceDraft("Action", "AC", null, List.of(new ChoiceDraft("Backfall", "BF", null, null)))));
        var parts = SeriesDraft.of("part", "{field group}-{field type}-{count 3}")
                .with(
                        SeriesProperties.FIELDS,
                        List.of(
                                new FieldDraft("group", "part", null, null, null),
                                new FieldDraft("type", null, "group", null, null)))
                .with(SeriesProperties.RESTARTS, List.of("field group"))
                .with(SeriesProperties.RANGES, range(1, 999));
        var skipping = SeriesDraft.of("seat", "S{count 3}")
                .with(SeriesProperties.SKIPS, new SkipsDraft(List.of("4-5"), List.of("13")))
                .with(SeriesProperties.RANGES, range(1, 999));
        var codes = SeriesDraft.of("voucher", "V-{count 5 safe}")
                .with(SeriesProperties.ORDER, "scattered")
                .with(SeriesProperties.SKIPS, new SkipsDraft(null, List.of("BAD")))
                .with(SeriesProperties.RANGES, range(0, 20_000_000));
        var marks = SeriesDraft.of("mark", "{count upper}")
                .with(SeriesProperties.NAMESPACE, "marks")
                .with(SeriesProperties.ORDER, "repeating")
                .with(SeriesProperties.RANGES, range(1, 3));
        var client = SeriesDraft.of("client", "{field name unaccented first 3 upper pad 3 X}{count 4}")
                .with(SeriesProperties.FIELDS, List.of(new FieldDraft("name", null, null, 3L, "upper")))
                .with(SeriesProperties.RESTARTS, List.of("field name"))
                .with(SeriesProperties.RANGES, range(1, 9_999));
        Outcome<?> defined = ledger.perform(
                new Act.Define(
                        new Drafts(
                                List.of(new NamespaceDraft("marks", "Marks", "allowed", null)),
                                List.of(book),
                                List.of(parts, skipping, codes, marks, client)),
                        List.of(),
                        Optional.empty()),
                "ines");
        assertThat(defined).isInstanceOfSatisfying(Outcome.Defined.class, done -> assertThat(done.series())
                .hasSize(5));
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private void reopen() throws Exception {
        ledger.close();
        ledger = Ledger.open(LedgerOptions.in(data));
    }

    private static List<RangeDraft> range(long first, long last) {
        return List.of(new RangeDraft(first, last, null, "2026-01-01", null, null));
    }

    private static Act.Allocate take(String series, Act.Form form, long quantity, Map<String, String> fields) {
        return new Act.Allocate(
                series,
                Optional.of(LocalDate.of(2026, 3, 2)),
                fields,
                quantity,
                form,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "digest"));
    }

    private List<String> taken(String series, long quantity, Map<String, String> fields) {
        return Acts.identifiers(ledger.perform(take(series, Act.Form.SINGLES, quantity, fields), "ines"));
    }

    private Found found(String text) {
        return all(text).getFirst();
    }

    private List<Found> all(String text) {
        return ledger.read(dsl -> new IdentifierQueries(dsl).find(text));
    }

    private AuditReport audit() {
        return Audit.of(ledger, Optional.empty(), Head.EMPTY);
    }

    private List<String> someOfEach() {
        var all = new ArrayList<String>();
        all.addAll(taken("part", 2, Map.of("group", "Wind-chest", "type", "pl")));
        all.addAll(taken("part", 1, Map.of("group", "AC", "type", "Backfall")));
        all.addAll(taken("seat", 12, Map.of()));
        all.addAll(taken("voucher", 3, Map.of()));
        all.addAll(taken("client", 2, Map.of("name", "Ørsted")));
        all.addAll(taken("client", 1, Map.of("name", "Li")));
        return all;
    }

    @Test
    void everythingStandsAfterARestartAndAfterARebuild() throws Exception {
        List<String> before = someOfEach();
        assertThat(before)
                .contains(
                        "WC-PL-001",
                        "WC-PL-002",
                        "AC-BF-001",
                        "S001",
                        "S006",
                        "S012",
                        "S014",
                        "S015",
                        "ORS0001",
                        "ORS0002",
                        "LIX0001")
                .doesNotContain("S004", "S005", "S013")
                .doesNotHaveDuplicates();
        assertThat(audit().findings()).isEmpty();
        assertThat(audit().in(PositionState.SKIPPED)).isEqualTo(3);
        reopen();
        assertThat(before)
                .allSatisfy(text -> assertThat(found(text).identifier()).isEqualTo(text));
        assertThat(found("wc-pl-002").particulars().fields()).isEqualTo(Map.of("group", "WC", "type", "PL"));
        ledger.close();
        Ledger.rebuild(LedgerOptions.in(data));
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(before)
                .allSatisfy(text -> assertThat(found(text).identifier()).isEqualTo(text));
        assertThat(audit().findings()).isEmpty();
        List<String> after = someOfEach();
        assertThat(after).contains("WC-PL-003", "S016", "ORS0003").doesNotContainAnyElementsOf(before);
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void marksComeRoundAndEachRoundIsKept() throws Exception {
        assertThat(taken("mark", 7, Map.of())).containsExactly("A", "B", "C", "A", "B", "C", "A");
        reopen();
        assertThat(all("a")).extracting(Found::round).containsExactlyInAnyOrder(1L, 2L, 3L);
        assertThat(taken("mark", 1, Map.of())).containsExactly("B");
        assertThat(audit().findings()).isEmpty();
        assertThat(ledger.perform(take("mark", Act.Form.BLOCK, 2, Map.of()), "ines")
                        .toString())
                .contains("NoBlocks");
    }

    @Test
    void numbersOfABlockAreFoundBehindFieldsSkipsAndScattering() {
        var taking =
                ((Outcome.Taken) ledger.perform(take("voucher", Act.Form.BLOCK, 5_000, Map.of()), "ines")).taking();
        assertThat(found(taking.first()).position()).isZero();
        assertThat(found(taking.last()).block()).isTrue();
        ledger.perform(take("seat", Act.Form.BLOCK, 20, Map.of()), "ines");
        assertThat(found("S014").block()).isTrue();
        assertThat(all("S013")).isEmpty();
        assertThat(all("S005")).isEmpty();
        ledger.perform(take("part", Act.Form.BLOCK, 20, Map.of("group", "WC", "type", "PL")), "ines");
        assertThat(found("WC-PL-020").lane()).isEqualTo("group WC");
        assertThat(all("AC-BF-020")).isEmpty();
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void theSecretStandsInItsOwnFileAlone() throws Exception {
        taken("voucher", 3, Map.of());
        ledger.close();
        Path file = data.resolve("secret");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(file)))
                .isEqualTo("rw-------");
        String secret = Files.readString(file).strip();
        assertThat(secret).matches("[0-9a-f]{64}");
        try (Stream<Path> files = Files.walk(data.resolve("journal"))) {
            for (Path each : files.filter(Files::isRegularFile).toList())
                assertThat(Files.readString(each)).contains("secretMark").doesNotContain(secret);
        }
        ledger = Ledger.open(LedgerOptions.in(data));
    }

    @Test
    void withoutItsSecretTheLedgerStopsAndGoesOnWithIt() throws Exception {
        List<String> before = taken("voucher", 3, Map.of());
        ledger.close();
        Path file = data.resolve("secret");
        String secret = Files.readString(file);
        Files.writeString(file, "00".repeat(32) + "\n");
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(ledger.status().stopped()).contains("the secret of this data folder", "voucher");
        assertThatThrownBy(() -> taken("seat", 1, Map.of())).isInstanceOf(LedgerUnavailable.class);
        assertThat(audit().findings().toString()).contains("cannot be proved");
        assertThat(found(before.getFirst()).position()).isZero();
        List<SeriesStatusQueries.SeriesStatus> standings = ledger.read(
                dsl -> new SeriesStatusQueries(dsl, ledger.snapshot().counters())
                        .all(ledger.snapshot().series().values(), LocalDate.of(2026, 3, 2)));
        assertThat(standings)
                .filteredOn(standing -> standing.series().key().equals("voucher"))
                .singleElement()
                .satisfies(standing -> {
                    assertThat(standing.newest().orElseThrow().identifier()).isEqualTo(before.getLast());
                    assertThat(standing.outlook().orElseThrow().next()).isEmpty();
                });
        ledger.close();
        Files.delete(file);
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(ledger.status().stopped()).contains("the secret of this data folder is missing");
        assertThat(file).doesNotExist();
        ledger.close();
        Files.writeString(file, secret);
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(ledger.status().running()).isTrue();
        assertThat(taken("voucher", 3, Map.of())).doesNotContainAnyElementsOf(before);
        assertThat(audit().findings()).isEmpty();
    }

    @Test
    void theAuditFindsAFalseSkipAndAChangedField() throws Exception {
        someOfEach();
        ledger.close();
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "");
                var statement = connection.createStatement()) {
            assertThat(statement.executeUpdate(
                            "update allocation set state = 2, text = null, text_key = null where text = 'S012'"))
                    .isEqualTo(1);
            assertThat(
                            statement.executeUpdate(
                                    "update allocation set fields = '{\"group\":\"AC\",\"type\":\"BF\"}' where text = 'WC-PL-001'"))
                    .isEqualTo(1);
        }
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "");
                var statement = connection.createStatement()) {
            assertThat(
                            statement.executeUpdate(
                                    "update series_version set definition = replace(definition, '999', '998') where definition like '%\"seat\"%'"))
                    .isEqualTo(1);
            assertThat(statement.executeUpdate(
                            "update codebook_version set definition = replace(definition, 'Pallet', 'Palette')"))
                    .isEqualTo(1);
        }
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(audit().findings().toString())
                .contains(
                        "series seat, version 1: the tables define it differently",
                        "codebook part, version 1: the tables define it differently")
                .contains(
                        "passed over, though the definition does not skip the value",
                        "‘WC-PL-001’ was found where the definition writes ‘AC-BF-001’",
                        "the tables hold other numbers than the journal");
    }
}
