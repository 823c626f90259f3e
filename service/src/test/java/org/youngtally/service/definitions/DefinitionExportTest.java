package org.youngtally.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.codebook.CodebookCheck;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

class DefinitionExportTest {
    private static final String TWO = """
            # The books
            series:
              # Of the works
              - key: a   # short
                title: Book of A
                pattern: "A{count 3}"
                restarts: [year]

                ranges:
                  # the first
                  - { first: 1, last: 99, opens: 2026-01-01 } # for now

              # Of the rest
              - { key: b, pattern: "B{count 3}", ranges: [ { first: 1, last: 9, opens: 2026-01-01 } ] }
            # The end
            """;

    private static List<Series> series(String text) {
        DefinitionFile file = DefinitionFile.read("a.yaml", text);
        assertThat(file.faults()).isEmpty();
        return file.drafts().series().stream()
                .map(draft -> DraftCheck.of(draft).series().orElseThrow())
                .toList();
    }

    /** The series of a file, one of them changed. */
    private static List<Series> changed(String text, String key, UnaryOperator<SeriesDraft> change) {
        return series(text).stream()
                .map(each -> each.key().equals(key)
                        ? DraftCheck.of(change.apply(SeriesDraft.of(each)))
                                .series()
                                .orElseThrow()
                        : each)
                .toList();
    }

    private static SeriesDraft with(
            SeriesDraft draft, String title, String locale, List<String> restarts, List<RangeDraft> ranges) {
        return SeriesDraft.of(draft.key(), draft.get(SeriesProperties.PATTERN))
                .with(SeriesProperties.TITLE, title)
                .with(SeriesProperties.NAMESPACE, draft.namespace())
                .with(SeriesProperties.LOCALE, locale)
                .with(SeriesProperties.RESTARTS, restarts)
                .with(SeriesProperties.RANGES, ranges);
    }

    /** What is defined beside the series is as the file says. */
    private static Drafts drafts(String text, List<Series> now) {
        Drafts read = DefinitionFile.read("a.yaml", text).drafts();
        return new Drafts(
                read.namespaces().stream()
                        .map(draft -> NamespaceDraft.of(draft.checked()))
                        .toList(),
                read.codebooks().stream()
                        .map(draft ->
                                CodebookDraft.of(CodebookCheck.of(draft).book().orElseThrow()))
                        .toList(),
                now.stream().map(SeriesDraft::of).toList(),
                read.units(),
                read.kinds().stream().map(KindDraft::plain).toList(),
                read.routes(),
                read.layouts());
    }

    private static String exported(String text, List<Series> now) {
        return exported(text, drafts(text, now), now);
    }

    private static String exported(String text, Drafts current, List<Series> now) {
        List<KeptFile> files =
                DefinitionExport.of(List.of(new KeptFile("a.yaml", text)), current, UnaryOperator.identity());
        assertThat(files).singleElement();
        assertThat(series(files.getFirst().text()))
                .as(files.getFirst().text())
                .containsExactlyInAnyOrderElementsOf(now);
        return files.getFirst().text();
    }

    @Test
    void whatWasAppliedIsGivenBackAsItWas() throws Exception {
        String demo = Files.readString(Path.of("../demo/larkmoor.yaml"));
        assertThat(exported(demo, series(demo))).isEqualTo(demo);
        assertThat(exported(TWO, series(TWO))).isEqualTo(TWO);
    }

    @Test
    void aChangeRewritesItsOwnPropertyAlone() {
        String text = exported(
                TWO,
                changed(
                        TWO,
                        "a",
                        draft -> with(
                                draft,
                                "Book: the new",
                                null,
                                draft.get(SeriesProperties.RESTARTS),
                                draft.get(SeriesProperties.RANGES))));
        assertThat(text).isEqualTo(TWO.replace("title: Book of A", "title: \"Book: the new\""));
    }

    @Test
    void propertiesComeAndGoInTheirPlace() {
        var ranges = new ArrayList<>(SeriesDraft.of(series(TWO).getFirst()).get(SeriesProperties.RANGES));
        ranges.add(new RangeDraft(200L, 290L, 10L, "2027-01-01", "2027-12-31", 3L));
        String text = exported(TWO, changed(TWO, "a", draft -> with(draft, "Book of A", "de", List.of(), ranges)));
        assertThat(text)
                .doesNotContain("restarts")
                .contains("    locale: de")
                .contains(
                        "- { first: 200, last: 290, step: 10, opens: 2027-01-01, closes: 2027-12-31, warn-when-left: 3 }")
                .contains("# The books")
                .contains("# short")
                .contains("# Of the rest")
                .endsWith("# The end\n");
    }

