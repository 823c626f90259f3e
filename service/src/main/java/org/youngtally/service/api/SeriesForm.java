package org.youngtally.service.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SkipsDraft;

/**
 * A series as it is written to be defined.
 *
 * @param namespace the set within which its identifiers are unique; the key where it is left out
 * @param pattern e.g. {@code LW{date yy}-{count 5}}
 * @param locale a language tag for the names of months; en where it is left out
 * @param fiscalYearStarts the month in which the fiscal year begins; 1 where it is left out
 * @param fields what it takes for the fields of the record
 * @param restarts some of year, fiscal-year, quarter, month, week, day, unit and field NAME; never where it is left out
 * @param skips values that are never given
 * @param order in-turn, scattered or repeating; in-turn where it is left out
 * @param longest the most symbols that the place allows which the identifiers live in
 * @param symbols the symbols that it allows, such as {@code letters digits -}
 * @param typed whether people may type a number themselves: refused, allowed or required; refused where it is left out
 * @param gaps whether a number that is given back is void, or given next: allowed or refused; refused where it is left
 *     out
 * @param returns whether an issued number can be given back: allowed or refused; allowed where it is left out
 * @param chronological whether no number may be dated before the one given last in its lane
 * @param proof required, or waived where it is enough that each number is looked up when it is given
 */
record SeriesForm(
        @Nullable String key,
        @Nullable String title,
        @Nullable String namespace,
        @Nullable String pattern,
        @Nullable String locale,
        @Nullable Long fiscalYearStarts,
        @Nullable List<FieldForm> fields,
        @Nullable List<String> restarts,
        @Nullable SkipsForm skips,
        @Nullable String order,
        @Nullable Long longest,
        @Nullable String symbols,
        @Nullable String typed,
        @Nullable String gaps,
        @Nullable String returns,
        @Nullable Boolean chronological,
        @Nullable String proof,
        @Nullable List<RangeForm> ranges) {

    /**
     * @param step 1 where it is left out; negative to count down
     * @param opens the first date it serves, as in 2026-01-01
     * @param closes the last date it serves; 2099-12-31 where it is left out
     * @param warnWhenLeft at how many left it counts as low
     * @param warnDaysBefore how many days before it closes that is warned of
     */
    record RangeForm(
            @Nullable Long first,
            @Nullable Long last,
            @Nullable Long step,
            @Nullable String opens,
            @Nullable String closes,
            @Nullable Long warnWhenLeft,
            @Nullable Long warnDaysBefore) {}

    /**
     * What a series takes for a field: the choices of a codebook, those beneath the choice of another field, or a text.
     *
     * @param name as in {@code {field NAME}}; unit for {@code {unit}}
     * @param within the field whose choice narrows this one
     * @param longest for a text: the most symbols that it may write; 20 where it is left out
     * @param symbols for a text: what it may write; letters digits where it is left out
     */
    record FieldForm(
            @Nullable String name,
            @Nullable String codebook,
            @Nullable String within,
            @Nullable Long longest,
            @Nullable String symbols) {}

    /**
     * @param values single values and rows of them, such as 13 and 4000-4999
     * @param containing texts that the written count must not contain
     */
    record SkipsForm(
            @Nullable List<String> values, @Nullable List<String> containing) {}

    static SeriesForm of(Series series) {
        SeriesDraft draft = SeriesDraft.of(series);
        return new SeriesForm(
                draft.key(),
                draft.title(),
                draft.namespace(),
                draft.pattern(),
                draft.locale(),
                draft.fiscalYearStarts(),
                draft.fields() == null
                        ? null
                        : draft.fields().stream()
                                .map(field -> new FieldForm(
                                        field.name(),
                                        field.codebook(),
                                        field.within(),
                                        field.longest(),
                                        field.symbols()))
                                .toList(),
                draft.restarts(),
                draft.skips() == null
                        ? null
                        : new SkipsForm(draft.skips().values(), draft.skips().containing()),
                draft.order(),
                draft.longest(),
                draft.symbols(),
                draft.typed(),
                draft.gaps(),
                draft.returns(),
                draft.chronological(),
                draft.proof(),
                draft.ranges().stream()
                        .map(range -> new RangeForm(
                                range.first(),
                                range.last(),
                                range.step(),
                                range.opens(),
                                range.closes(),
                                range.warnWhenLeft(),
                                range.warnDaysBefore()))
                        .toList());
    }

    SeriesDraft draft() {
        List<FieldDraft> fieldDrafts = fields == null
                ? null
                : fields.stream()
                        .map(field -> new FieldDraft(
                                field.name(),
                                field.codebook(),
                                field.within(),
                                field.longest(),
                                blank(field.symbols())))
                        .toList();
        List<RangeDraft> rangeDrafts = ranges == null
                ? null
                : ranges.stream()
                        .map(range -> new RangeDraft(
                                range.first(),
                                range.last(),
                                range.step(),
                                blank(range.opens()),
                                blank(range.closes()),
                                range.warnWhenLeft(),
                                range.warnDaysBefore()))
                        .toList();
        return new SeriesDraft.Builder(key, pattern)
                .title(title)
                .namespace(namespace)
                .locale(blank(locale))
                .fiscalYearStarts(fiscalYearStarts)
                .fields(fieldDrafts)
                .restarts(restarts)
                .skips(skips == null ? null : new SkipsDraft(skips.values(), skips.containing()))
                .order(blank(order))
                .longest(longest)
                .symbols(blank(symbols))
                .typed(blank(typed))
                .gaps(blank(gaps))
                .returns(blank(returns))
                .chronological(chronological)
                .proof(blank(proof))
                .ranges(rangeDrafts)
                .draft();
    }

    private static String blank(String text) {
        return text == null || text.isBlank() ? null : text;
    }
}
