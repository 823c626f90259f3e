package org.youngtally.service.starter;

import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.YAMLException;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.definitions.LongLine;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * A file of definitions in which variables stand, written as {@code %name%}, to be filled in for a new company or
 * branch.
 *
 * @param definitions the text of the file
 * @param kinds definitions of kinds of records, by key, for those that are not defined yet
 */
public record Starter(
        String name, String title, List<Variable> variables, String definitions, Map<String, String> kinds) {
    private static final String PROPERTIES = "starter, title, variables, definitions and kinds";
    private static final Pattern PLACE = Pattern.compile("%([a-z][a-z0-9-]{0,31})%");
    /** The longest text of a set, and of what it is filled to, in symbols. */
    private static final int LARGEST = 1 << 20;

    private static final int LONGEST_SHAPE = 200;
    private static final int LONGEST_VALUE = 200;
    private static final int MOST_VARIABLES = 100;

    /**
     * @param shape a regular expression, in the syntax of RE2, that a value must match as a whole; whatever somebody
     *     writes there, looking takes no longer than the value is long
     */
    public record Variable(String name, String meaning, String shape, String example) {}

    /** Reads a starter set as it is written. */
    public static Starter read(String text) {
        if (text.length() > LARGEST)
            throw new Problem(Type.MALFORMED, "The starter set has %,d symbols.".formatted(text.length()))
                    .field("text", "up to %,d symbols".formatted(LARGEST));
        LongLine.in(text).ifPresent(line -> {
            throw new Problem(
                            Type.MALFORMED,
                            "Line %d of the starter set has %,d symbols.".formatted(line.number(), line.length()))
                    .field("text", "lines of up to %,d symbols".formatted(LongLine.LONGEST));
        });
        Object root;
        try {
            var options = new LoaderOptions();
            options.setCodePointLimit(LARGEST + 1);
            root = new Yaml(new SafeConstructor(options)).load(text);
        } catch (YAMLException e) {
            throw new Problem(
                            Type.MALFORMED,
                            "The starter set is not YAML: "
                                    + e.getMessage().lines().findFirst().orElse(""))
                    .field("text", PROPERTIES);
        }
        if (!(root instanceof Map<?, ?> file))
            throw new Problem(Type.MALFORMED, "The starter set has no properties.").field("text", PROPERTIES);
        for (Object property : file.keySet())
            if (!List.of("starter", "title", "variables", "definitions", "kinds")
                    .contains(property))
                throw new Problem(Type.MALFORMED, "‘" + property + "’ is not a property of a starter set.")
                        .field("text", PROPERTIES);
        String name = text(file, "starter");
        var variables = new ArrayList<Variable>();
        if (file.get("variables") instanceof List<?> list) {
            if (list.size() > MOST_VARIABLES)
                throw new Problem(Type.MALFORMED, "The starter set has " + list.size() + " variables.")
                        .field("text", "up to " + MOST_VARIABLES + " variables");
            for (Object one : list) variables.add(variable(one));
        }
        var starter = new Starter(
                name,
                file.containsKey("title") ? text(file, "title") : name,
                List.copyOf(variables),
                text(file, "definitions"),
                kinds(file.get("kinds")));
        Matcher place = PLACE.matcher(starter.definitions());
        while (place.find()) {
            String used = place.group(1);
            if (variables.stream().noneMatch(variable -> variable.name().equals(used)))
                throw new Problem(
                                Type.MALFORMED,
                                "The definitions of ‘" + name + "’ use %" + used
                                        + "%, which is not among the variables.")
                        .field("text", "a variable with this name, or another text");
        }
        return starter;
    }

    private static Map<String, String> kinds(Object property) {
        if (property == null) return Map.of();
        if (!(property instanceof Map<?, ?> map))
            throw new Problem(Type.MALFORMED, "The kinds of the starter set are not properties.")
                    .field("text", "the key of each kind with its definition as a text");
        var kinds = new LinkedHashMap<String, String>();
        for (Object key : map.keySet()) kinds.put(String.valueOf(key), text(map, String.valueOf(key)));
        return kinds;
    }

    private static Variable variable(Object one) {
        if (!(one instanceof Map<?, ?> map))
            throw new Problem(Type.MALFORMED, "A variable has no properties.")
                    .field("text", "name, meaning, shape and example");
        var variable = new Variable(
                text(map, "name"),
                text(map, "meaning"),
                map.containsKey("shape") ? text(map, "shape") : ".{1,100}",
                map.containsKey("example") ? text(map, "example") : "");
        if (variable.shape().length() > LONGEST_SHAPE)
            throw new Problem(
                            Type.MALFORMED,
                            "The shape of the variable ‘" + variable.name() + "’ is "
                                    + variable.shape().length() + " symbols long.")
                    .field("text", "a shape of up to " + LONGEST_SHAPE + " symbols, such as [a-z]{2,12}");
        // A counted group is written out as often as it is counted, and counted ones within each other multiply.
        if (variable.shape().contains("){") || variable.shape().contains("}{"))
            throw new Problem(Type.MALFORMED, "The shape of the variable ‘" + variable.name() + "’ repeats a group.")
                    .field("text", "counts after single symbols and classes only, such as [a-z]{2,12}");
        try {
            com.google.re2j.Pattern.compile(variable.shape());
        } catch (PatternSyntaxException e) {
            throw new Problem(
                            Type.MALFORMED,
                            "The shape of the variable ‘" + variable.name() + "’ is no regular expression: "
                                    + e.getDescription() + ".")
                    .field("text", "a shape such as [a-z]{2,12}, without back references");
        }
        return variable;
    }

    private static String text(Map<?, ?> map, String property) {
        Object value = map.get(property);
        if (value == null
                || value instanceof Map
                || value instanceof List
                || value.toString().isBlank())
            throw new Problem(Type.MALFORMED, "The starter set has no " + property + ".")
                    .field("text", "a text for " + property);
        return value.toString();
    }

    /**
     * The file of definitions with every variable filled in.
     *
     * @param known the keys of the kinds that are defined already
     */
    public String filled(Map<String, String> values, Set<String> known) {
        String missing = kinds.entrySet().stream()
                .filter(kind -> !known.contains(kind.getKey()))
                .map(kind -> kind.getValue().strip().indent(2))
                .collect(Collectors.joining());
        String text = filled(values);
        return missing.isEmpty() ? text : text + (text.endsWith("\n") ? "" : "\n") + "kinds:\n" + missing;
    }

    private String filled(Map<String, String> values) {
        List<String> names = variables.stream().map(Variable::name).toList();
        for (String given : new TreeSet<>(values.keySet()))
            if (!names.contains(given))
                throw new Problem(
                                Type.MALFORMED,
                                "‘" + name + "’ has no variable ‘" + given + "’."
                                        + NearestName.to(given, names)
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("variables." + given, String.join(", ", names));
        for (Variable variable : variables) {
            String value = Optional.ofNullable(values.get(variable.name())).orElse("");
            if (value.length() > LONGEST_VALUE)
                throw new Problem(
                                Type.MALFORMED,
                                "The variable ‘" + variable.name() + "’ is " + value.length() + " symbols long.")
                        .field("variables." + variable.name(), "up to " + LONGEST_VALUE + " symbols");
            if (!com.google.re2j.Pattern.matches(variable.shape(), value))
                throw new Problem(
                                Type.MALFORMED,
                                value.isEmpty()
                                        ? "The variable ‘" + variable.name() + "’ is missing: " + variable.meaning()
                                                + "."
                                        : "‘" + value + "’ is not a value of the variable ‘" + variable.name() + "’: "
                                                + variable.meaning() + ".")
                        .field(
                                "variables." + variable.name(),
                                "a text of the shape " + variable.shape()
                                        + (variable.example().isEmpty() ? "" : ", such as " + variable.example()));
        }
        var filled = new StringBuilder();
        Matcher place = PLACE.matcher(definitions);
        while (place.find()) {
            place.appendReplacement(filled, Matcher.quoteReplacement(values.get(place.group(1))));
            if (filled.length() > LARGEST)
                throw new Problem(
                                Type.MALFORMED,
                                "The filled starter set would have more than %,d symbols.".formatted(LARGEST))
                        .field("variables", "shorter values");
        }
        return place.appendTail(filled).toString();
    }
}