    @Test
    void anEntryInBracesStaysInBraces() {
        String text = exported(
                TWO,
                changed(
                        TWO,
                        "b",
                        draft -> with(
                                draft,
                                "Bees",
                                null,
                                draft.get(SeriesProperties.RESTARTS),
                                draft.get(SeriesProperties.RANGES))));
        assertThat(text)
                .contains(
                        "  - { key: b, title: Bees, pattern: \"B{count 3}\", ranges: [{ first: 1, last: 9, opens: 2026-01-01 }] }\n")
                .contains("# for now");
    }

    @Test
    void aSeriesOfNoFileGetsOneOfItsOwnAndOneOfTwoFilesBelongsToTheLast() {
        String older = TWO.replace("Book of A", "Old book");
        String newer =
                "series:\n  - key: a\n    title: Book of A\n    pattern: \"A{count 3}\"\n    restarts: [year]\n    ranges:\n      - { first: 1, last: 99, opens: 2026-01-01 }\n";
        List<Series> now = new ArrayList<>(series(TWO));
        now.addAll(
                series(
                        "series: [{ key: c, title: Yes, pattern: 'C{count 3}', ranges: [{ first: 1, last: 9, opens: 2026-01-01 }] }]"));
        List<KeptFile> files = DefinitionExport.of(
                List.of(new KeptFile("newer.yaml", newer), new KeptFile("older.yaml", older)),
                Drafts.of(now.stream().map(SeriesDraft::of).toList()),
                UnaryOperator.identity());
        assertThat(files).extracting(KeptFile::name).containsExactly("console.yaml", "newer.yaml", "older.yaml");
        assertThat(files.get(1).text()).isEqualTo(newer);
        assertThat(files.get(2).text())
                .doesNotContain("key: a")
                .contains("key: b")
                .contains("# The books")
                .contains("# The end");
        var all = new ArrayList<Series>();
        for (KeptFile file : files) all.addAll(series(file.text()));
        assertThat(all).containsExactlyInAnyOrderElementsOf(now);
        assertThat(files.get(0).text()).contains("title: \"Yes\"");
    }

    private static final String RULED = """
            namespaces: [{ key: marks, repeats: allowed }]
            codebooks:
              # What there is
              - key: book
                title: The book
                choices:
                  - name: Wind-chest
                    code: WC
                    choices:
                      - { name: Pallet, code: "1" }
                  - { name: Case, code: CA } # outside
            series:
              - key: a
                pattern: "{field group}-{field kind}-{unit}-{field text first 2}-{count 3}"
                fields:
                  - { name: group, codebook: book }
                  - { name: kind, within: group }
                  - { name: unit, codebook: book }
                  - { name: text, longest: 2, symbols: upper }
                restarts: [year, field group, unit]
                skips: { values: [4-9, 13], containing: ["66"] }
                proof: waived
                ranges:
                  - { first: 1, last: 99, opens: 2026-01-01 }
              - { key: m, namespace: marks, pattern: "{count upper}", order: repeating, ranges: [{ first: 1, last: 12, opens: 2026-01-01 }] }
              - key: policy
                pattern: "Q{count 3}"
                typed: allowed
                gaps: allowed
                returns: refused
                ranges:
                  - { first: 1, last: 99, opens: 2026-01-01, warn-when-left: 5, warn-days-before: 30 }
              - { key: dated, pattern: "R{count 3}", chronological: true, ranges: [{ first: 1, last: 99, opens: 2026-01-01 }] }
            """;

    @Test
    void everyPropertyIsWrittenAsItWasRead() {
        assertThat(exported(RULED, series(RULED))).isEqualTo(RULED);
        List<KeptFile> alone = DefinitionExport.of(List.of(), drafts(RULED, series(RULED)), UnaryOperator.identity());
        assertThat(alone).singleElement().satisfies(file -> {
            Drafts read = DefinitionFile.read("b", file.text()).drafts();
            assertThat(DefinitionFile.read("b", file.text()).faults())
                    .as(file.text())
                    .isEmpty();
            assertThat(series(file.text())).containsExactlyElementsOf(series(RULED));
            assertThat(CodebookCheck.of(read.codebooks().getFirst()).book())
                    .isEqualTo(CodebookCheck.of(DefinitionFile.read("a", RULED)
                                    .drafts()
                                    .codebooks()
                                    .getFirst())
                            .book());
            assertThat(read.namespaces().getFirst().checked().repeats()).isTrue();
        });
    }

