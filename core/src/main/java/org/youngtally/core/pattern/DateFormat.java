package org.youngtally.core.pattern;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * How a date is written: Unicode (CLDR) date-pattern letters for the numbers of a date, anything else as it stands, text
 * between single quotes as it stands too. Weeks are ISO 8601 weeks, and {@code Y} is the week-based year.
 *
 * @param pattern the letters as written, e.g. {@code yyMM}
 */
public record DateFormat(String pattern, List<Piece> pieces) {

    /** A run of one letter, or plain text. */
    public sealed interface Piece {
        record Text(String text) implements Piece {}

        record Number(Unit unit, int width, boolean lastTwoDigits) implements Piece {}
    }

    /** What a letter stands for, how many digits its largest value takes, and with which unit of the calendar it can change. */
    public enum Unit {
        YEAR('y', 4, ChronoUnit.YEARS), WEEK_YEAR('Y', 4, ChronoUnit.DAYS), QUARTER('Q', 1, ChronoUnit.MONTHS), MONTH('M', 2, ChronoUnit.MONTHS), WEEK('w', 2, ChronoUnit.DAYS),
        DAY('d', 2, ChronoUnit.DAYS), DAY_OF_YEAR('D', 3, ChronoUnit.DAYS);

        private final char letter;
        private final int digits;
        private final ChronoUnit changes;

        Unit(char letter, int digits, ChronoUnit changes) {
            this.letter = letter;
            this.digits = digits;
            this.changes = changes;
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

    private static final String ACCEPTED = "yyyy, yy, Q, MM, M, ww, w, YYYY, YY (year of the week), dd, d, DDD or D, with other symbols between them";

    public DateFormat {
        pieces = List.copyOf(pieces);
    }

    /** Parses the letters; {@code column} is where they start in the pattern around them, for the message of a fault. */
    static DateFormat parse(String letters, int column) {
        var pieces = new ArrayList<Piece>();
        boolean anyNumber = false;
        for (int at = 0; at < letters.length(); ) {
            char c = letters.charAt(at);
            if (c == '\'') {
                int end = letters.indexOf('\'', at + 1);
                if (end < 0) throw new PatternException(column + at, "the quote is not closed", "close it with another '");
                pieces.add(new Piece.Text(end == at + 1 ? "'" : letters.substring(at + 1, end)));
                at = end + 1;
            } else if (isLetter(c)) {
                int end = at;
                while (end < letters.length() && letters.charAt(end) == c) end++;
                pieces.add(number(c, end - at, column + at));
                anyNumber = true;
                at = end;
            } else {
                pieces.add(new Piece.Text(String.valueOf(c)));
                at++;
            }
        }
        if (!anyNumber) throw new PatternException(column, "the date field has no date letters", "write " + ACCEPTED);
        return new DateFormat(letters, pieces);
    }

    private static boolean isLetter(char c) {
        return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
    }

    private static Piece number(char letter, int run, int column) {
        for (Unit unit : Unit.values()) {
            if (unit.letter != letter) continue;
            boolean year = unit == Unit.YEAR || unit == Unit.WEEK_YEAR;
            if (year && run == 2) return new Piece.Number(unit, 2, true);
            if (year ? run == 4 : run == 1 || run == unit.digits) return new Piece.Number(unit, run, false);
        }
        throw new PatternException(column, "‘" + String.valueOf(letter).repeat(run) + "’ is not a date part that can be written in digits", "write " + ACCEPTED);
    }

    /** The shortest of years, months and days with whose beginning the written date can change. */
    ChronoUnit changes() {
        return pieces.stream().filter(Piece.Number.class::isInstance).map(piece -> ((Piece.Number) piece).unit().changes).min(Comparator.naturalOrder()).orElseThrow();
    }

    void render(LocalDate date, StringBuilder to) {
        for (Piece piece : pieces) {
            switch (piece) {
                case Piece.Text t -> to.append(t.text());
                case Piece.Number n -> Digits.append(n.lastTwoDigits() ? n.unit().of(date) % 100 : n.unit().of(date), n.width(), to);
            }
        }
    }
}
