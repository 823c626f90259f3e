package org.youngtally.core.pattern;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/**
 * How a date is written: Unicode (CLDR) date-pattern letters for the numbers of a date, anything else as it stands,
 * text between single quotes as it stands too. Weeks are ISO 8601 weeks, and {@code Y} is the week-based year.
 *
 * @param pattern the letters as written, e.g. {@code yyMM}, or {@code MMM upper} for months in capitals
 */
public record DateFormat(String pattern, Calendar calendar, int fiscalStart, List<Piece> pieces) {

    /**
     * Which year the letters speak of: of the calendar, or the fiscal year by the calendar year in which it begins or
     * ends.
     */
    public enum Calendar {
        CIVIL("date"),
        FISCAL_BY_START("fiscal"),
        FISCAL_BY_END("fiscal-end");

        private final String word;

        Calendar(String word) {
            this.word = word;
        }

        /** The name of the field in patterns. */
        public String word() {
            return word;
        }
    }

    /** A run of one letter, or plain text. */
    public sealed interface Piece {
        record Text(String text) implements Piece {}

        record Number(Unit unit, int width, boolean lastTwoDigits) implements Piece {}

        /**
         * The name of the month.
         *
         * @param names twelve of them
         */
        record MonthName(List<String> names) implements Piece {}
    }

    /**
     * What a letter stands for, how many digits its largest value takes, and with which unit of the calendar it can
     * change.
     */
    public enum Unit {
        YEAR('y', 4, ChronoUnit.YEARS),
        WEEK_YEAR('Y', 4, ChronoUnit.DAYS),
        QUARTER('Q', 1, ChronoUnit.MONTHS),
        MONTH('M', 2, ChronoUnit.MONTHS),
        WEEK('w', 2, ChronoUnit.DAYS),
        DAY('d', 2, ChronoUnit.DAYS),
        DAY_OF_YEAR('D', 3, ChronoUnit.DAYS);

        private final char letter;
        private final int digits;
        private final ChronoUnit changes;

        Unit(char letter, int digits, ChronoUnit changes) {
            this.letter = letter;
            this.digits = digits;
            this.changes = changes;
        }

        private boolean isFiscal() {
            return this == YEAR || this == QUARTER || this == MONTH;
        }

        long of(LocalDate date) {
            return switch (this) {
                case YEAR -> date.getYear();
                case WEEK_YEAR -> date.get(IsoFields.WEEK_BASED_YEAR);
                case QUARTER -> date.get(IsoFields.QUARTER_OF_YEAR);
                case MONTH -> date.getMonthValue();
                case WEEK -> date.get(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
                case DAY -> date.getDayOfMonth();
                case DAY_OF_YEAR -> date.getDayOfYear();
            };
        }
    }

    /** Behind the letters, for names of months in capitals. */
    private static final String CAPITALS = " upper";

    private static final String ACCEPTED =
            "yyyy, yy, Q, MM, M, MMM, MMMM, ww, w, YYYY, YY (year of the week), dd, d, DDD or D, with other symbols between them";

    private static final String FISCAL = "yyyy, yy, Q, MM or M: the fiscal year, its quarter, its month";

    public DateFormat {
        pieces = List.copyOf(pieces);
    }

    /** Whether it shows this part of a date. */
    public boolean shows(Unit unit) {
        return pieces.stream().anyMatch(piece -> piece instanceof Piece.Number number && number.unit() == unit);
    }

    /**
     * The format of a date in a text around it.
     *
     * @param column where its letters start there, from 1, for the message of a fault
     */
    public static DateFormat of(String letters, int column) {
        return parse(letters, column, Calendar.CIVIL, DateStyle.PLAIN, PatternEdition.NEWEST);
    }

