package org.youngtally.core.numbering;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.TreeMap;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.NumberPlan.Change;
import org.youngtally.core.numbering.NumberPlan.Group;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Rule.Which;
import org.youngtally.core.pattern.Particulars;

/**
 * Numbers the items of a document by a rule, from the document's own count. It changes nothing: what it comes to is a
 * plan. A document that is numbered by a rule is left as it is by the same rule.
 */
public final class DocumentNumbering {
    private static final int MOST_FAULTS = 100;
    /** All that is written together; an attribute that is said once can be written at every item. */
    private static final long MOST_WRITTEN = 50_000_000;

    private final Rule rule;
    private final List<Item> items = new ArrayList<>();
    /** What was written at items before they were numbered, by their ids, where it is known. */
    private final Map<String, String> originals;

    private final List<Change> changes = new ArrayList<>();
    private final List<ItemFault> faults = new ArrayList<>();
    private final Map<List<String>, Count> counts = new LinkedHashMap<>();
    /** The numbers of things that several items are, and of items that stand alone. */
    private final Map<String, String> numbers = new HashMap<>();
    /** The group in which each thing is met first. */
    private final Map<String, List<String>> groups = new HashMap<>();
    /** What bears each number. */
    private final Map<String, String> bearers = new HashMap<>();

    private final Numbers source;
    private final Optional<ItemParticulars> particulars;
    /** How many symbols are written so far. */
    private long written;

    private DocumentNumbering(
            List<Sheet> sheets,
            List<Item> items,
            Rule rule,
            LocalDate date,
            Map<String, String> originals,
            Numbers source) {
        this.rule = rule;
        this.originals = originals;
        this.source = source;
        List<Item> derived = items.stream().map(item -> derived(item, sheets)).toList();
        this.particulars = rule.count().map(count -> new ItemParticulars(count.pattern(), date, derived));
        for (Item item : derived) this.items.add(read(item));
    }

    /** How a group is counted. */
    private static final class Count {
        private OptionalLong last = OptionalLong.empty();
        private int items;
        private String firstNumber = "";
        private String lastNumber = "";

        /** @param elsewhere whether the number is one of another group, of which the thing is as well */
        void met(String number, boolean elsewhere) {
            items++;
            if (elsewhere) return;
            if (firstNumber.isEmpty()) firstNumber = number;
            lastNumber = number;
        }
    }

    /**
     * @param sheets in their order
     * @param items as they are listed, sheet by sheet
     * @param date for dates in the pattern
     * @param originals what was written at items before they were numbered, by their ids, where it is known
     * @param source of the numbers that the document does not count itself
     */
    public static NumberPlan plan(
            List<Sheet> sheets,
            List<Item> items,
            Rule rule,
            LocalDate date,
            Map<String, String> originals,
            Numbers source) {
        return new DocumentNumbering(sheets, items, rule, date, originals, source).plan();
    }

    /** The number that is written at an item by this rule, if it is none that is known already. */
    private Item read(Item item) {
        if (item.number().isPresent() || particulars.isEmpty()) return item;
        return rule.writing()
                .number(item.text(), item.attributes(), text -> particulars
                        .get()
                        .isNumber(text, item))
                .map(item::with)
                .orElse(item);
    }

    private Item derived(Item item, List<Sheet> sheets) {
        var attributes = new TreeMap<>(item.attributes());
        attributes.putIfAbsent(Rule.SHEET, String.valueOf(item.sheet()));
        rule.grid().ifPresent(grid -> item.place().ifPresent(place -> {
            Sheet sheet = sheets.get(item.sheet() - 1);
            attributes.putIfAbsent(Rule.COLUMN, String.valueOf(grid.column(place, sheet)));
            attributes.putIfAbsent(Rule.ROW, String.valueOf(grid.row(place, sheet)));
        }));
        return new Item(item.id(), item.sheet(), item.text(), item.number(), attributes, item.place());
    }

    private NumberPlan plan() {
        List<Item> chosen = rule.choice().of(items);
        if (rule.order().needsPlaces())
            for (Item item : chosen)
                if (item.place().isEmpty()) fault(item, "has no place on a sheet", "an order by attributes");
        if (faults.isEmpty()) {
            List<Item> ordered = rule.order().of(chosen);
            if (rule.which() == Which.NONE) ordered.forEach(this::clear);
            else number(ordered);
        }
        var counted = new ArrayList<Group>();
        counts.forEach((values, count) -> {
            if (count.items > 0) counted.add(new Group(values, count.items, count.firstNumber, count.lastNumber));
        });
        return new NumberPlan(faults.isEmpty() ? changes : List.of(), sorted(counted), faults);
    }

    private static List<Group> sorted(List<Group> groups) {
        Comparator<Group> order = (one, other) -> 0;
        int values = groups.isEmpty() ? 0 : groups.getFirst().values().size();
        for (int i = 0; i < values; i++) {
            int at = i;
            order = order.thenComparing(group -> group.values().get(at), NaturalOrder.INSTANCE);
        }
        return groups.stream().sorted(order).toList();
    }

    private void fault(Item item, String problem, String accepted) {
        if (faults.size() < MOST_FAULTS) faults.add(new ItemFault(item.id(), problem, accepted));
    }

