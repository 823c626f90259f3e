package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.RowReader.MergedIdentifiers;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.StateQueries;

/**
 * The capital sharp s, which the first rule of comparison takes for a letter of its own. The namespace {@code shared}
 * is of a ledger that an earlier build began.
 */
class ComparisonTest {
    private static final Path EARLIER = Path.of("src/test/resources/golden/first");
    private static final String MEASURE = "Ma\u1E9E-{count 3}";

    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void copy() throws IOException {
        for (String folder : List.of("journal", "files", "secret")) copy(EARLIER.resolve(folder), data.resolve(folder));
        ledger = Ledger.open(options());
    }

    private static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> paths = Files.walk(from)) {
            for (Path path : paths.toList()) Files.copy(path, to.resolve(from.relativize(path)));
        }
    }

    private LedgerOptions options() {
        return LedgerOptions.in(data)
                .withClock(() -> Instant.parse("2026-03-03T09:00:00Z"))
                .withZone(ZoneOffset.UTC)
                .withPatience(Duration.ZERO);
    }

    @AfterEach
    void close() throws IOException {
        ledger.close();
    }

    private Outcome<?> define(String key, String namespace, String pattern) {
        return ledger.perform(
                new Act.Define(
                        List.of(SeriesDraft.of(key, pattern)
                                .with(SeriesProperties.NAMESPACE, namespace)
                                .with(
                                        SeriesProperties.RANGES,
                                        List.of(new RangeDraft(1L, 999L, null, "2026-01-01", null, null)))),
                        Optional.empty()),
                "ines");
    }

    private Outcome<?> take(String series, Act.Form form) {
        return ledger.perform(
                new Act.Allocate(
                        series,
                        Optional.empty(),
                        1,
                        form,
                        Optional.empty(),
                        new RequestMark("ines", Optional.empty(), "digest")),
                "ines");
    }

    private Outcome<?> compare(String namespace, long rule) {
        return ledger.perform(
                new Act.Define(
                        new Drafts(List.of(new NamespaceDraft(namespace, null, null, rule)), List.of(), List.of()),
                        List.of(),
                        Optional.empty()),
                "ines");
    }

    private List<String> found(String text) {
        return ledger.read(dsl -> new IdentifierQueries(dsl)
                .find(text).stream().map(IdentifierQueries.Found::identifier).toList());
    }

    private static String fault(Outcome<?> outcome) {
        assertThat(outcome).isInstanceOf(Outcome.Refused.class);
        return ((Refusal.DefinitionsFaulty) ((Outcome.Refused<?>) outcome).refusal())
                .faults()
                .getFirst()
                .faults()
                .getFirst()
                .problem();
    }

    @Test
    void aNamespaceThatBeginsTakesItForTheSmallOne() {
        define("measure", "new", MEASURE);
        take("measure", Act.Form.SINGLES);
        assertThat(List.of(found("MASS-001"), found("ma\u00DF-001"), found("MA\u1E9E-001")))
                .containsOnly(List.of("Ma\u1E9E-001"));
    }

    @Test
    void itsProofsDoSo() {
        define("measure", "new", MEASURE);
        assertThat(fault(define("mass", "new", "MASS-{count 3}"))).contains("would arise in two ways");
    }

    @Test
    void anEarlierNamespaceKeepsThemApart() {
        define("measure", "shared", MEASURE);
        define("mass", "shared", "MASS-{count 3}");
        take("measure", Act.Form.SINGLES);
        take("mass", Act.Form.SINGLES);
        assertThat(found("Ma\u1E9E-001")).containsExactly("Ma\u1E9E-001");
    }

    @Test
    void itKeepsThemApartAfterARestart() throws IOException {
        define("measure", "shared", MEASURE);
        take("measure", Act.Form.SINGLES);
        ledger.close();
        ledger = Ledger.open(options());
        assertThat(found("MASS-001")).isEmpty();
    }

    @Test
    void isComparedAnewWhereAllStaysApart() {
        define("measure", "shared", MEASURE);
        take("measure", Act.Form.SINGLES);
        assertThat(compare("shared", 2)).isInstanceOf(Outcome.Defined.class);
        assertThat(found("MASS-001")).containsExactly("Ma\u1E9E-001");
    }

    @Test
    void whatIsComparedAnewPassesTheAuditOnceRebuilt() throws Exception {
        define("measure", "shared", MEASURE);
        take("measure", Act.Form.SINGLES);
        compare("shared", 2);
        take("measure", Act.Form.SINGLES);
        ledger.close();
        Ledger.rebuild(options());
        ledger = Ledger.open(options());
        assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings()).isEmpty();
    }

    @Test
    void isNotComparedAnewWhereSeriesWouldClash() {
        define("measure", "shared", MEASURE);
        define("mass", "shared", "MASS-{count 3}");
        assertThat(fault(compare("shared", 2))).contains("would arise in two ways");
    }

    @Test
    void isNotComparedAnewWhereNumbersWouldBeOne() {
        define("measure", "shared", MEASURE);
        define("mass", "shared", "MASS-{count 3}");
        take("measure", Act.Form.SINGLES);
        take("mass", Act.Form.SINGLES);
        assertThat(against()).contains(new MergedIdentifiers("Ma\u1E9E-001", Optional.of("MASS-001")));
    }

    @Test
    void isNotComparedAnewWhereABlockHasOne() {
        define("measure", "shared", MEASURE);
        define("mass", "shared", "MASS-{count 3}");
        take("mass", Act.Form.BLOCK);
        take("measure", Act.Form.SINGLES);
        assertThat(against()).contains(new MergedIdentifiers("Ma\u1E9E-001", Optional.of("mass-001")));
    }

    private Optional<MergedIdentifiers> against() {
        return ledger.read(dsl -> {
            var state = new StateQueries(dsl);
            return state.against(
                    state.series().stream()
                            .filter(series -> series.namespace().equals("shared"))
                            .toList(),
                    Comparison.SECOND);
        });
    }

    @Test
    void isNotComparedAnewWhereABlockIsWrittenSo() {
        define("measure", "shared", MEASURE);
        take("measure", Act.Form.BLOCK);
        assertThat(fault(compare("shared", 2))).contains("‘Ma\u1E9E-001’ was issued in a block");
    }

    @Test
    void doesNotGoBack() {
        define("measure", "new", MEASURE);
        assertThat(fault(compare("new", 1))).contains("cannot go back");
    }

    @Test
    void anUnknownRuleIsRefused() {
        assertThat(fault(compare("shared", 3))).contains("unknown rule of comparison 3");
    }

    @Test
    void aCountOfItIsRefusedWhereItIsTwoSymbols() {
        assertThat(fault(define("odd", "new", "O{count 3 of AB\u1E9E}"))).contains("as a single symbol");
    }
}
