package org.youngtally.service.numbering;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.youngtally.core.act.Act.DocumentRow;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Numbers;
import org.youngtally.core.numbering.Rule;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.store.DocumentQueries;
import org.youngtally.ledger.store.DocumentQueries.ItemNumber;
import org.youngtally.ledger.store.IdentifierQueries;

/**
 * The items of a document whose numbers come from a series: which have one, in the file or in the ledger alone, and
 * which need one.
 */
final class SeriesItems {
    private static final int LONGEST_IDENTIFIER = 200;
    private static final int MOST_FAULTS = 100;

    private final Rule rule;
    private final ItemSeries series;
    /** The last entry that numbered items of the document, by the series. */
    private final Map<String, Long> last = new HashMap<>();

    private final List<Item> items = new ArrayList<>();
    /** Numbers that the ledger has for an item, and that no item bears in the file. */
    private final Map<String, String> lost = new HashMap<>();

    private final List<ItemFault> faults = new ArrayList<>();

    /** @param shared whether items may bear numbers that were allocated for something else */
    SeriesItems(DSLContext dsl, ItemSeries series, String document, Rule rule, List<Item> items, boolean shared) {
        this.rule = rule;
        this.series = series;
        var queries = new DocumentQueries(dsl);
        Map<String, String> known = new LinkedHashMap<>();
        for (Series each : series.all()) {
            last.put(each.key(), queries.last(each.key(), document));
            for (ItemNumber number : queries.standing(each.key(), document))
                known.put(number.identifier(), number.item());
        }
        Set<String> borne = new HashSet<>();
        for (Item item : items) {
            Item read = rule.writing()
                    .number(item.text(), item.attributes(), known::containsKey)
                    .map(item::with)
                    .orElse(item);
            read.number().ifPresent(borne::add);
            this.items.add(read);
        }
        known.forEach((identifier, item) -> {
            if (!borne.contains(identifier)) lost.put(item, identifier);
        });
        others(dsl, shared);
    }

    /**
     * Numbers of the series that were allocated for something else: a part may be in many assemblies, and has one
     * number; in the place of a number of any other document it is refused.
     */
    private void others(DSLContext dsl, boolean shared) {
        Map<String, Set<String>> possible = new LinkedHashMap<>();
        for (Item item : rule.choice().of(items)) {
            if (item.number().isPresent() || lost.containsKey(identity(item))) continue;
            Set<String> texts = new HashSet<>();
            rule.writing().number(item.text(), item.attributes(), text -> {
                if (!text.isBlank() && text.length() <= LONGEST_IDENTIFIER) texts.add(text);
                return false;
            });
            possible.put(item.id(), texts);
        }
        Set<String> issued = new IdentifierQueries(dsl)
                .issued(
                        possible.values().stream().flatMap(Set::stream).collect(Collectors.toSet()),
                        series.all().stream().map(Series::key).toList());
        if (shared)
            items.replaceAll(item -> possible.getOrDefault(item.id(), Set.of()).stream()
                    .filter(issued::contains)
                    .findFirst()
                    .map(item::with)
                    .orElse(item));
        else
            possible.forEach((id, texts) -> texts.stream()
                    .filter(issued::contains)
                    .findFirst()
                    .filter(other -> faults.size() < MOST_FAULTS)
                    .ifPresent(other -> faults.add(new ItemFault(
                            id,
                            "bears ‘" + other + "’, which was not allocated for this document",
                            "another document name, other items, or its text without the number"))));
    }

    /** By what the ledger knows an item, or the things that several items are. */
    private String identity(Item item) {
        String same = rule.same()
                .map(name -> item.attributes().getOrDefault(name, "").strip())
                .orElse("");
        return same.isEmpty() ? item.id() : rule.same().get() + " " + same;
    }

    /** The items, with the numbers that they bear. */
    List<Item> items() {
        return items;
    }

    List<ItemFault> faults() {
        return faults;
    }

    /** The last entry that numbered some of them from a series. */
    long last(String key) {
        return last.get(key);
    }

    /** Asks for numbers, in the order of the count. */
    final class Asking implements Numbers {
        private final Map<String, List<DocumentRow>> rows = new LinkedHashMap<>();
        private final List<ItemFault> unplaced = new ArrayList<>();
        private int asked;
        private int known;

        /** What the ledger has is used; for others there is a mark that no identifier is. */
        @Override
        public Optional<String> of(Item item) {
            String before = lost.get(identity(item));
            if (before != null) {
                known++;
                return Optional.of(before);
            }
            try {
                ItemSeries.Placed placed = series.of(item);
                rows.computeIfAbsent(placed.series().key(), first -> new ArrayList<>())
                        .add(new DocumentRow(identity(item), placed.fields()));
            } catch (ItemSeries.Unplaced e) {
                if (unplaced.size() < MOST_FAULTS) unplaced.add(new ItemFault(item.id(), e.getMessage(), e.accepted()));
            }
            return Optional.of("\n" + ++asked);
        }

        /** What is to be allocated, by the series, in the order of the count. */
        Map<String, List<DocumentRow>> rows() {
            return rows;
        }

        /** How many numbers the ledger has that the file has not. */
        int known() {
            return known;
        }

        List<ItemFault> unplaced() {
            return unplaced;
        }
    }

    /** Answers with numbers that were asked for, in the same order. */
    Numbers answered(Map<String, List<String>> identifiers) {
        Map<String, Iterator<String>> left = new HashMap<>();
        identifiers.forEach((key, each) -> left.put(key, each.iterator()));
        return item -> Optional.of(Optional.ofNullable(lost.get(identity(item))).orElseGet(() -> {
            try {
                return left.get(series.of(item).series().key()).next();
            } catch (ItemSeries.Unplaced e) {
                throw new IllegalStateException("an item was placed before", e);
            }
        }));
    }
}
