package org.youngtally.core.series;

import static org.youngtally.core.series.SeriesProperties.CHRONOLOGICAL;
import static org.youngtally.core.series.SeriesProperties.FIELDS;
import static org.youngtally.core.series.SeriesProperties.FISCAL_YEAR_STARTS;
import static org.youngtally.core.series.SeriesProperties.KEY;
import static org.youngtally.core.series.SeriesProperties.LOCALE;
import static org.youngtally.core.series.SeriesProperties.LONGEST;
import static org.youngtally.core.series.SeriesProperties.ORDER;
import static org.youngtally.core.series.SeriesProperties.PATTERN;
import static org.youngtally.core.series.SeriesProperties.RANGES;
import static org.youngtally.core.series.SeriesProperties.RESTARTS;
import static org.youngtally.core.series.SeriesProperties.SKIPS;
import static org.youngtally.core.series.SeriesProperties.SYMBOLS;
import static org.youngtally.core.series.SeriesProperties.TYPED;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Stream;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.fault.DefinitionException;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.DateStyle;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.PatternException;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;
import org.youngtally.core.text.SymbolSet;

/** Turns what somebody wrote into a series, collecting every fault instead of stopping at the first. */
public final class DraftCheck {
    private static final int MOST_RESTART_FIELDS = 4;
    private static final int MOST_RANGES = 1_000;

    private final List<Fault> faults = new ArrayList<>();

    private final Comparison comparison;

    private DraftCheck(Comparison comparison) {
        this.comparison = comparison;
    }

    /**
     * What the check came to.
     *
     * @param series the series in version 1 with its ranges numbered from 1, if there are no faults
     */
    public record Result(Optional<Series> series, List<Fault> faults) {}

    /** Checks a draft by itself; the codebooks that it names are not looked into. */
    public static Result of(SeriesDraft draft) {
        return new DraftCheck(Comparison.NEWEST).check(draft, Map.of(), false);
    }

    /** Checks a draft with the codebooks there are, by key, for a namespace that begins with it. */
    public static Result of(SeriesDraft draft, Map<String, Codebook> books) {
        return of(draft, books, Comparison.NEWEST);
    }

    /**
     * Checks a draft with the codebooks there are, by key.
     *
     * @param comparison how its namespace compares identifiers
     */
    public static Result of(SeriesDraft draft, Map<String, Codebook> books, Comparison comparison) {
        return new DraftCheck(comparison).check(draft, books, true);
    }