    private void clear(Item item) {
        if (item.number().isEmpty()) return;
        Optional<String> before = rule.writing()
                .old(item.text(), item.number().get(), item.attributes())
                .or(() -> Optional.ofNullable(originals.get(item.id())));
        if (before.isEmpty())
            fault(item, "was numbered, and what was there before is not known", "undo the plan that numbered it");
        else changes.add(new Change(item.id(), item.text(), before.get(), Optional.empty()));
    }

    private void number(List<Item> ordered) {
        keep(ordered);
        for (Item item : ordered) {
            Optional<String> kept = rule.which() == Which.MISSING ? item.number() : Optional.empty();
            Optional<String> number =
                    kept.or(() -> Optional.ofNullable(numbers.get(thing(item)))).or(() -> next(item));
            if (number.isEmpty()) continue;
            numbers.put(thing(item), number.get());
            String bearer = bearers.putIfAbsent(bearing(item, number.get()), thing(item));
            if (bearer != null && !bearer.equals(thing(item)))
                fault(
                        item,
                        "would bear ‘" + number.get() + "’, as another item does",
                        kept.isPresent()
                                ? "another text in one of them, which then gets a number of its own"
                                : "a pattern that tells them apart");
            List<String> group = groups.computeIfAbsent(thing(item), first -> group(item));
            count(item).met(number.get(), !group.equals(group(item)));
            if (kept.isEmpty()) write(item, number.get());
        }
    }

    /** Numbers that stay: those of items that are not chosen, and of all where only what is missing is added. */
    private void keep(List<Item> ordered) {
        var anew = new HashMap<String, Item>();
        if (rule.which() == Which.ALL) for (Item item : ordered) anew.put(item.id(), item);
        for (Item item : items) {
            if (item.number().isEmpty() || anew.containsKey(item.id())) continue;
            String number = item.number().get();
            String other = numbers.putIfAbsent(thing(item), number);
            if (other != null && !other.equals(number))
                fault(
                        item,
                        "is the same thing as an item with the number ‘" + other + "’, and has ‘" + number + "’",
                        "one number for both, or number all anew");
            bearers.putIfAbsent(bearing(item, number), thing(item));
            if (rule.which() == Which.MISSING) behind(item, number);
        }
    }

    /** A number where it must not occur twice. */
    private String bearing(Item item, String number) {
        return rule.repeats() ? group(item) + " " + number : number;
    }

    private List<String> group(Item item) {
        return rule.restarts().stream().map(name -> value(item, name)).toList();
    }

    /** What is missing is counted on behind the greatest number of the group. */
    private void behind(Item item, String number) {
        if (rule.count().isEmpty()) return;
        Optional<Particulars> written = particulars.flatMap(each -> each.of(item));
        if (written.isEmpty()) return;
        OptionalLong value = rule.count().get().pattern().read(number, written.get());
        Count count = count(item);
        if (value.isPresent() && (count.last.isEmpty() || count.last.getAsLong() < value.getAsLong()))
            count.last = value;
    }

    /** The things that items are: those of one attribute's value are one, others stand alone. */
    private String thing(Item item) {
        String same = rule.same().map(name -> value(item, name)).orElse("");
        return same.isEmpty() ? "item " + item.id() : "same " + same;
    }

    private static String value(Item item, String attribute) {
        return item.attributes().getOrDefault(attribute, "").strip();
    }

    private Count count(Item item) {
        return counts.computeIfAbsent(group(item), values -> new Count());
    }

    private Optional<String> next(Item item) {
        return rule.count().isPresent() ? next(item, rule.count().get()) : source.of(item);
    }

    private Optional<String> next(Item item, Rule.Count by) {
        Optional<String> missing = particulars.flatMap(each -> each.missing(item));
        if (missing.isPresent()) {
            fault(item, "has no " + missing.get() + ", which the pattern writes", "a value there");
            return Optional.empty();
        }
        Count count = count(item);
        try {
            long value = count.last.isPresent()
                    ? Math.addExact(count.last.getAsLong(), by.step())
                    : by.start().of(item.attributes());
            if (value < by.pattern().count().least()
                    || value > by.pattern().count().largest()) {
                fault(item, "would get the value " + value + ", which the pattern cannot write", "a wider count");
                return Optional.empty();
            }
            count.last = OptionalLong.of(value);
            return particulars.flatMap(each -> each.of(item)).map(each -> by.pattern()
                    .render(each, value));
        } catch (Sum.NoValue e) {
            fault(item, "has no start: " + e.getMessage(), "a whole number there, or another start");
        } catch (ArithmeticException e) {
            fault(item, "would get a value that is too large to count", "a smaller start or step");
        }
        return Optional.empty();
    }

    private void write(Item item, String number) {
        String old = item.number()
                .flatMap(before -> rule.writing().old(item.text(), before, item.attributes()))
                .orElse(item.text());
        String after = rule.writing().of(old, number, item.attributes());
        written += after.length();
        if (written > MOST_WRITTEN) {
            fault(item, "would make the document too large, with those before it", "shorter texts");
            return;
        }
        Optional<String> found = particulars.flatMap(
                each -> rule.writing().number(after, item.attributes(), text -> each.isNumber(text, item)));
        if (particulars.isPresent() && !found.equals(Optional.of(number)))
            fault(
                    item,
                    "would be ‘" + after + "’, in which the number " + number + " cannot be told from what was there",
                    "symbols between {old} and {new}");
        boolean stays = after.equals(item.text()) && item.number().equals(Optional.of(number));
        if (!stays) changes.add(new Change(item.id(), item.text(), after, Optional.of(number)));
    }
}
