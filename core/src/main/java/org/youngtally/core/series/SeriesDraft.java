package org.youngtally.core.series;

import java.util.List;
import org.youngtally.core.pattern.DateStyle;

/**
 * A series as somebody wrote it, not yet checked; what is absent is null.
 *
 * @param locale a language tag for the names of months
 * @param fiscalYearStarts the month in which the fiscal year begins, 1 to 12
 * @param order {@code in-turn}, {@code scattered} or {@code repeating}
 * @param longest the most symbols that the place allows which the identifiers live in
 * @param symbols the symbols that it allows
 * @param typed {@code refused}, {@code allowed} or {@code required}
 * @param gaps {@code refused} or {@code allowed}
 * @param returns {@code allowed} or {@code refused}
 * @param proof {@code required} or {@code waived}
 */
public record SeriesDraft(
        String key,
        String title,
        String namespace,
        String pattern,
        String locale,
        Long fiscalYearStarts,
        List<FieldDraft> fields,
        List<String> restarts,
        SkipsDraft skips,
        String order,
        Long longest,
        String symbols,
        String typed,
        String gaps,
        String returns,
        Boolean chronological,
        String proof,
        List<RangeDraft> ranges) {
    static final String WAIVED = "waived";
    static final String ALLOWED = "allowed";
    static final String REFUSED = "refused";

    /** The definition that this series would be written as. */
    public static SeriesDraft of(Series series) {
        DateStyle style = series.pattern().style();
        return new Builder(series.key(), series.pattern().toString())
                .title(series.title())
                .namespace(series.namespace())
                .locale(style.locale().equals(DateStyle.PLAIN.locale()) ? null : style.locale())
                .fiscalYearStarts(style.fiscalStart() == 1 ? null : (long) style.fiscalStart())
                .fields(
                        series.fields().isEmpty()
                                ? null
                                : series.fields().stream().map(FieldDraft::of).toList())
                .restarts(series.restarts().words())
                .skips(series.skips().isNone() ? null : SkipsDraft.of(series.skips()))
                .order(
                        series.order().kind() == Order.Kind.IN_TURN
                                ? null
                                : series.order().kind().word())
                .longest(
                        series.place().longest() == 0
                                ? null
                                : (long) series.place().longest())
                .symbols(
                        series.place().symbols().isAny()
                                ? null
                                : series.place().symbols().words())
                .typed(series.policy().typed().word())
                .gaps(series.policy().gaps() ? ALLOWED : null)
                .returns(series.policy().returns() ? null : REFUSED)
                .chronological(series.policy().chronological() ? Boolean.TRUE : null)
                .proof(series.proofWaived() ? WAIVED : null)
                .ranges(series.ranges().stream().map(SeriesDraft::of).toList())
                .draft();
    }

    private static RangeDraft of(Range range) {
        return new RangeDraft(
                range.first(),
                range.last(),
                range.step(),
                range.serves().opens().toString(),
                range.serves().isOpenEnded() ? null : range.serves().closes().toString(),
                range.warnWhenLeft() == 0 ? null : range.warnWhenLeft(),
                range.warnDaysBefore() == 0 ? null : (long) range.warnDaysBefore());
    }

    /** Gathers a draft property by property; what is not given is absent. */
    public static final class Builder {
        private final String key;
        private final String pattern;
        private String title;
        private String namespace;
        private String locale;
        private Long fiscalYearStarts;
        private List<FieldDraft> fields;
        private List<String> restarts;
        private SkipsDraft skips;
        private String order;
        private Long longest;
        private String symbols;
        private String typed;
        private String gaps;
        private String returns;
        private Boolean chronological;
        private String proof;
        private List<RangeDraft> ranges;

        public Builder(String key, String pattern) {
            this.key = key;
            this.pattern = pattern;
        }

        public Builder title(String value) {
            title = value;
            return this;
        }

        public Builder namespace(String value) {
            namespace = value;
            return this;
        }

        public Builder locale(String value) {
            locale = value;
            return this;
        }

        public Builder fiscalYearStarts(Long value) {
            fiscalYearStarts = value;
            return this;
        }

        public Builder fields(List<FieldDraft> value) {
            fields = value;
            return this;
        }

        public Builder restarts(List<String> value) {
            restarts = value;
            return this;
        }

        public Builder skips(SkipsDraft value) {
            skips = value;
            return this;
        }

        public Builder order(String value) {
            order = value;
            return this;
        }

        public Builder longest(Long value) {
            longest = value;
            return this;
        }

        public Builder symbols(String value) {
            symbols = value;
            return this;
        }

        public Builder typed(String value) {
            typed = value;
            return this;
        }

        public Builder gaps(String value) {
            gaps = value;
            return this;
        }

        public Builder returns(String value) {
            returns = value;
            return this;
        }

        public Builder chronological(Boolean value) {
            chronological = value;
            return this;
        }

        public Builder proof(String value) {
            proof = value;
            return this;
        }

        public Builder ranges(List<RangeDraft> value) {
            ranges = value;
            return this;
        }

        public SeriesDraft draft() {
            return new SeriesDraft(
                    key,
                    title,
                    namespace,
                    pattern,
                    locale,
                    fiscalYearStarts,
                    fields,
                    restarts,
                    skips,
                    order,
                    longest,
                    symbols,
                    typed,
                    gaps,
                    returns,
                    chronological,
                    proof,
                    ranges);
        }
    }
}
