package org.youngtally.service.definitions;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesChange;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.ledger.journal.SeriesJson;
import org.youngtally.service.definitions.Differences.Difference;

/** A plain property is taken everywhere, because it is in the list. */
class NoteTest {
    private static final String FILE = """
            series:
              - key: part
                pattern: "P{count 4}"
                note: Ask the store room first.
                ranges:
                  - { first: 1, last: 9999, opens: 2026-01-01 }
            """;

    private static final SeriesDraft DRAFT =
            DefinitionFile.read("part.yaml", FILE).drafts().series().getFirst();
    private static final Series SERIES = DraftCheck.of(DRAFT).series().orElseThrow();

    private static Series noted(String note) {
        return DraftCheck.of(DRAFT.with(SeriesProperties.NOTE, note)).series().orElseThrow();
    }

    @Test
    void theJournalKeepsIt() {
        assertThat(SeriesJson.read(SeriesJson.write(SERIES))).isEqualTo(SERIES);
    }

    @Test
    void anExportWritesWhatBecameOfIt() {
        var now = Drafts.of(List.of(SeriesDraft.of(noted("Numbers of 2025 are in the old book."))));
        assertThat(DefinitionExport.of(List.of(new KeptFile("part.yaml", FILE)), now, route -> route))
                .containsExactly(new KeptFile(
                        "part.yaml",
                        FILE.replace("Ask the store room first.", "Numbers of 2025 are in the old book.")));
    }

    @Test
    void aComparisonTellsThatItChanged() {
        assertThat(Differences.between(SERIES, noted("Ask Ines.")))
                .containsExactly(new Difference("note", "Ask the store room first.", "Ask Ines."));
    }

    @Test
    void theInterfaceTellsIt() {
        assertThat(DefinitionJson.write(SeriesProperties.SERIES, SeriesDraft.of(SERIES)))
                .containsEntry("note", "Ask the store room first.");
    }

    @Test
    void theSchemaKnowsIt() {
        assertThat(DefinitionShape.schema()
                        .at("/properties/series/items/properties/note/type")
                        .stringValue())
                .isEqualTo("string");
    }

    @Test
    void itMayChangeOnceNumbersWereGiven() {
        assertThat(SeriesChange.of(
                                SERIES,
                                noted("Ask Ines."),
                                List.of(new RangeUse(
                                        1,
                                        3,
                                        SERIES.ranges().getFirst().serves().opens())))
                        .faults())
                .isEmpty();
    }

    @Test
    void oneThatIsTooLongIsRefusedAtItsPlace() {
        assertThat(DraftCheck.of(DRAFT.with(SeriesProperties.NOTE, "x".repeat(501)))
                        .faults())
                .extracting(fault -> fault.path() + " " + fault.problem())
                .containsExactly("note is 501 symbols long");
    }
}
