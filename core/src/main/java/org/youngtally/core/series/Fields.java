package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;

/**
 * The fields of the record that a series takes, with the codebooks that their choices come from.
 *
 * @param books by key; every codebook that a rule names is among them, once the series has been checked
 */
public record Fields(Series series, Map<String, Codebook> books) {

    /** @param codebook finds a codebook by its key */
    public static Fields of(Series series, Function<String, Optional<Codebook>> codebook) {
        var books = new LinkedHashMap<String, Codebook>();
        for (FieldRule rule : series.fields())
            rule.codebook().flatMap(codebook).ifPresent(book -> books.put(book.key(), book));
        return new Fields(series, books);
    }

    /** What was made of the fields of a request. */
    public sealed interface Reading {
        /** @param fields the code of each field with a codebook, the text of each other one */
        record Understood(Map<String, String> fields) implements Reading {}

        record Faulty(FieldFault fault) implements Reading {}
    }

    /**
     * What a record holds already for the fields of the series; a choice that was retired since counts.
     *
     * @return absent where it could not be given, even then
     */
    public Optional<Map<String, String>> kept(Map<String, String> held) {
        return read(held, true) instanceof Reading.Understood understood
                ? Optional.of(understood.fields())
                : Optional.empty();
    }

    /** Reads the fields of a request: every field of the series, and no other. */
    public Reading read(Map<String, String> given) {
        return read(given, false);
    }

    private Reading read(Map<String, String> given, boolean retired) {
        if (given.isEmpty() && series.fields().isEmpty()) return new Reading.Understood(Map.of());
        List<String> names = series.fields().stream().map(FieldRule::name).toList();
        for (String name : new TreeMap<>(given).keySet())
            if (!names.contains(name))
                return new Reading.Faulty(new FieldFault(
                        name, FieldFault.Kind.NOT_A_FIELD, given.get(name), NearestName.to(name, names), names));
        var fields = new LinkedHashMap<String, String>();
        for (FieldRule rule : series.fields()) {
            String text = given.getOrDefault(rule.name(), "").strip();
            Optional<FieldFault> fault = rule.isText() ? text(rule, text, fields) : choice(rule, text, retired, fields);
            if (fault.isPresent()) return new Reading.Faulty(fault.get());
        }
        return new Reading.Understood(fields);
    }

    /** Whether a field that takes a text takes this one. */
    public boolean takes(FieldRule rule, String text) {
        return text(rule, text, new LinkedHashMap<>()).isEmpty();
    }

    private Optional<FieldFault> choice(FieldRule rule, String text, boolean retired, Map<String, String> fields) {
        List<Choice> choices = choices(rule, fields);
        if (text.isEmpty()) return Optional.of(fault(rule, FieldFault.Kind.MISSING, "", choices));
        String key = Comparison.OF_NAMES.key(text);
        Optional<Choice> chosen =
                choices.stream().filter(choice -> choice.goesBy(key)).findFirst();
        if (chosen.isEmpty()) return Optional.of(fault(rule, FieldFault.Kind.NOT_A_CHOICE, text, choices));
        if (chosen.get().retired() && !retired) return Optional.of(fault(rule, FieldFault.Kind.RETIRED, text, choices));
        fields.put(rule.name(), chosen.get().code());
        return Optional.empty();
    }

    private static FieldFault fault(FieldRule rule, FieldFault.Kind kind, String text, List<Choice> choices) {
        List<Choice> offered =
                choices.stream().filter(choice -> !choice.retired()).toList();
        Optional<String> nearest = kind == FieldFault.Kind.NOT_A_CHOICE
                ? NearestName.to(
                        text,
                        offered.stream()
                                .flatMap(choice -> Stream.of(choice.name(), choice.code()))
                                .toList())
                : Optional.empty();
        return new FieldFault(
                rule.name(),
                kind,
                text,
                nearest,
                offered.stream()
                        .map(choice -> choice.name() + " (" + choice.code() + ")")
                        .toList());
    }

