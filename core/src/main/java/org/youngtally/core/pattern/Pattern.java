package org.youngtally.core.pattern;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.pattern.Part.CheckField;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.text.Comparison;

/**
 * The text of an identifier with fields in braces, such as {@code LW{date yy}-{count 5}}; it has exactly one count. A
 * pattern that exists is a valid one.
 */
public final class Pattern {
    private final String text;
    private final DateStyle style;
    private final PatternEdition edition;
    private final Comparison comparison;
    private final List<Part> parts;
    private final int countAt;
    private final Map<CheckField, Checker> checkers = new HashMap<>();

    private Pattern(String text, DateStyle style, PatternEdition edition, Comparison comparison, List<Part> parts) {
        int at = 0;
        while (!(parts.get(at) instanceof CountField)) at++;
        this.text = text;
        this.style = style;
        this.edition = edition;
        this.comparison = comparison;
        this.parts = List.copyOf(parts);
        this.countAt = at;
        for (Part part : parts) if (part instanceof CheckField field) checkers.put(field, new Checker(field));
    }

    /** Parses a pattern, or throws {@link PatternException} with the column at fault. */
    public static Pattern parse(String text) {
        return parse(text, DateStyle.PLAIN);
    }

    public static Pattern parse(String text, DateStyle style) {
        return parse(text, style, PatternEdition.NEWEST);
    }

    /** A pattern as it was meant when it was written. */
    public static Pattern parse(String text, DateStyle style, PatternEdition edition) {
        var parser = new PatternParser(text, style, edition);
        List<Part> parts = parser.parse();
        return new Pattern(
                text, style, parser.editionMatters() ? edition : PatternEdition.FIRST, Comparison.FIRST, parts);
    }

    /** The same, its identifiers compared by the rule of the namespace that they are in. */
    public Pattern comparedBy(Comparison rule) {
        return rule == comparison ? this : new Pattern(text, style, edition, rule, parts);
    }

    /** How its identifiers are compared. */
    public Comparison comparison() {
        return comparison;
    }

    /** How it is to be read again; the first one where that makes no difference. */
    public PatternEdition edition() {
        return edition;
    }

    public CountField count() {
        return (CountField) parts.get(countAt);
    }

    /** The scheme of a check field that reads no symbol which the count can write; absent where there is none. */
    public Optional<CheckScheme> idleCheck() {
        return parts.stream()
                .filter(CheckField.class::isInstance)
                .map(part -> ((CheckField) part).scheme())
                .filter(scheme ->
                        count().alphabet().symbols().chars().allMatch(symbol -> scheme.valueOf((char) symbol) < 0))
                .findFirst();
    }

    /** How it writes dates. */
    public DateStyle style() {
        return style;
    }

    /** Whether it names months, so that the names belong to it. */
    public boolean namesMonths() {
        return parts.stream()
                .anyMatch(part ->
                        part instanceof DateField field && field.format().namesMonths());
    }

    /**
     * Whether it is made of literal text, dates and a plain decimal count, so that what stands around the count rests
     * on the date alone.
     */
    public boolean isPlain() {
        return checkers.isEmpty() && count().isPlain() && textFields().isEmpty();
    }

    /** The fields of the record, in order; one that is written twice stands here twice. */
    public List<TextField> textFields() {
        return parts.stream()
                .filter(TextField.class::isInstance)
                .map(TextField.class::cast)
                .toList();
    }

    /**
     * The shortest of years, months and days with whose beginning the text around the count can change; absent where it
     * never does.
     */
    public Optional<ChronoUnit> changes() {
        return parts.stream()
                .filter(DateField.class::isInstance)
                .map(part -> ((DateField) part).format().changes())
                .min(Comparator.naturalOrder());
    }

    /** The identifier of a value on a business date. */
    public String render(LocalDate date, long value) {
        return render(Particulars.on(date), value);
    }

    /** The identifier of a value. The particulars must hold every field of the record that is in the pattern. */
    public String render(Particulars particulars, long value) {
        return on(particulars).of(value);
    }

