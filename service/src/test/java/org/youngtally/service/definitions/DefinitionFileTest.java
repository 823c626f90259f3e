package org.youngtally.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.service.web.Refusals.DefinitionFault;

/** What an administrator's file is read as, and how its faults are told. */
class DefinitionFileTest {
    private static final String SERIES = """
            series:
              - key: invoice
                pattern: "LW{date yy}-{count 5}"
                %s
                ranges:
                  - { first: 1, last: 99999, opens: 2026-01-01 }
            """;

    private static DefinitionFile file(String property) {
        return DefinitionFile.read("a.yaml", SERIES.formatted(property));
    }

    private static DefinitionFault fault(String text) {
        return DefinitionFile.read("a.yaml", text).faults().getFirst();
    }

    @Test
    void aPropertyIsReadUnderItsNameInFiles() {
        SeriesDraft draft = file("fiscal-year-starts: 4").drafts().series().getFirst();
        assertThat(draft.get(SeriesProperties.FISCAL_YEAR_STARTS)).isEqualTo(4);
    }

    @Test
    void itsNameInTheInterfaceIsNoneInAFile() {
        assertThat(file("fiscalYearStarts: 4").faults().getFirst().accepted())
                .startsWith("did you mean fiscal-year-starts?");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "series:%n  - { key: a, pattern: A{count 3} } | a text with braces is not in quotes",
                "series:%n  - key: a%n    pattern: {count 3}-A | a text with braces is not in quotes",
                "series:%n  - key: a%n      pattern: A | the line is indented further than the one before it",
                "series:%n  - key: a%n   pattern: A | the indentation does not match the lines before it",
                "series:%n  - key: a%n\tpattern: A | the line is indented with a tab",
            })
    void whatYamlObjectsToIsExplained(String text, String problem) {
        assertThat(fault(text.formatted()).problem()).startsWith(problem);
    }

    @Test
    void aPatternOfOneFieldWithoutQuotesIsExplained() {
        assertThat(fault("series:%n  - key: a%n    pattern: {count}%n".formatted())
                        .problem())
                .startsWith("has braces that are not in quotes");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "longest: ten | longest | ‘ten’ is not a whole number of up to 18 digits",
                "longest: [1] | longest | is not a single value",
                "chronological: yes | chronological | ‘yes’ is neither true nor false",
                "restarts: year | restarts | is not a list",
                "skips: [13] | skips | skips has no properties",
                "skips: { value: [13] } | skips.value | is not a property of skips",
                "fields: [{ nam: group }] | fields[0].nam | is not a property of a field",
            })
    void aFaultOfShapeIsToldAtItsLine(String property, String path, String problem) {
        assertThat(file(property).faults())
                .extracting(DefinitionFault::line, DefinitionFault::path, DefinitionFault::problem)
                .containsExactly(tuple(4, path, problem));
    }

    @Test
    void aPropertyStandsOnce() {
        assertThat(file("title: a\n    title: b").faults())
                .extracting(DefinitionFault::problem)
                .containsExactly("occurs twice");
    }

    @Test
    void theLineOfSomethingInsideIsFound() {
        assertThat(file("title: a").line(What.SERIES, 0, "ranges[0].last")).isEqualTo(6);
    }

    @Test
    void theLineOfWhatIsMissingIsThatOfWhatEnclosesIt() {
        assertThat(file("title: a").line(What.SERIES, 0, "ranges[0].step")).isEqualTo(6);
    }

    @Test
    void anUnknownListIsRefusedWithTheNearest() {
        assertThat(fault("serie: []").accepted()).startsWith("did you mean series?");
    }

    @Test
    void aListThatLostItsLastEntryIsEmpty() {
        assertThat(DefinitionFile.read("a.yaml", "series:\nunits:\n  - key: works\n")
                        .faults())
                .isEmpty();
    }

    @Test
    void whatIsNoYamlIsToldWithItsColumn() {
        assertThat(fault("series: [").accepted()).contains("at column");
    }

    @Test
    void anAnchorThatRepeatsItselfIsRefused() {
        assertThat(fault("series: &a [*a, *a]").problem()).startsWith("the file is not YAML");
    }

    @Test
    void aConditionIsAValueAListOrFromAndTo() {
        var routes = DefinitionFile.read("a.yaml", """
                routes:
                  - { kind: job, unit: works, when: { a: x, b: [y, z], c: { from: 1 } }, series: job }
                """).drafts().routes();
        assertThat(routes.getFirst().when())
                .containsEntry("a", new TestDraft(List.of("x"), null, null))
                .containsEntry("b", new TestDraft(List.of("y", "z"), null, null))
                .containsEntry("c", new TestDraft(null, "1", null));
    }
}
