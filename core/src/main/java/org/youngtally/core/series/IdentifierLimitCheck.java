package org.youngtally.core.series;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Pattern;

/** Proves that every identifier of every range, up to the last, fits the place it is to live in. */
final class IdentifierLimitCheck {
    private final IdentifierLimits limits;
    private final Pattern pattern;
    private final Fields fields;
    private final List<Fault> faults = new ArrayList<>();

    private IdentifierLimitCheck(Fields fields) {
        this.limits = fields.series().limits();
        this.pattern = fields.series().pattern();
        this.fields = fields;
    }

    static List<Fault> of(Fields fields) {
        if (fields.series().limits().equals(IdentifierLimits.ANY)) return List.of();
        var check = new IdentifierLimitCheck(fields);
        for (Range range : fields.series().ranges()) check.range(range);
        return check.faults;
    }

    private void range(Range range) {
        int length = 0;
        for (Part part : pattern.parts()) {
            length += switch (part) {
                case Part.Literal l -> symbols(l.text(), "the literal ‘" + l.text() + "’");
                case Part.DateField d -> dates(d, range);
                case Part.CountField c -> count(c, range);
                case Part.TextField f -> field(f);
                case Part.CheckField c ->
                    symbols(
                                            c.scheme().writes(),
                                            "the check field {check "
                                                    + c.scheme().name() + "}")
                                    > 0
                            ? c.scheme().length()
                            : 0;
            };
        }
        if (limits.longest() > 0 && length > limits.longest())
            add(new Fault(
                    "longest",
                    "its identifiers have up to " + length + " symbols in the range " + range,
                    "shorten the pattern, lower last, or allow " + length));
    }

    /**
     * The most symbols that the date takes on any day that the range serves. Names and numbers differ by day at most
     * within four years.
     */
    private int dates(Part.DateField field, Range range) {
        int longest = 0;
        LocalDate end =
                range.serves().opens().plusYears(4).isBefore(range.serves().closes())
                        ? range.serves().opens().plusYears(4)
                        : range.serves().closes();
        for (LocalDate date = range.serves().opens(); !date.isAfter(end); date = date.plusDays(1)) {
            String text = Pattern.render(field, date);
            longest = Math.max(longest, text.length());
            symbols(text, "the date " + text);
        }
        return longest;
    }

    private int field(Part.TextField field) {
        FieldRule rule = fields.series().field(field.name()).orElseThrow();
        if (rule.isText()) {
            symbols(rule.symbols(field), "the field " + field.shown());
            return field.longest(rule.longest());
        }
        int longest = 0;
        for (String code : fields.codes(rule))
            longest = Math.max(
                    longest, symbols(field.written(code), "the code " + code + " of the field " + field.shown()));
        return longest;
    }

    private int count(Part.CountField count, Range range) {
        symbols(count.alphabet().symbols(), "the count");
        // A value is never written with fewer symbols than a smaller one.
        return count.written(Math.max(range.first(), range.last())).length();
    }

    private int symbols(String text, String what) {
        Set<Character> refused = new LinkedHashSet<>();
        for (char symbol : text.toCharArray()) if (!limits.symbols().allows(symbol)) refused.add(symbol);
        if (!refused.isEmpty())
            add(new Fault(
                    "symbols",
                    what + " holds ‘" + refused.iterator().next() + "’, which symbols: does not allow",
                    "write it otherwise, or allow the symbol"));
        return text.length();
    }

    private void add(Fault fault) {
        boolean told = faults.stream()
                .anyMatch(known ->
                        known.path().equals(fault.path()) && known.problem().equals(fault.problem()));
        if (!told && faults.size() < 10) faults.add(fault);
    }
}
