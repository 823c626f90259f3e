package org.youngtally.core.proof;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Fields;

/** What the fields of the record can write in a pattern, and what they held where something is written. */
final class FieldTexts {
    private final Fields fields;
    private final List<TextField> places;
    /** By what the places of fields with a codebook write, folded: the first combination of codes that does. */
    private final Map<List<String>, Map<String, String>> codes = new HashMap<>();

    FieldTexts(Fields fields, Budget budget) {
        this.fields = fields;
        this.places = fields.series().pattern().textFields();
        if (places.isEmpty()) return;
        List<Map<String, String>> combinations = fields.combinations();
        // Where they are too many not all are listed, and nothing could be said of the others.
        if (combinations.size() > Fields.MOST_COMBINATIONS) throw new Budget.Spent();
        budget.spend((long) combinations.size() * Budget.KEPT);
        for (Map<String, String> combination : combinations)
            codes.putIfAbsent(
                    places.stream()
                            .filter(place -> !rule(place).isText())
                            .map(place -> folded(place, combination.get(place.name())))
                            .toList(),
                    combination);
    }

    /**
     * @param fields what the fields held; absent where nothing was found that is written so
     * @param isUnsure whether there may be something all the same
     */
    record Read(Optional<Map<String, String>> fields, boolean isUnsure) {}

    private FieldRule rule(TextField place) {
        return fields.series().field(place.name()).orElseThrow();
    }

    private String folded(TextField place, String given) {
        return fields.series().comparison().fold(place.written(given));
    }

    PartLanguage language(TextField place) {
        FieldRule rule = rule(place);
        if (!rule.isText())
            return PartLanguage.of(fields.codes(rule).stream()
                    .map(code -> folded(place, code))
                    .collect(Collectors.toCollection(LinkedHashSet::new)));
        return PartLanguage.any(
                fields.series().comparison().fold(rule.symbols(place)),
                place.shortest(),
                place.longest(rule.longest()),
                !place.transforms().isEmpty());
    }

    /** What the fields hold where they write these texts, folded, in the order of their places. */
    Read read(List<String> texts) {
        if (places.isEmpty()) return new Read(Optional.of(Map.of()), false);
        var coded = new ArrayList<String>();
        for (int i = 0; i < places.size(); i++) if (!rule(places.get(i)).isText()) coded.add(texts.get(i));
        Map<String, String> combination = codes.get(coded);
        if (combination == null) return new Read(Optional.empty(), false);
        var found = new LinkedHashMap<>(combination);
        for (FieldRule rule : fields.series().fields()) {
            if (!rule.isText()) continue;
            Optional<String> text = text(rule, texts);
            if (text.isEmpty()) return new Read(Optional.empty(), true);
            found.put(rule.name(), text.get());
        }
        return new Read(Optional.of(found), false);
    }

    private Optional<String> text(FieldRule rule, List<String> texts) {
        Set<String> candidates = new LinkedHashSet<>();
        for (int i = 0; i < places.size(); i++)
            if (places.get(i).name().equals(rule.name()))
                candidates.addAll(candidates(rule, places.get(i), texts.get(i)));
        // A field that stands nowhere in the pattern may hold anything.
        if (candidates.isEmpty()) return Optional.of("X");
        return candidates.stream()
                .filter(candidate -> fields.takes(rule, candidate) && isWritten(rule, candidate, texts))
                .findFirst();
    }

    private boolean isWritten(FieldRule rule, String candidate, List<String> texts) {
        for (int i = 0; i < places.size(); i++)
            if (places.get(i).name().equals(rule.name())
                    && !folded(places.get(i), candidate).equals(texts.get(i))) return false;
        return true;
    }

    /**
     * Texts that are most likely written so: the text itself, without what it is padded with, or its symbols as words.
     */
    private List<String> candidates(FieldRule rule, TextField place, String text) {
        String allowed = rule.symbols(place);
        String plain = text.chars()
                .mapToObj(symbol -> allowed.chars()
                        .filter(each -> fields.series()
                                        .comparison()
                                        .fold(String.valueOf((char) each))
                                        .indexOf(symbol)
                                == 0)
                        .mapToObj(each -> String.valueOf((char) each))
                        .findFirst()
                        .orElse(String.valueOf((char) symbol)))
                .collect(Collectors.joining());
        var candidates = new ArrayList<String>();
        for (String base : List.of(plain, text, place.pads().isEmpty() ? plain : bare(plain, place.pads()))) {
            candidates.add(base);
            candidates.add(String.join(" ", base.split("")));
        }
        candidates.removeIf(String::isEmpty);
        return candidates;
    }

    private static String bare(String text, String pads) {
        int from = 0;
        int to = text.length();
        while (from < to && pads.indexOf(text.charAt(from)) >= 0) from++;
        while (to > from && pads.indexOf(text.charAt(to - 1)) >= 0) to--;
        return text.substring(from, to);
    }

    /** Fields that a number could have; empty where none was found. */
    Optional<Map<String, String>> some() {
        if (places.isEmpty()) return Optional.of(Map.of());
        var found = codes.values().stream().findFirst().map(LinkedHashMap::new);
        if (found.isEmpty()) return Optional.empty();
        for (FieldRule rule : fields.series().fields()) {
            if (!rule.isText()) continue;
            Optional<String> text = rule.symbols()
                    .symbols()
                    .chars()
                    .mapToObj(symbol -> String.valueOf((char) symbol))
                    .filter(each -> fields.takes(rule, each))
                    .findFirst();
            if (text.isEmpty()) return Optional.empty();
            found.get().put(rule.name(), text.get());
        }
        return found.map(each -> each);
    }
}
