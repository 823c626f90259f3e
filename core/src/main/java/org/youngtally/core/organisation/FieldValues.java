package org.youngtally.core.organisation;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;

/**
 * Reads what is given for the fields of a kind of record, and writes each value in one form: a choice as its code, a
 * number plainly, a date by ISO 8601, yes or no.
 */
public final class FieldValues {
    private static final int LONGEST = 2_000;
    private static final int LONGEST_NUMBER = 40;

    private final String called;
    private final List<KindField> fields;
    private final Function<String, Optional<Codebook>> books;
    /** Whether numbers keep the decimals that they were written with, as amounts of money do. */
    private final boolean decimals;

    /** @param books finds a codebook by its key */
    public FieldValues(Kind kind, Function<String, Optional<Codebook>> books) {
        this(kind.key(), kind.fields(), books, false);
    }

    private FieldValues(
            String called, List<KindField> fields, Function<String, Optional<Codebook>> books, boolean decimals) {
        this.decimals = decimals;
        this.called = called;
        this.fields = fields;
        this.books = books;
    }

    /** For the lines of a record. */
    public static FieldValues ofLines(Kind kind, Function<String, Optional<Codebook>> books) {
        return new FieldValues(kind.key(), kind.lines(), books, true);
    }

    /** What was made of the fields of a record. */
    public sealed interface Reading {
        /** @param values of the fields that were given, by name, each in its one form */
        record Understood(Map<String, String> values) implements Reading {}

        /** @param kind the kind of record */
        record Faulty(String kind, FieldFault fault) implements Reading {}
    }

    /**
     * Reads the fields of a record: those that are required, and none that the kind has not.
     *
     * @param filled by the service where they are not given
     * @param before what the record holds, which may stay as it is, such as a choice that was retired since
     */
    public Reading read(Map<String, String> given, Set<String> filled, Map<String, String> before) {
        var faults = new ArrayList<FieldFault>();
        Map<String, String> values = read(given, filled, before, faults);
        return faults.isEmpty() ? new Reading.Understood(values) : new Reading.Faulty(called, faults.getFirst());
    }

    /**
     * Reads what can be read.
     *
     * @param faults where what is wrong is put, field by field
     * @return the values of the other fields
     */
    Map<String, String> read(
            Map<String, String> given, Set<String> filled, Map<String, String> before, List<FieldFault> faults) {
        List<String> names = fields.stream().map(KindField::name).toList();
        for (String name : new TreeMap<>(given).keySet())
            if (!names.contains(name))
                faults.add(new FieldFault(
                        name, FieldFault.Kind.NOT_A_FIELD, given.get(name), NearestName.to(name, names), names));
        var values = new LinkedHashMap<String, String>();
        for (KindField field : fields) {
            String text = given.getOrDefault(field.name(), "").strip();
            if (text.isEmpty()) {
                if (field.required() && !filled.contains(field.name()))
                    faults.add(new FieldFault(
                            field.name(), FieldFault.Kind.MISSING, "", Optional.empty(), accepted(field, values)));
                continue;
            }
            if (text.equals(before.get(field.name()))
                    && field.within()
                            .map(above -> Objects.equals(values.get(above), before.get(above)))
                            .orElse(true)) {
                values.put(field.name(), text);
                continue;
            }
            value(field, text, values).ifPresent(faults::add);
        }
        return values;
    }

    /**
     * Reads one value as it stands alone, for a condition on it; a narrowed choice may be any that the codebook has
     * beneath.
     *
     * @return it in its one form
     */
    public Optional<String> alone(KindField field, String text) {
        if (field.type() == KindField.Type.CHOICE)
            return choices(field).stream()
                    .filter(choice -> choice.goesBy(Comparison.OF_NAMES.key(text)))
                    .findFirst()
                    .map(Choice::code);
        var values = new LinkedHashMap<String, String>();
        return value(field, text, values).isPresent() ? Optional.empty() : Optional.of(values.get(field.name()));
    }

    /** The choice that a field of a record is set to; absent for a field that takes none. */
    public Optional<Choice> chosen(String field, Map<String, String> values) {
        return fields.stream()
                .filter(known -> known.name().equals(field) && known.type() == KindField.Type.CHOICE)
                .findFirst()
                .flatMap(known -> choices(known, values).stream()
                        .filter(choice -> choice.code().equals(values.get(field)))
                        .findFirst());
    }