    /**
     * Parses the letters; {@code column} is where they start in the pattern around them, for the message of a fault.
     */
    static DateFormat parse(String written, int column, Calendar calendar, DateStyle style, PatternEdition edition) {
        boolean capitals = written.endsWith(CAPITALS);
        String letters = capitals ? written.substring(0, written.length() - CAPITALS.length()) : written;
        var pieces = new ArrayList<Piece>();
        boolean anyNumber = false;
        for (int at = 0; at < letters.length(); ) {
            char c = letters.charAt(at);
            if (c == '\'') {
                int end = edition == PatternEdition.FIRST ? letters.indexOf('\'', at + 1) : quoteEnd(letters, at);
                if (end < 0)
                    throw new PatternException(
                            column + at,
                            "the quote is not closed",
                            "close it with another '; a quote itself is written as two");
                String quoted = letters.substring(at + 1, end).replace("''", "'");
                pieces.add(new Piece.Text(quoted.isEmpty() ? "'" : quoted));
                at = end + 1;
            } else if (isLetter(c)) {
                int end = at;
                while (end < letters.length() && letters.charAt(end) == c) end++;
                boolean name = c == 'M' && end - at >= 3 && end - at <= 4 && calendar == Calendar.CIVIL;
                pieces.add(
                        name
                                ? months(end - at == 3 ? style.shortMonths() : style.longMonths(), capitals)
                                : number(c, end - at, column + at, calendar));
                anyNumber = true;
                at = end;
            } else {
                pieces.add(new Piece.Text(String.valueOf(c)));
                at++;
            }
        }
        if (!anyNumber) throw new PatternException(column, "the date field has no date letters", "write " + ACCEPTED);
        if (capitals && pieces.stream().noneMatch(Piece.MonthName.class::isInstance))
            throw new PatternException(
                    column + letters.length(),
                    "‘upper’ has no effect on a date without the name of a month",
                    "remove it, or write MMM or MMMM");
        return new DateFormat(written, calendar, style.fiscalStart(), pieces);
    }

    private static Piece months(List<String> names, boolean capitals) {
        return new Piece.MonthName(
                capitals
                        ? names.stream()
                                .map(name -> name.toUpperCase(Locale.ROOT))
                                .toList()
                        : names);
    }

    /**
     * Where quoted text ends that begins at a quote: two quotes in it are one that stands there. Negative for nowhere.
     */
    private static int quoteEnd(String letters, int begin) {
        int end = letters.indexOf('\'', begin + 1);
        if (end == begin + 1) return end;
        while (end >= 0 && end + 1 < letters.length() && letters.charAt(end + 1) == '\'')
            end = letters.indexOf('\'', end + 2);
        return end;
    }

    /** Whether quoted text has a quote in it, which the first edition lost. */
    static boolean hasQuoteInQuotes(String letters) {
        for (int at = letters.indexOf('\''); at >= 0; ) {
            int end = quoteEnd(letters, at);
            if (end < 0) return false;
            if (letters.substring(at + 1, end).contains("''")) return true;
            at = letters.indexOf('\'', end + 1);
        }
        return false;
    }

    private static boolean isLetter(char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
    }

    private static Piece number(char letter, int run, int column, Calendar calendar) {
        for (Unit unit : Unit.values()) {
            if (unit.letter != letter || (calendar != Calendar.CIVIL && !unit.isFiscal())) continue;
            boolean year = unit == Unit.YEAR || unit == Unit.WEEK_YEAR;
            if (year && run == 2) return new Piece.Number(unit, 2, true);
            if (year ? run == 4 : run == 1 || run == unit.digits) return new Piece.Number(unit, run, false);
        }
        throw new PatternException(
                column,
                "‘" + String.valueOf(letter).repeat(run) + "’ is not a part of "
                        + (calendar == Calendar.CIVIL ? "a date" : "a fiscal year"),
                "write " + (calendar == Calendar.CIVIL ? ACCEPTED : FISCAL));
    }

    /** The shortest of years, months and days with whose beginning the written date can change. */
    ChronoUnit changes() {
        if (calendar != Calendar.CIVIL) return ChronoUnit.MONTHS;
        return pieces.stream()
                .flatMap(DateFormat::changes)
                .min(Comparator.naturalOrder())
                .orElseThrow();
    }

    boolean namesMonths() {
        return pieces.stream().anyMatch(Piece.MonthName.class::isInstance);
    }

    private static Stream<ChronoUnit> changes(Piece piece) {
        return switch (piece) {
            case Piece.Text t -> Stream.of();
            case Piece.Number n -> Stream.of(n.unit().changes);
            case Piece.MonthName m -> Stream.of(ChronoUnit.MONTHS);
        };
    }

    void render(LocalDate date, StringBuilder to) {
        // Seen from the month in which it begins, a fiscal year is a calendar year.
        LocalDate seen =
                calendar == Calendar.CIVIL ? date : date.withDayOfMonth(1).minusMonths(fiscalStart - 1L);
        int later = calendar == Calendar.FISCAL_BY_END && fiscalStart > 1 ? 1 : 0;
        for (Piece piece : pieces) {
            switch (piece) {
                case Piece.Text t -> to.append(t.text());
                case Piece.MonthName m -> to.append(m.names().get(seen.getMonthValue() - 1));
                case Piece.Number n -> {
                    long number = n.unit().of(seen) + (n.unit() == Unit.YEAR ? later : 0);
                    Digits.append(n.lastTwoDigits() ? number % 100 : number, n.width(), to);
                }
            }
        }
    }
}
