package org.youngtally.core.act;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** Whoever writes several definitions is told what is wrong with all of them, and nothing that only follows from it. */
class AllFaultsTest {
    private final MemoryLedger ledger = new MemoryLedger();

    private static SeriesDraft series(String key, String pattern, Long last) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, last, null, "2026-01-01", null, null, null)));
    }

    private static final CodebookDraft FAULTY_BOOK =
            new CodebookDraft("group", null, List.of(new ChoiceDraft("Pipes", null, null, null)));

    private static KindDraft kind(String key, String deleting) {
        return new KindDraft(
                key,
                null,
                List.of(new KindFieldDraft("number", null, null, null, null, null)),
                null,
                null,
                null,
                deleting,
                null,
                null);
    }

    private List<String> faults(Drafts drafts) {
        Decision decision = ledger.perform(new Act.Define(drafts, List.of(), Optional.empty()));
        return ((Refusal.DefinitionsFaulty) ((Decision.Refused) decision).refusal())
                .faults().stream()
                        .flatMap(each -> each.faults().stream().map(fault -> each.key() + " " + fault.path()))
                        .toList();
    }

    @Test
    void faultsOfAllSortsAreTold() {
        assertThat(faults(new Drafts(
                        List.of(),
                        List.of(FAULTY_BOOK),
                        List.of(series("a", "A{count 2}", 999L), series("b", "B{count 2}", 99L)),
                        List.of(new UnitDraft("works", null, "nowhere", null, null)),
                        List.of(kind("job", "burn")),
                        List.of(new RouteDraft("task", "works", null, "b", null)))))
                .containsExactly("group choices[0].code", "a ranges[0].last", "works below", "job deleting");
    }

    @Test
    void whatRestsOnAFaultIsNotToldOnceMore() {
        assertThat(faults(new Drafts(
                        List.of(),
                        List.of(FAULTY_BOOK),
                        List.of(series("a", "A{field group}{count 2}", 99L)
                                .with(
                                        SeriesProperties.FIELDS,
                                        List.of(new FieldDraft("group", "group", null, null, null)))),
                        List.of(),
                        List.of(),
                        List.of())))
                .containsExactly("group choices[0].code");
    }
}