    /** Every choice that a field can ever take. */
    private List<Choice> choices(KindField field) {
        if (field.codebook().isPresent())
            return field.codebook().flatMap(books).map(Codebook::choices).orElse(List.of());
        return choices(above(field)).stream()
                .flatMap(choice -> choice.choices().stream())
                .toList();
    }

    private KindField above(KindField field) {
        return fields.stream()
                .filter(other -> other.name().equals(field.within().orElseThrow()))
                .findFirst()
                .orElseThrow();
    }

    /** The choices that a field has, given those above it. */
    private List<Choice> choices(KindField field, Map<String, String> values) {
        if (field.codebook().isPresent()) return choices(field);
        KindField above = above(field);
        String code = values.get(above.name());
        return code == null
                ? List.of()
                : choices(above, values).stream()
                        .filter(choice -> choice.code().equals(code))
                        .findFirst()
                        .map(Choice::choices)
                        .orElse(List.of());
    }

    private Optional<FieldFault> value(KindField field, String text, Map<String, String> values) {
        if (field.type() == KindField.Type.CHOICE) {
            List<Choice> choices = choices(field, values);
            Optional<Choice> chosen = choices.stream()
                    .filter(choice -> choice.goesBy(Comparison.OF_NAMES.key(text)))
                    .findFirst();
            if (chosen.isEmpty())
                return Optional.of(new FieldFault(
                        field.name(),
                        FieldFault.Kind.NOT_A_CHOICE,
                        text,
                        NearestName.to(
                                text,
                                choices.stream()
                                        .filter(choice -> !choice.retired())
                                        .flatMap(choice -> Stream.of(choice.name(), choice.code()))
                                        .toList()),
                        accepted(field, values)));
            if (chosen.get().retired())
                return Optional.of(new FieldFault(
                        field.name(), FieldFault.Kind.RETIRED, text, Optional.empty(), accepted(field, values)));
            values.put(field.name(), chosen.get().code());
            return Optional.empty();
        }
        Optional<String> written =
                switch (field.type()) {
                    case TEXT -> text.length() > LONGEST ? Optional.empty() : Optional.of(text);
                    case NUMBER -> number(text, decimals);
                    case DATE -> date(text);
                    case YES_NO ->
                        switch (text.toLowerCase(Locale.ROOT)) {
                            case "yes", "true" -> Optional.of("yes");
                            case "no", "false" -> Optional.of("no");
                            case String other -> Optional.empty();
                        };
                    case CHOICE -> throw new IllegalStateException("choices are read above");
                };
        written.ifPresent(value -> values.put(field.name(), value));
        return written.isPresent()
                ? Optional.empty()
                : Optional.of(new FieldFault(
                        field.name(),
                        field.type() == KindField.Type.TEXT
                                ? FieldFault.Kind.TOO_LONG
                                : FieldFault.Kind.NOT_OF_THE_TYPE,
                        text.length() > LONGEST_NUMBER ? text.substring(0, LONGEST_NUMBER) + "…" : text,
                        Optional.empty(),
                        accepted(field, values)));
    }

    private static Optional<String> number(String text, boolean decimals) {
        if (!text.matches("[+-]?[0-9]{1,30}([.][0-9]{1,9})?")) return Optional.empty();
        BigDecimal number = decimals ? new BigDecimal(text) : new BigDecimal(text).stripTrailingZeros();
        if (decimals) return Optional.of(number.signum() == 0 ? number.abs().toPlainString() : number.toPlainString());
        return Optional.of(number.signum() == 0 ? "0" : number.toPlainString());
    }

    private static Optional<String> date(String text) {
        try {
            return Optional.of(LocalDate.parse(text).toString());
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    /** What a field takes, in words. */
    List<String> accepted(KindField field, Map<String, String> values) {
        return switch (field.type()) {
            case TEXT -> List.of("a text of up to " + LONGEST + " symbols");
            case NUMBER -> List.of("a number in digits, such as 1250 or 12.50");
            case DATE -> List.of("a date, such as 2026-01-31");
            case YES_NO -> List.of("yes or no");
            case CHOICE ->
                choices(field, values).stream()
                        .filter(choice -> !choice.retired())
                        .map(choice -> choice.name() + " (" + choice.code() + ")")
                        .toList();
        };
    }
}