    /** This pattern for one set of particulars, to write many values. */
    public Rendering on(Particulars particulars) {
        return new Rendering(this, particulars);
    }

    private static void render(Part part, LocalDate date, StringBuilder to) {
        switch (part) {
            case Literal l -> to.append(l.text());
            case DateField d -> d.format().render(date, to);
            default -> throw new IllegalStateException("what stands around a plain count is text and dates");
        }
    }

    /** Ready to write a check field of this pattern. */
    Checker checker(CheckField field) {
        return checkers.get(field);
    }

    /** The text of a part that rests on the date alone. */
    public static String render(DateField part, LocalDate date) {
        var to = new StringBuilder();
        part.format().render(date, to);
        return to.toString();
    }

    /** The text in front of the count on a date. For a pattern that {@link #isPlain}. */
    public String renderBefore(LocalDate date) {
        return render(parts.subList(0, countAt), date);
    }

    /** The text behind the count on a date. For a pattern that {@link #isPlain}. */
    public String renderAfter(LocalDate date) {
        return render(parts.subList(countAt + 1, parts.size()), date);
    }

    private static String render(List<Part> some, LocalDate date) {
        var to = new StringBuilder();
        for (Part part : some) render(part, date, to);
        return to.toString();
    }

    /**
     * Every value whose identifier has the same key as the text: one at most, since what stands around the count is
     * known from the particulars, but for check symbols, which follow from it. Empty where the text is not of this
     * pattern.
     */
    public OptionalLong read(String identifier, Particulars particulars) {
        String key = comparison.key(identifier);
        int front = length(parts.subList(0, countAt), particulars);
        int back = length(parts.subList(countAt + 1, parts.size()), particulars);
        if (key.length() <= front + back) return OptionalLong.empty();
        OptionalLong value = count().read(key.substring(front, key.length() - back));
        if (value.isEmpty() || value.getAsLong() > count().largest() || value.getAsLong() < count().least())
            return OptionalLong.empty();
        return comparison.key(render(particulars, value.getAsLong())).equals(key) ? value : OptionalLong.empty();
    }

    /**
     * The identifier that somebody meant who wrote nothing but its check symbols wrong; absent where more is wrong, or
     * nothing.
     */
    public Optional<String> meant(String identifier, Particulars particulars) {
        String key = comparison.key(identifier);
        int front = length(parts.subList(0, countAt), particulars);
        int back = length(parts.subList(countAt + 1, parts.size()), particulars);
        if (checkers.isEmpty() || key.length() <= front + back) return Optional.empty();
        OptionalLong value = count().read(key.substring(front, key.length() - back));
        if (value.isEmpty() || value.getAsLong() > count().largest() || value.getAsLong() < count().least())
            return Optional.empty();
        String meant = render(particulars, value.getAsLong());
        String right = comparison.key(meant);
        var differs = new BitSet();
        for (int i = 0; i < right.length(); i++) differs.set(i, right.charAt(i) != key.charAt(i));
        for (Rendering.Symbols check : on(particulars).checks(value.getAsLong()))
            differs.clear(check.from(), check.to());
        return !right.equals(key) && differs.isEmpty() ? Optional.of(meant) : Optional.empty();
    }

    private int length(List<Part> some, Particulars particulars) {
        int length = 0;
        for (Part part : some) {
            length += switch (part) {
                case Literal l -> comparison.fold(l.text()).length();
                case DateField d ->
                    comparison.fold(render(d, particulars.date())).length();
                case TextField f ->
                    comparison
                            .fold(f.written(particulars.fields().get(f.name())))
                            .length();
                case CheckField c -> c.scheme().length();
                case CountField c -> throw new IllegalStateException("a pattern has one count");
            };
        }
        return length;
    }

    /** The parts in order. */
    public List<Part> parts() {
        return parts;
    }

    /** The pattern as it was written. */
    @Override
    public String toString() {
        return text;
    }

    /** The rule by which identifiers are compared is the namespace's, and no part of what was written. */
    @Override
    public boolean equals(Object other) {
        return other instanceof Pattern p && p.text.equals(text) && p.style.equals(style) && p.edition == edition;
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }
}
