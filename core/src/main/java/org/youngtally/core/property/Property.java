package org.youngtally.core.property;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.BiFunction;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.text.NearestName;

/**
 * One thing that a definition can say: what it is called, what it means, how its value is written, and what holds where
 * it is absent. Each is listed once; whatever reads, writes, compares or explains definitions walks over the lists.
 *
 * @param <T> what its value is in memory
 */
public final class Property<T> {
    private static final Shape.Text NAME = new Shape.Text("^" + DefinitionName.SHAPE + "$", false);
    private static final Shape.Text FIELD_NAME = new Shape.Text("^" + Particulars.FIELD_NAME + "$", false);

    private final String name;
    private final String json;
    private final Shape<T> shape;
    private final String meaning;
    private final boolean required;
    private final T usual;
    private final String otherwise;
    private final String likeOther;
    private final boolean told;
    private final BiFunction<String, T, Optional<Fault>> check;

    private Property(
            String name,
            String json,
            Shape<T> shape,
            String meaning,
            boolean required,
            T usual,
            String otherwise,
            String likeOther,
            boolean told,
            BiFunction<String, T, Optional<Fault>> check) {
        this.name = name;
        this.json = json;
        this.shape = shape;
        this.meaning = meaning;
        this.required = required;
        this.usual = usual;
        this.otherwise = otherwise;
        this.likeOther = likeOther;
        this.told = told;
        this.check = check;
    }

    /**
     * @param name in files and in messages, such as {@code warn-when-left}
     * @param json in the interface, such as {@code warnWhenLeft}
     * @param meaning one sentence for people, without what holds where it is absent
     */
    public static <T> Property<T> of(String name, String json, Shape<T> shape, String meaning) {
        return new Property<>(
                name, json, shape, meaning, false, null, "", "", false, (path, value) -> Optional.empty());
    }

    public static Property<String> text(String name, String json, String meaning) {
        return of(name, json, new Shape.Text("", false), meaning);
    }

    /**
     * A text for people on one line.
     *
     * @param longest the most symbols
     */
    public static Property<String> line(String name, String json, int longest, String meaning) {
        return text(name, json, meaning).checked((path, value) -> DefinitionName.lineFault(path, value, longest));
    }

    /** The name for people, which is that of another property where it is absent. */
    public static Property<String> title(String other) {
        return line("title", "title", DefinitionName.LONGEST_TITLE, "The name for people.")
                .otherwiseAs(other);
    }

    /** The key of a definition. */
    public static Property<String> key(String name, String meaning) {
        return of(name, name, NAME, meaning);
    }

    /** The name of a field. */
    public static Property<String> fieldName(String name, String json, String meaning) {
        return of(name, json, FIELD_NAME, meaning);
    }

    public static Property<String> word(String name, String json, List<String> words, String meaning) {
        return of(name, json, new Shape.Word(words), meaning)
                .checked((path, value) -> words.contains(value)
                        ? Optional.empty()
                        : Optional.of(new Fault(
                                path,
                                "‘" + value + "’ is not an option",
                                nearest(value, words) + "write " + or(words))));
    }

    private static String nearest(String value, List<String> words) {
        return NearestName.to(value, words)
                .map(near -> "did you mean " + near + "? ")
                .orElse("");
    }

    private static String or(List<String> words) {
        return String.join(", ", words.subList(0, words.size() - 1)) + " or " + words.getLast();
    }

    public static Property<Long> whole(String name, String json, String meaning) {
        return of(name, json, new Shape.Whole(), meaning);
    }

    public static Property<Boolean> flag(String name, String json, String meaning) {
        return of(name, json, new Shape.Flag(), meaning);
    }

    /** Said always. */
    public Property<T> required() {
        return new Property<>(name, json, shape, meaning, true, usual, otherwise, likeOther, told, check);
    }

    /** Counts as this value where it is absent. */
    public Property<T> usually(T value) {
        return new Property<>(name, json, shape, meaning, required, value, written(value), likeOther, told, check);
    }

    /** Where it is absent, the property of that name speaks for it. */
    public Property<T> otherwiseAs(String other) {
        return new Property<>(name, json, shape, meaning, required, usual, "the " + other, other, told, check);
    }

    /** The interface tells it even where it is as usual. */
    public Property<T> alwaysTold() {
        return new Property<>(name, json, shape, meaning, required, usual, otherwise, likeOther, true, check);
    }

    /** Where it is absent, what these words say holds. */
    public Property<T> otherwise(String words) {
        return new Property<>(name, json, shape, meaning, required, usual, words, likeOther, told, check);
    }

    /** Holds only what this check finds nothing wrong with, given the path and the value. */
    public Property<T> checked(BiFunction<String, T, Optional<Fault>> by) {
        return new Property<>(name, json, shape, meaning, required, usual, otherwise, likeOther, told, by);
    }

    public String name() {
        return name;
    }

    public String json() {
        return json;
    }

    public Shape<T> shape() {
        return shape;
    }

    public boolean isRequired() {
        return required;
    }

    /** What counts where it is absent; null where that is no value of its own. */
    public T usual() {
        return usual;
    }

    /** What holds where it is absent, for people; empty where nothing does. */
    public String otherwise() {
        return otherwise;
    }

    /** The name of the property that speaks for it where it is absent; empty where none does. */
    public String likeOther() {
        return likeOther;
    }

    /** What it means, for people. */
    public String meaning() {
        return meaning;
    }

    /** Whether the interface tells it even where it is as usual. */
    public boolean isAlwaysTold() {
        return told;
    }

    /** What is wrong with a value by itself. */
    public Optional<Fault> fault(String path, T value) {
        return check.apply(path, value);
    }

    /** Whether the value says no more than its absence. */
    public boolean isUsual(T value) {
        return value == null || Objects.equals(value, usual);
    }

    /** A value on one line, for people. */
    public String written(T value) {
        if (value == null) return otherwise;
        return value instanceof List<?> list
                ? String.join(", ", list.stream().map(Object::toString).toList())
                : value.toString();
    }

    @Override
    public String toString() {
        return name;
    }
}
