package org.youngtally.core.organisation;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.text.Comparison;

/**
 * When a route serves: each of its fields must pass its test. Without any it always holds.
 *
 * @param tests by the name of the field
 */
public record Condition(SortedMap<String, Test> tests) {
    public static final Condition ALWAYS = new Condition(new TreeMap<>());

    public Condition {
        tests = Collections.unmodifiableSortedMap(new TreeMap<>(tests));
    }

    /**
     * What the value of a field must be: one of several, or between two.
     *
     * @param type of the field, by which values are compared
     * @param oneOf in the form in which records keep them; empty for a stretch
     * @param from the least; absent for any
     * @param to the greatest; absent for any
     */
    public record Test(KindField.Type type, List<String> oneOf, Optional<String> from, Optional<String> to) {
        public Test {
            oneOf = List.copyOf(oneOf);
        }

        boolean passes(String value) {
            if (!oneOf.isEmpty()) return oneOf.stream().anyMatch(each -> compare(each, value) == 0);
            return from.map(least -> compare(least, value) <= 0).orElse(true)
                    && to.map(greatest -> compare(value, greatest) <= 0).orElse(true);
        }

        /** A value that passes both, if there is one. */
        Optional<String> common(Test other) {
            if (!oneOf.isEmpty()) return oneOf.stream().filter(other::passes).findFirst();
            if (!other.oneOf.isEmpty()) return other.common(this);
            // Between two values of the same type there may be none, but their ends tell: the higher beginning must
            // pass both.
            Optional<String> least = from.isEmpty()
                    ? other.from
                    : other.from.isEmpty() || compare(from.get(), other.from.get()) >= 0 ? from : other.from;
            Optional<String> greatest = to.isEmpty()
                    ? other.to
                    : other.to.isEmpty() || compare(to.get(), other.to.get()) <= 0 ? to : other.to;
            if (least.isPresent())
                return least.filter(
                        value -> greatest.map(end -> compare(value, end) <= 0).orElse(true));
            return greatest.isPresent() ? greatest : Optional.of(type == KindField.Type.NUMBER ? "0" : "");
        }

        private int compare(String one, String other) {
            return switch (type) {
                case NUMBER -> new BigDecimal(one).compareTo(new BigDecimal(other));
                case DATE -> LocalDate.parse(one).compareTo(LocalDate.parse(other));
                case TEXT -> Comparison.OF_NAMES.key(one).compareTo(Comparison.OF_NAMES.key(other));
                case CHOICE, YES_NO -> one.compareTo(other);
            };
        }

        @Override
        public String toString() {
            return !oneOf.isEmpty() ? String.join("|", oneOf) : from.orElse("") + ".." + to.orElse("");
        }
    }

    public boolean isAlways() {
        return tests.isEmpty();
    }

    /**
     * The first test that a record's values fail; absent where the condition holds. A field that was not given fails.
     */
    public Optional<String> fails(Map<String, String> values) {
        return tests.entrySet().stream()
                .filter(test ->
                        !values.containsKey(test.getKey()) || !test.getValue().passes(values.get(test.getKey())))
                .map(Map.Entry::getKey)
                .findFirst();
    }

    /** Values under which this and another condition of the same kind both hold, if there are any. */
    public Optional<Map<String, String>> common(Condition other) {
        var values = new TreeMap<String, String>();
        for (String field : Stream.concat(tests.keySet().stream(), other.tests.keySet().stream())
                .distinct()
                .toList()) {
            Test one = tests.getOrDefault(field, other.tests.get(field));
            Optional<String> value = one.common(other.tests.getOrDefault(field, one));
            if (value.isEmpty()) return Optional.empty();
            values.put(field, value.get());
        }
        return Optional.of(values);
    }

    /** As people write it: {@code class=school, total=1000..}; empty where it always holds. */
    @Override
    public String toString() {
        return tests.entrySet().stream()
                .map(test -> test.getKey() + "=" + test.getValue())
                .collect(Collectors.joining(", "));
    }
}