    private Result check(SeriesDraft draft, Map<String, Codebook> books, boolean lookInto) {
        DefinitionName.fault(KEY.name(), draft.key()).ifPresent(faults::add);
        faults.addAll(SeriesProperties.SERIES.faults("", draft));
        Optional<DateStyle> style = style(draft);
        Optional<Pattern> pattern = pattern(draft.get(PATTERN), style.orElse(DateStyle.PLAIN));
        FieldCheck.Result fields = FieldCheck.of(draft.get(FIELDS), pattern);
        faults.addAll(fields.faults());
        pattern.ifPresent(p -> singles(p, fields.rules()));
        Restarts restarts = restarts(draft.get(RESTARTS), pattern);
        limits(draft);
        Order order = order(draft.orUsual(ORDER));
        policy(draft, order);
        List<Range> ranges = ranges(draft.get(RANGES), pattern.map(Pattern::count));
        pattern.ifPresent(p -> widths(p, ranges));
        SkipCheck.Result skips = SkipCheck.of(
                draft.get(SKIPS), pattern.map(Pattern::count), order, faults.isEmpty() ? ranges : List.of());
        faults.addAll(skips.faults());
        if (pattern.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        Series series = Series.of(
                draft, pattern.get().comparedBy(comparison), fields.rules(), restarts, skips.skips(), order, ranges);
        var known = new Fields(series, books);
        if (fields.faults().isEmpty()) IdentifierLimitCheck.of(known).forEach(faults::add);
        if (fields.faults().isEmpty() && lookInto) FieldCheck.books(known).forEach(faults::add);
        return faults.isEmpty()
                ? new Result(Optional.of(series), List.of())
                : new Result(Optional.empty(), List.copyOf(faults));
    }

    /** What a count or a text is made of must be one symbol as it is compared, or its length would not be known. */
    private void singles(Pattern pattern, List<FieldRule> rules) {
        single("pattern", "the count", pattern.count().alphabet().symbols());
        for (TextField field : pattern.textFields()) single("pattern", field.shown(), field.pads());
        for (int i = 0; i < rules.size(); i++)
            single(
                    "fields[" + i + "].symbols",
                    "‘" + rules.get(i).name() + "’",
                    rules.get(i).symbols().symbols());
    }

    private void single(String path, String where, String symbols) {
        symbols.chars()
                .mapToObj(symbol -> String.valueOf((char) symbol))
                .filter(symbol -> comparison.fold(symbol).length() != 1)
                .findFirst()
                .ifPresent(symbol -> fault(
                        path,
                        "‘" + symbol + "’ in " + where + " cannot be compared as a single symbol",
                        "remove it, or write two s"));
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }

    private static Order order(String word) {
        return Order.Kind.of(word)
                .map(known -> new Order(known, Optional.empty()))
                .orElse(Order.IN_TURN);
    }

    private void policy(SeriesDraft draft, Order order) {
        boolean typed = !Policy.Typed.REFUSED.word().equals(draft.orUsual(TYPED));
        boolean chronological = Boolean.TRUE.equals(draft.get(CHRONOLOGICAL));
        if (typed && order.kind() != Order.Kind.IN_TURN)
            fault(
                    TYPED.name(),
                    "numbers that are " + order.kind().word() + " cannot be typed",
                    "write refused, or count in turn");
        if (typed && chronological)
            fault(
                    TYPED.name(),
                    "a typed number lies ahead of the counter, and so would be dated before those in front of it",
                    "write refused, or remove chronological");
        if (chronological && order.kind() != Order.Kind.IN_TURN)
            fault(
                    CHRONOLOGICAL.name(),
                    "numbers that are " + order.kind().word() + " do not follow the calendar",
                    "remove it, or count in turn");
    }

    private Optional<Pattern> pattern(String text, DateStyle style) {
        if (text == null || text.isEmpty()) {
            fault("pattern", "is missing", "write one with a count, such as LW{date yy}-{count 5}");
            return Optional.empty();
        }
        try {
            return Optional.of(Pattern.parse(text, style));
        } catch (PatternException e) {
            fault("pattern", "column " + e.column() + ": " + e.problem(), e.accepted());
            return Optional.empty();
        }
    }

    private Optional<DateStyle> style(SeriesDraft draft) {
        String locale = draft.orUsual(LOCALE);
        long starts = draft.orUsual(FISCAL_YEAR_STARTS);
        boolean known = DateStyle.isLocale(locale);
        if (!known)
            fault(
                    LOCALE.name(),
                    "‘" + locale + "’ is not a locale that month names are known for",
                    "write a language tag, such as en, de or fr-CA");
        if (starts < 1 || starts > 12)
            fault(
                    FISCAL_YEAR_STARTS.name(),
                    "invalid month: " + starts,
                    "write the month in which the fiscal year begins, 1 to 12");
        return known && starts >= 1 && starts <= 12
                ? Optional.of(DateStyle.of(locale, (int) starts))
                : Optional.empty();
    }

    private void limits(SeriesDraft draft) {
        Long longest = draft.get(LONGEST);
        if (longest != null && (longest < 1 || longest > IdentifierLimits.LONGEST))
            fault(
                    LONGEST.name(),
                    longest + " is not a length",
                    "write a number of symbols from 1 to " + IdentifierLimits.LONGEST + ", or remove it");
        if (draft.get(SYMBOLS) != null)
            for (String kind : new SymbolSet(draft.get(SYMBOLS)).each())
                if (!SymbolSet.isKind(kind))
                    fault(SYMBOLS.name(), "‘" + kind + "’ is not a kind of symbols", SymbolSet.ACCEPTED);
    }

    private Restarts restarts(List<String> words, Optional<Pattern> pattern) {
        if (words == null) return Restarts.NEVER;
        Set<Restart> times = EnumSet.noneOf(Restart.class);
        Set<String> fields = new LinkedHashSet<>();
        for (int i = 0; i < words.size(); i++) {
            String word = String.valueOf(words.get(i)).strip().replaceAll(" +", " ");
            Optional<Restart> time = Restart.of(word);
            if (time.isPresent()) times.add(time.get());
            else if (word.equals(Particulars.UNIT) || word.startsWith(Restarts.FIELD))
                restartField(
                        "restarts[" + i + "]",
                        word.substring(word.equals(Particulars.UNIT) ? 0 : Restarts.FIELD.length()),
                        pattern,
                        fields);
            else
                fault(
                        "restarts[" + i + "]",
                        "‘" + word + "’ is not a time to restart at",
                        NearestName.to(
                                                word,
                                                Stream.of(Restart.values())
                                                        .map(Restart::word)
                                                        .toList())
                                        .map(near -> "did you mean " + near + "? ")
                                        .orElse("")
                                + "write some of " + Restarts.known());
        }
        if (fields.size() > MOST_RESTART_FIELDS)
            fault("restarts", "name " + fields.size() + " fields", "name up to " + MOST_RESTART_FIELDS);
        return new Restarts(Restart.least(times), List.copyOf(fields));
    }

    private void restartField(String path, String name, Optional<Pattern> pattern, Set<String> fields) {
        boolean shown = pattern.isEmpty()
                || pattern.get().textFields().stream()
                        .anyMatch(field -> field.name().equals(name));
        if (!shown)
            fault(
                    path,
                    "the pattern does not show the field ‘" + name + "’, so that its numbers would come twice",
                    "write " + (name.equals(Particulars.UNIT) ? "{unit}" : "{field " + name + "}")
                            + " into the pattern, or remove it here");
        fields.add(name);
    }

    private List<Range> ranges(List<RangeDraft> drafts, Optional<CountField> count) {
        if (drafts == null || drafts.isEmpty()) {
            fault("ranges", "are missing", "add at least one, such as { first: 1, last: 99999, opens: 2026-01-01 }");
            return List.of();
        }
        if (drafts.size() > MOST_RANGES) fault("ranges", "are " + drafts.size(), "define at most " + MOST_RANGES);
        var ranges = new ArrayList<Range>();
        for (int i = 0; i < drafts.size(); i++) {
            String prefix = "ranges[" + i + "].";
            Optional<Range> range = range(prefix, drafts.get(i), count, i + 1);
            range.ifPresent(r -> twins(prefix, r, ranges));
            range.ifPresent(ranges::add);
        }
        return ranges;
    }

    private Optional<Range> range(String prefix, RangeDraft draft, Optional<CountField> count, int id) {
        int before = faults.size();
        Long last = last(prefix, draft, count);
        if (draft.first() == null) fault(prefix + "first", "is missing", "add the first value, such as 1");
        Optional<LocalDate> opens = date(prefix + "opens", draft.opens());
        if (draft.opens() == null)
            fault(prefix + "opens", "is missing", "add the first date of the range, such as 2026-01-01");
        Optional<LocalDate> closes = date(prefix + "closes", draft.closes());
        // A last value that is written as the count writes it says nothing where the pattern's fault hides the count.
        if (faults.size() > before || last == null) return Optional.empty();
        try {
            return Optional.of(new Range(
                    id,
                    draft.first(),
                    last,
                    draft.step() == null ? 1 : draft.step(),
                    new DateWindow(opens.orElseThrow(), closes.orElse(null)),
                    draft.warnWhenLeft() == null ? 0 : draft.warnWhenLeft(),
                    draft.warnDaysBefore() == null ? 0 : Math.clamp(draft.warnDaysBefore(), -1, Integer.MAX_VALUE)));
        } catch (DefinitionException e) {
            faults.add(Fault.at(prefix, e));
            return Optional.empty();
        }
    }

    /** The last value, as a number or as the count writes it. */
    private Long last(String prefix, RangeDraft draft, Optional<CountField> count) {
        String written = draft.lastWritten();
        if (written == null) {
            if (draft.last() == null)
                fault(
                        prefix + "last",
                        "is missing",
                        "add the last value, such as 99999, or last-written as the count writes it");
            return draft.last();
        }
        if (count.isEmpty()) return draft.last();
        OptionalLong read = count.get().read(Comparison.FIRST.fold(written.strip()));
        if (read.isEmpty())
            fault(
                    prefix + "last-written",
                    "‘" + written + "’ is not a value of this count, which has " + places(count.get()),
                    "write it as in an identifier, such as "
                            + count.get().written(Math.min(count.get().largest(), 999)));
        else if (draft.last() != null && draft.last() != read.getAsLong())
            fault(
                    prefix + "last-written",
                    "‘" + written + "’ is the value " + read.getAsLong() + ", and last is " + draft.last(),
                    "keep one of them");
        return read.isEmpty() ? draft.last() : (Long) read.getAsLong();
    }

    private Optional<LocalDate> date(String path, String text) {
        if (text == null) return Optional.empty();
        try {
            return Optional.of(LocalDate.parse(text));
        } catch (DateTimeParseException e) {
            fault(path, "‘" + text + "’ is not a date of the calendar", "write year-month-day, such as 2026-01-31");
            return Optional.empty();
        }
    }

    private void twins(String prefix, Range range, List<Range> earlier) {
        if (earlier.stream().anyMatch(range::continues))
            fault(
                    prefix + "first",
                    "an earlier range has the same first, step and opening date",
                    "start this one at another value or on another date");
    }

    private void widths(Pattern pattern, List<Range> ranges) {
        CountField count = pattern.count();
        long largest = count.largest();
        String most = "enter at most " + largest
                + (count.alphabet().isDecimal() ? "" : ", written " + count.written(largest));
        String accepted = count.width() == 0 || count.grows() ? most : most + ", or widen the count";
        for (Range range : ranges) {
            String prefix = "ranges[" + (range.id() - 1) + "].";
            if (range.first() > largest)
                fault(
                        prefix + "first",
                        range.first() + " is wider than the count, which has " + places(count),
                        accepted);
            if (range.last() > largest)
                fault(prefix + "last", range.last() + " is wider than the count, which has " + places(count), accepted);
            if (Math.min(range.first(), range.last()) < count.least())
                fault(
                        prefix + (range.step() > 0 ? "first" : "last"),
                        "0 cannot be written: this count begins with 1, written "
                                + count.alphabet().symbols().charAt(0),
                        "enter 1 or more, or add a width to the count");
        }
    }

    private static String places(CountField count) {
        String what = count.alphabet().isDecimal() ? "digit" : "symbol";
        int width = count.width() == 0 || count.grows() ? CountField.MAX_WIDTH : count.width();
        return width + " " + what + (width == 1 ? "" : "s")
                + (count.alphabet().isDecimal()
                        ? ""
                        : " of an alphabet of " + count.alphabet().size() + " ("
                                + count.alphabet().symbols() + ")");
    }
}
