package org.youngtally.core.series;

import static org.youngtally.core.series.Sample.range;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;

/** Series of all sorts, drawn at random. */
public final class GeneratedSeries {
    private GeneratedSeries() {}

    private static final Map<String, Codebook> BOOKS = Map.of(
            "book",
            new Codebook(
                    "book",
                    "Book",
                    List.of(
                            new Choice(
                                    "Action",
                                    "A",
                                    false,
                                    List.of(
                                            new Choice("Backfall", "b", false, List.of()),
                                            new Choice("Bell", "1", true, List.of()))),
                            new Choice("Abacus", "ab", false, List.of(new Choice("Roller", "A", false, List.of()))),
                            new Choice("Ten", "10", true, List.of(new Choice("Eleven", "11", false, List.of())))),
                    1));

    /** With fields of the record, codebooks that narrow each other, and skipped values. */
    public static Series withFields(String key, Random random) {
        String[] fields = {
            "{field group}",
            "{field group first 1}",
            "{field type}",
            "{field group}{field type}",
            "{field group}-{field type upper}",
            "{field text}",
            "{field text first 1}",
            "{field text initials upper}",
            "{field text unaccented first 2 lower pad 2 1}",
            "{field text pad-front 2}",
            "{field group}{field text first 1}"
        };
        String[] ends = {"", "1", "A", "-", "b", "{date M}", "{check mod11-2}"};
        String[] counts = {"{count}", "{count 1}", "{count 2}", "{count 1 upper}", "{count 2 of ab}", "{count upper}"};
        var rules = List.of(
                new FieldDraft("group", "book", null, null, null),
                new FieldDraft("type", null, "group", null, null),
                new FieldDraft("text", null, null, 2L, "a b A B 1"));
        while (true) {
            String field = fields[random.nextInt(fields.length)];
            String count = counts[random.nextInt(counts.length)];
            String middle = random.nextInt(3) == 0 ? "-" : "";
            String pattern = ends[random.nextInt(ends.length)]
                    + (random.nextBoolean() ? field + middle + count : count + middle + field)
                    + ends[random.nextInt(ends.length)];
            var restarts = new ArrayList<String>();
            if (random.nextBoolean()) restarts.add("month");
            for (String name : List.of("group", "type", "text"))
                if (pattern.contains("{field " + name) && random.nextInt(3) == 0) restarts.add("field " + name);
            var needed = rules.stream()
                    .filter(rule -> pattern.contains("{field " + rule.name())
                            || (rule.name().equals("group") && pattern.contains("{field type")))
                    .toList();
            SkipsDraft skips = random.nextInt(4) > 0
                    ? null
                    : new SkipsDraft(List.of("1", "3-5"), count.contains("2}") ? List.of("1") : null);
            long first = random.nextInt(4);
            var checked = DraftCheck.of(
                    SeriesDraft.of(key, pattern)
                            .with(SeriesProperties.NAMESPACE, "n")
                            .with(SeriesProperties.FIELDS, needed)
                            .with(SeriesProperties.RESTARTS, restarts)
                            .with(SeriesProperties.SKIPS, skips)
                            .with(
                                    SeriesProperties.RANGES,
                                    List.of(range(first, first + random.nextInt(9), 1, "2026-01-20", "2026-02-02"))),
                    BOOKS);
            if (checked.series().isPresent()) return checked.series().get();
        }
    }

    /** Of text, dates, a count and check digits. */
    public static Series plain(String key, Random random) {
        String[] fronts = {
            "",
            "1",
            "A",
            "a",
            "{date d}",
            "{date M}",
            "{date MMM}",
            "A{date d}",
            "1{date M}",
            "{fiscal yy}",
            "{check luhn of count}"
        };
        String[] backs = {
            "", "1", "-", "{date d}", "{date MM}", "b", "{check luhn}", "{check mod11-2}", "{check mod37-36}"
        };
        String[] alphabets = {"", "", " upper", " lower", " alphanumeric", " of ab", " of 10", " grow"};
        while (true) {
            int width = random.nextInt(4);
            String alphabet = alphabets[random.nextInt(alphabets.length)];
            String count =
                    width == 0 ? "{count" + alphabet.replace(" grow", "") + "}" : "{count " + width + alphabet + "}";
            String pattern = fronts[random.nextInt(fronts.length)] + count + backs[random.nextInt(backs.length)];
            String restarts = new String[] {null, null, "year", "month", "week", "day"}[random.nextInt(6)];
            long first = random.nextInt(120);
            long step = new long[] {1, 1, 2, 3, 10, -1}[random.nextInt(6)];
            RangeDraft range = range(
                    first,
                    first + step * random.nextInt(25),
                    step,
                    "2026-01-" + (10 + random.nextInt(20)),
                    "2026-02-" + (10 + random.nextInt(18)));
            var checked = DraftCheck.of(Sample.draft(key, "n", pattern, restarts, range));
            if (checked.series().isPresent()) return checked.series().get();
        }
    }

    /** The fields of a series that was drawn here. */
    public static Fields fields(Series series) {
        return Fields.of(series, key -> Optional.ofNullable(BOOKS.get(key)));
    }
}