    @Test
    void aChoiceThatIsAddedRewritesTheChoicesOfItsCodebookAlone() {
        CodebookDraft before =
                DefinitionFile.read("a", RULED).drafts().codebooks().getFirst();
        var choices = new ArrayList<>(before.choices());
        choices.add(new CodebookDraft.ChoiceDraft("Action", "AC", true, null));
        Drafts then = drafts(RULED, series(RULED));
        String text = exported(
                RULED,
                new Drafts(
                        then.namespaces(), List.of(new CodebookDraft("book", before.title(), choices)), then.series()),
                series(RULED));
        assertThat(text)
                .contains(
                        "  # What there is\n",
                        "      - { name: Case, code: CA }",
                        "      - { name: Action, code: AC, retired: true }",
                        "          - { name: Pallet, code: \"1\" }")
                .endsWith(RULED.substring(RULED.indexOf("series:")));
    }

    private static final String HOUSE = """
            units:
              # The group
              - { key: group, title: The group }
              - key: care
                below: group
                code: CR
                time-zone: Europe/Vienna
            kinds:
              - key: job
                fields:
                  - { name: number, title: Number }
                  - { name: class, type: choice, codebook: class, required: true }
                  - { name: size, type: number }
                lines:
                  - { name: what, required: true }
            routes:
              - { kind: job, unit: group, series: n } # all of them
              - { kind: job, unit: care, when: { class: [School, "yes"], size: { from: 10, to: 20 } }, series: m, into: number }
            """;

    @Test
    void unitsKindsAndRoutesAreGivenBackAsTheyWereWritten() {
        Drafts read = DefinitionFile.read("a.yaml", HOUSE).drafts();
        assertThat(DefinitionFile.read("a.yaml", HOUSE).faults()).isEmpty();
        UnaryOperator<RouteDraft> normal = draft -> new RouteDraft(
                draft.kind(),
                draft.unit(),
                draft.when() == null
                        ? null
                        : Map.of(
                                "class",
                                new TestDraft(List.of("S", "yes"), null, null),
                                "size",
                                draft.when().get("size")),
                draft.series(),
                null);
        Drafts now = new Drafts(
                List.of(),
                List.of(),
                List.of(),
                read.units().stream()
                        .map(draft -> UnitDraft.of(draft.checked(Optional.empty())))
                        .toList(),
                read.kinds().stream().map(KindDraft::plain).toList(),
                read.routes().stream().map(normal).toList());
        assertThat(DefinitionExport.of(List.of(new KeptFile("a.yaml", HOUSE)), now, normal))
                .singleElement()
                .extracting(KeptFile::text)
                .isEqualTo(HOUSE);
        String alone = DefinitionExport.of(List.of(), now, normal).getFirst().text();
        assertThat(DefinitionFile.read("b", alone).faults()).as(alone).isEmpty();
        Drafts again = DefinitionFile.read("b", alone).drafts();
        assertThat(again.units()).isEqualTo(now.units());
        assertThat(again.kinds()).isEqualTo(now.kinds());
        assertThat(again.routes()).isEqualTo(now.routes());
        Drafts fewer = new Drafts(
                List.of(),
                List.of(),
                List.of(),
                now.units(),
                now.kinds(),
                now.routes().subList(1, 2));
        assertThat(DefinitionExport.of(List.of(new KeptFile("a.yaml", HOUSE)), fewer, normal))
                .singleElement()
                .extracting(KeptFile::text)
                .isEqualTo(
                        HOUSE.replace("  - { kind: job, unit: group, series: n } # all of them\n", "# all of them\n"));
        Drafts none = new Drafts(List.of(), List.of(), List.of(), now.units(), now.kinds(), List.of());
        assertThat(DefinitionExport.of(List.of(new KeptFile("a.yaml", HOUSE)), none, normal))
                .singleElement()
                .satisfies(
                        file -> assertThat(DefinitionFile.read("b", file.text()).faults())
                                .isEmpty());
    }
}
