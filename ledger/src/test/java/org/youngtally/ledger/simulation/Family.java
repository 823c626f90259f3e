package org.youngtally.ledger.simulation;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SkipsDraft;

/**
 * A series of the simulation, told twice: as the definition that the ledger gets, and in the plainest words, from which
 * the model works.
 *
 * @param format of an identifier: the date's year and month and the value, as String.format takes them
 * @param yearly whether the count restarts each year
 * @param skips a text that the written value must not contain; empty for none
 */
public record Family(
        String key,
        String pattern,
        String format,
        boolean yearly,
        String skips,
        List<Stretch> ranges,
        boolean gaps,
        boolean returns,
        boolean chronological,
        String typed) {

    /** A range: its values from first to last by step. */
    public record Stretch(long first, long last, long step) {
        public int size() {
            return (int) ((last - first) / step) + 1;
        }
    }

    private static final List<Stretch> WIDE = List.of(new Stretch(1, 9999, 1));

    public static final List<Family> ALL = List.of(
            new Family("plain", "A{count 4}", "A%3$04d", false, "", WIDE, false, true, false, "allowed"),
            new Family(
                    "yearly", "B{date yy}-{count 4}", "B%1$02d-%3$04d", true, "", WIDE, false, true, false, "refused"),
            new Family("loose", "C{count 4}", "C%3$04d", false, "", WIDE, true, true, false, "allowed"),
            new Family("daily", "D{count 4}", "D%3$04d", false, "", WIDE, false, true, true, "refused"),
            new Family(
                    "monthly",
                    "E{count 4}/{date MM}",
                    "E%3$04d/%2$02d",
                    false,
                    "",
                    WIDE,
                    false,
                    true,
                    false,
                    "allowed"),
            new Family(
                    "short",
                    "F{count 3}",
                    "F%3$03d",
                    false,
                    "",
                    List.of(new Stretch(1, 40, 1), new Stretch(160, 100, -2)),
                    false,
                    true,
                    false,
                    "allowed"),
            new Family("skipping", "G{count 4}", "G%3$04d", false, "3", WIDE, false, true, false, "allowed"),
            new Family("firm", "H{count 4}", "H%3$04d", false, "", WIDE, false, false, false, "required"));

    public Family withGaps(boolean allowed) {
        return new Family(key, pattern, format, yearly, skips, ranges, allowed, returns, chronological, typed);
    }

    public String text(LocalDate date, long value) {
        return String.format(Locale.ROOT, format, date.getYear() % 100, date.getMonthValue(), value);
    }

    public String lane(int range, LocalDate date) {
        return range + (yearly ? "/" + date.getYear() : "");
    }

    public long value(int range, int position) {
        return ranges.get(range).first() + position * ranges.get(range).step();
    }

    public boolean isSkipped(int range, int position) {
        return !skips.isEmpty()
                && String.format(Locale.ROOT, "%04d", value(range, position)).contains(skips);
    }

    /** A definition under which the same texts would arise: it must be refused. */
    public Act<?> twin() {
        return new Act.Define(
                List.of(SeriesDraft.of("twin-of-" + key, pattern)
                        .with(SeriesProperties.NAMESPACE, "all")
                        .with(
                                SeriesProperties.RANGES,
                                List.of(new RangeDraft(5_000L, 5_001L, null, "2020-01-01", null, null)))),
                Optional.empty());
    }

    /** The layout of all labels. */
    public static final String LAYOUT = "label";

    private static final LayoutDraft LABEL =
            new LayoutDraft(LAYOUT, null, "40", "20", null, null, null, null, List.of(text("{identifier}")));

    private static ItemDraft text(String text) {
        return new ItemDraft(
                text, null, null, null, null, "1", "1", "38", "10", null, null, null, null, null, null, null, null);
    }

    /** The unit of all records. */
    public static final String UNIT = "works";

    /**
     * The series, and a kind of records that it numbers; the number of one that is deleted is given back where the
     * series has it so.
     */
    public Act<?> define(String title) {
        List<RangeDraft> drafts = ranges.stream()
                .map(range ->
                        new RangeDraft(range.first(), range.last(), range.step(), "2020-01-01", "2029-12-31", null))
                .toList();
        SeriesDraft series = SeriesDraft.of(key, pattern)
                .with(SeriesProperties.TITLE, title)
                .with(SeriesProperties.NAMESPACE, "all")
                .with(SeriesProperties.RESTARTS, yearly ? List.of("year") : null)
                .with(SeriesProperties.SKIPS, skips.isEmpty() ? null : new SkipsDraft(null, List.of(skips)))
                .with(SeriesProperties.GAPS, gaps ? "allowed" : "refused")
                .with(SeriesProperties.RETURNS, returns ? "allowed" : "refused")
                .with(SeriesProperties.CHRONOLOGICAL, chronological)
                .with(SeriesProperties.TYPED, typed)
                .with(SeriesProperties.RANGES, drafts);
        KindDraft kind = new KindDraft(
                key,
                null,
                List.of(
                        new KindFieldDraft("number", null, null, null, null, null),
                        new KindFieldDraft("dated", null, "date", null, null, null)),
                null,
                null,
                null,
                "return",
                "dated",
                null);
        return new Act.Define(
                new Drafts(
                        List.of(),
                        List.of(),
                        List.of(series),
                        List.of(new UnitDraft(UNIT, null, null, null, null)),
                        List.of(kind),
                        List.of(new RouteDraft(key, UNIT, null, key, null)),
                        List.of(LABEL)),
                List.of(),
                Optional.empty());
    }
}