    private Optional<FieldFault> text(FieldRule rule, String text, Map<String, String> fields) {
        List<String> accepted = List.of("1 to " + rule.longest() + " symbols, each one of: " + rule.symbols());
        if (text.isEmpty())
            return Optional.of(new FieldFault(rule.name(), FieldFault.Kind.MISSING, "", Optional.empty(), accepted));
        if (text.length() > FieldFault.LONGEST_TEXT)
            return Optional.of(new FieldFault(
                    rule.name(),
                    FieldFault.Kind.TOO_LONG,
                    text.substring(0, FieldRule.LONGEST) + "…",
                    Optional.empty(),
                    accepted));
        for (TextField field : series.pattern().textFields()) {
            if (!field.name().equals(rule.name())) continue;
            String written = field.written(text);
            if (field.bare(text).isEmpty())
                return Optional.of(
                        new FieldFault(rule.name(), FieldFault.Kind.NOTHING_LEFT, text, Optional.empty(), accepted));
            if (written.length() > field.longest(rule.longest()))
                return Optional.of(
                        new FieldFault(rule.name(), FieldFault.Kind.TOO_LONG, written, Optional.empty(), accepted));
            if (written.chars().anyMatch(symbol -> rule.symbols(field).indexOf(symbol) < 0))
                return Optional.of(
                        new FieldFault(rule.name(), FieldFault.Kind.SYMBOL, written, Optional.empty(), accepted));
        }
        fields.put(rule.name(), text);
        return Optional.empty();
    }

    /** The choices of a field, given the codes of the fields that narrow it; the retired ones among them. */
    public List<Choice> choices(FieldRule rule, Map<String, String> codes) {
        if (rule.codebook().isPresent())
            return Optional.ofNullable(books.get(rule.codebook().get()))
                    .map(Codebook::choices)
                    .orElse(List.of());
        String parent = rule.within().orElseThrow();
        FieldRule above = series.field(parent).orElseThrow();
        return choices(above, codes).stream()
                .filter(choice -> choice.code().equals(codes.get(parent)))
                .findFirst()
                .map(Choice::choices)
                .orElse(List.of());
    }

    /** The most combinations of codes that a series may have. */
    public static final int MOST_COMBINATIONS = 20_000;

    /**
     * Every combination of codes that the fields with a codebook can ever have, those with retired ones among them;
     * where they are too many, some more than may be.
     */
    public List<Map<String, String>> combinations() {
        List<Map<String, String>> found = List.of(Map.of());
        for (FieldRule rule : series.fields()) {
            if (rule.isText()) continue;
            if (found.size() > MOST_COMBINATIONS) return found;
            var longer = new ArrayList<Map<String, String>>();
            for (Map<String, String> before : found) {
                for (Choice choice : choices(rule, before)) {
                    var next = new LinkedHashMap<>(before);
                    next.put(rule.name(), choice.code());
                    longer.add(next);
                    // What is too much is not built to its end.
                    if (longer.size() > MOST_COMBINATIONS) return longer;
                }
            }
            found = longer;
        }
        return found;
    }

    /**
     * What a record could give for each field: the first choices that can be made, and the field's name for a text.
     *
     * @param given what is known of it already
     */
    public Map<String, String> example(Map<String, String> given) {
        var texts = new LinkedHashMap<String, String>();
        for (FieldRule rule : series.fields())
            if (rule.isText())
                texts.put(
                        rule.name(),
                        Stream.of(
                                        rule.name(),
                                        rule.name().toUpperCase(Locale.ROOT),
                                        rule.symbols().symbols().substring(0, 1))
                                .filter(text -> takes(rule, text))
                                .findFirst()
                                .orElse(rule.name()));
        for (Map<String, String> combination : combinations()) {
            var found = new LinkedHashMap<>(texts);
            found.putAll(combination);
            found.putAll(given);
            if (read(found) instanceof Reading.Understood) return found;
        }
        texts.putAll(given);
        return texts;
    }

    /** Every code that a field with a codebook can ever have. */
    public List<String> codes(FieldRule rule) {
        return everyChoice(rule).stream().map(Choice::code).distinct().toList();
    }

    private List<Choice> everyChoice(FieldRule rule) {
        if (rule.codebook().isPresent()) return choices(rule, Map.of());
        return everyChoice(series.field(rule.within().orElseThrow()).orElseThrow()).stream()
                .flatMap(choice -> choice.choices().stream())
                .toList();
    }
}
