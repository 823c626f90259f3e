package org.youngtally.ledger;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** Acts for tests. */
final class Acts {
    static final String KEY = "invoice";

    private Acts() {}

    /** An invoice series, {@code LW26-00001} and so on, and a short one with three numbers. */
    static Act<?> define() {
        return new Act.Define(
                List.of(
                        SeriesDraft.of(KEY, "LW{date yy}-{count 7}")
                                .with(SeriesProperties.TITLE, "Invoices")
                                .with(SeriesProperties.RESTARTS, List.of("year"))
                                .with(
                                        SeriesProperties.RANGES,
                                        List.of(new RangeDraft(1L, 9_999_999L, null, "2020-01-01", null, null))),
                        SeriesDraft.of("short", "S{count 3}")
                                .with(
                                        SeriesProperties.RANGES,
                                        List.of(new RangeDraft(1L, 3L, null, "2020-01-01", null, null)))),
                Optional.empty());
    }

    static Act.Allocate take(String series, long quantity) {
        return take(series, quantity, null, null);
    }

    static Act.Allocate take(String series, long quantity, String key, String reference) {
        return new Act.Allocate(
                series,
                Optional.of(LocalDate.of(2026, 3, 2)),
                quantity,
                Act.Form.SINGLES,
                Optional.ofNullable(reference),
                new RequestMark("ines", Optional.ofNullable(key), series + quantity + reference));
    }

    static Act.Allocate block(String series, long quantity) {
        return new Act.Allocate(
                series,
                Optional.of(LocalDate.of(2026, 3, 2)),
                quantity,
                Act.Form.BLOCK,
                Optional.empty(),
                new RequestMark("ines", Optional.empty(), "block" + quantity));
    }

    static List<String> identifiers(Outcome<?> outcome) {
        return ((Outcome.Taken) outcome).taking().identifiers();
    }
}
