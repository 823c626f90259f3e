package org.youngtally.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.springframework.http.HttpHeaders;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.series.DateWindow;
import org.youngtally.ledger.LedgerUnavailable;

/** How refusals are told: what happened, the field at fault, and what would do. */
class RefusalsTest {
    @Test
    void anUnknownSeriesIsToldWithTheNearest() {
        Problem problem = Refusals.problem(new Refusal.UnknownSeries("invoce", Optional.of("invoice")));
        assertThat(problem).hasMessage("Series ‘invoce’ not found. Did you mean ‘invoice’?");
    }

    @Test
    void theNearestIsWhatWouldBeAccepted() {
        Problem problem = Refusals.problem(new Refusal.UnknownSeries("invoce", Optional.of("invoice")));
        assertThat(problem.accepted()).contains("invoice");
    }

    @Test
    void moreThanStandAloneIsToldWithTheMost() {
        Problem problem = Refusals.problem(new Refusal.QuantityOutOfBounds(1_001, 1_000, Act.Form.SINGLES));
        assertThat(problem.detail().getProperties()).containsEntry("most", 1_000L);
    }

    @Test
    void aDateThatNoRangeServesIsToldWithThoseThatAreServed() {
        var served = new DateWindow(LocalDate.of(2026, 1, 1), LocalDate.of(2026, 12, 31));
        Problem problem =
                Refusals.problem(new Refusal.DateNotServed("invoice", LocalDate.of(2027, 1, 1), List.of(served)));
        assertThat(problem.detail().getProperties()).containsEntry("served", List.of(served.toString()));
    }

    @ParameterizedTest
    @EnumSource(LedgerUnavailable.Kind.class)
    void whoeverMeetsALedgerThatIsAwayIsToldWhenToComeAgain(LedgerUnavailable.Kind kind) {
        assertThat(Refusals.problem(new LedgerUnavailable(kind, "why", null))
                        .headers()
                        .getFirst(HttpHeaders.RETRY_AFTER))
                .isEqualTo("1");
    }
}
