package org.youngtally.core.pattern;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.text.IdentifierKey;

/**
 * The text of an identifier with fields in braces, such as {@code LW{date yy}-{count 5}}; it has exactly one count. A pattern
 * that exists is a valid one.
 */
public final class Pattern {
    private final String text;
    private final List<Part> before;
    private final CountField count;
    private final List<Part> after;

    private Pattern(String text, List<Part> parts) {
        int at = 0;
        while (!(parts.get(at) instanceof CountField)) at++;
        this.text = text;
        this.before = List.copyOf(parts.subList(0, at));
        this.count = (CountField) parts.get(at);
        this.after = List.copyOf(parts.subList(at + 1, parts.size()));
    }

    /** Parses a pattern, or throws {@link PatternException} with the column at fault. */
    public static Pattern parse(String text) {
        return new Pattern(text, new PatternParser(text).parse());
    }

    public CountField count() { return count; }

    /** The shortest of years, months and days with whose beginning the text around the count can change; absent where it never does. */
    public Optional<ChronoUnit> changes() {
        return parts().stream().filter(DateField.class::isInstance).map(part -> ((DateField) part).format().changes()).min(Comparator.naturalOrder());
    }

    /** The identifier of a value on a business date. The value must not be wider than the count, which a {@code Series} makes sure of. */
    public String render(LocalDate date, long value) {
        var to = new StringBuilder(32);
        render(before, date, to);
        Digits.append(value, count.width(), to);
        render(after, date, to);
        return to.toString();
    }

    /** The text in front of the count on a date. */
    public String renderBefore(LocalDate date) {
        var to = new StringBuilder();
        render(before, date, to);
        return to.toString();
    }

    /** The text behind the count on a date. */
    public String renderAfter(LocalDate date) {
        var to = new StringBuilder();
        render(after, date, to);
        return to.toString();
    }

    private static void render(List<Part> parts, LocalDate date, StringBuilder to) {
        for (Part part : parts) {
            switch (part) {
                case Literal l -> to.append(l.text());
                case DateField d -> d.format().render(date, to);
                case CountField c -> throw new IllegalStateException("a pattern has one count");
            }
        }
    }

    /**
     * Every value whose identifier on that date has the same key as the text: one at most, since what stands around the count
     * is known on a given date. Empty where the text is not of this pattern.
     */
    public OptionalLong read(String identifier, LocalDate date) {
        String key = IdentifierKey.of(identifier);
        String front = IdentifierKey.fold(renderBefore(date));
        String back = IdentifierKey.fold(renderAfter(date));
        if (key.length() <= front.length() + back.length() || !key.startsWith(front) || !key.endsWith(back)) return OptionalLong.empty();
        return value(key.substring(front.length(), key.length() - back.length()));
    }

    private OptionalLong value(String digits) {
        boolean rightWidth = count.width() == 0 ? digits.length() <= CountField.MAX_WIDTH && (digits.length() == 1 || digits.charAt(0) != '0') : digits.length() == count.width();
        if (!rightWidth) return OptionalLong.empty();
        for (int i = 0; i < digits.length(); i++) if (digits.charAt(i) < '0' || digits.charAt(i) > '9') return OptionalLong.empty();
        return OptionalLong.of(Long.parseLong(digits));
    }

    /** The parts in order. */
    public List<Part> parts() {
        var all = new ArrayList<>(before);
        all.add(count);
        all.addAll(after);
        return all;
    }

    /** The pattern as it was written. */
    @Override
    public String toString() { return text; }

    @Override
    public boolean equals(Object other) { return other instanceof Pattern p && p.text.equals(text); }

    @Override
    public int hashCode() { return text.hashCode(); }
}
