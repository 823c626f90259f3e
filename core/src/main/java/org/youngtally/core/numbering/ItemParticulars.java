package org.youngtally.core.numbering;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;

/** What a pattern writes of items, and which texts it may have written. */
final class ItemParticulars {
    /** So many groups are tried for a number that is none of an item's own group. */
    private static final int MOST_GROUPS = 50;

    private final Pattern pattern;
    private final LocalDate date;
    private final Map<String, Optional<Particulars>> byItem = new HashMap<>();
    /** Those of the items of a document, as far as they differ. */
    private final List<Particulars> known = new ArrayList<>();

    ItemParticulars(Pattern pattern, LocalDate date, List<Item> items) {
        this.pattern = pattern;
        this.date = date;
        Set<Particulars> different = new LinkedHashSet<>();
        for (Item item : items) {
            of(item).ifPresent(different::add);
            if (different.size() > MOST_GROUPS) return;
        }
        known.addAll(different);
    }

    /** Those of an item; absent where it has not all attributes that the pattern writes. */
    Optional<Particulars> of(Item item) {
        return byItem.computeIfAbsent(item.id(), added -> read(item));
    }

    private Optional<Particulars> read(Item item) {
        Map<String, String> named = item.named();
        var fields = new TreeMap<String, String>();
        for (TextField field : pattern.textFields()) {
            String value = named.getOrDefault(field.name(), "").strip();
            if (value.isEmpty()) return Optional.empty();
            fields.put(field.name(), value);
        }
        return Optional.of(new Particulars(date, fields));
    }

    /** The first attribute that the pattern writes and an item has not. */
    Optional<String> missing(Item item) {
        Map<String, String> named = item.named();
        return pattern.textFields().stream()
                .map(TextField::name)
                .filter(name -> named.getOrDefault(name, "").isBlank())
                .findFirst();
    }

    /** Whether a text is a number of an item's group, or of another one: an item may have moved since. */
    boolean isNumber(String text, Item item) {
        if (text.isEmpty()) return false;
        return of(item).filter(own -> pattern.read(text, own).isPresent()).isPresent()
                || known.stream().anyMatch(each -> pattern.read(text, each).isPresent());
    }
}
