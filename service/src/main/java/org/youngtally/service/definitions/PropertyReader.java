package org.youngtally.service.definitions;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.yaml.snakeyaml.DumperOptions.FlowStyle;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.property.Values;
import org.youngtally.core.text.NearestName;

/** Reads a thing with properties from YAML, by the list of what it can say. */
public final class PropertyReader {
    private final Faults faults;
    /** The line of each property, from 1, by its path. */
    private final Map<String, Integer> places;

    /** @param places gets the line of each property, from 1, by its path; that of the thing itself by none */
    public PropertyReader(Map<String, Integer> places, Faults faults) {
        this.places = places;
        this.faults = faults;
    }

    /** Gets what is wrong. */
    @FunctionalInterface
    public interface Faults {
        /** @param path of the property at fault, within the thing */
        void fault(Node node, String path, String problem, String accepted);
    }

    public <R> R read(Group<R> group, Node node) {
        places.put("", node.getStartMark().getLine() + 1);
        return thing(group, node, "");
    }

    /**
     * The line of a property, or of what encloses it.
     *
     * @param places as a reader filled them
     */
    public static Integer line(Map<String, Integer> places, String path) {
        for (String at = path; ; at = at.replaceFirst("[.\\[]?[^.\\[]*$", "")) {
            Integer line = places.get(at);
            if (line != null || at.isEmpty()) return line;
        }
    }

    private void fault(Node node, String path, String problem, String accepted) {
        faults.fault(node, path, problem, accepted);
    }

    private <R> R thing(Group<R> group, Node node, String prefix) {
        Map<String, Node> nodes = values(node, group.names(), prefix, group.called());
        Values values = Values.NONE;
        for (Property<?> property : group.properties())
            values = with(values, property, nodes.get(property.name()), prefix + property.name());
        return group.make(values);
    }

    @SuppressWarnings("unchecked") // the shape says what the value is
    private <T> Values with(Values values, Property<T> property, Node node, String path) {
        return values.with(property, (T) value(property.shape(), node, path));
    }

    private Object value(Shape<?> shape, Node node, String path) {
        if (node == null) return null;
        return switch (shape) {
            case Shape.Text text -> text(node, path);
            case Shape.Word word -> text(node, path);
            case Shape.Date date -> text(node, path);
            case Shape.Decimal decimal -> text(node, path);
            case Shape.Whole whole -> number(node, path);
            case Shape.Flag flag -> flag(node, path);
            case Shape.Texts texts -> texts(node, path, "a list, such as " + texts.example());
            case Shape.One<?> one -> thing(one.group(), node, path + ".");
            case Shape.Many<?> many -> things(many, node, path);
            case Shape.ByField<?> tests -> conditions(node);
        };
    }

    private <R> List<R> things(Shape.Many<R> many, Node node, String path) {
        var things = new ArrayList<R>();
        for (Node one : list(node, path, many.called())) {
            String here = path + "[" + things.size() + "]";
            places.put(here, one.getStartMark().getLine() + 1);
            things.add(thing(many.group().get(), one, here + "."));
        }
        return things;
    }

    private Map<String, TestDraft> conditions(Node node) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        var tests = new LinkedHashMap<String, TestDraft>();
        if (!(node instanceof MappingNode mapping)) {
            fault(node, "when", "has no fields", "write each field with a colon, such as { class: school }");
            return tests;
        }
        for (NodeTuple tuple : mapping.getValue()) {
            String field = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
            String path = "when." + field;
            places.put(path, tuple.getKeyNode().getStartMark().getLine() + 1);
            TestDraft test = test(tuple.getValueNode(), path);
            if (tests.putIfAbsent(field, test) != null) fault(tuple.getKeyNode(), path, "occurs twice", "keep one");
        }
        return tests;
    }

    private TestDraft test(Node node, String path) {
        if (node instanceof SequenceNode) return new TestDraft(texts(node, path, "a list of values"), null, null);
        if (node instanceof ScalarNode)
            return new TestDraft(List.of(Objects.requireNonNullElse(text(node, path), "")), null, null);
        return thing(TestDraft.PROPERTIES, node, path + ".");
    }

    /** A property with its value. */
    record Written(String name, Node value) {}

    private Map<String, Node> values(Node node, List<String> known, String prefix, String called) {
        var values = new HashMap<String, Node>();
        for (Written written : properties(node, known, prefix, called)) {
            values.put(written.name(), written.value());
            places.put(prefix + written.name(), written.value().getStartMark().getLine() + 1);
        }
        return values;
    }

    List<Written> properties(Node node, List<String> known, String prefix, String called) {
        if (!(node instanceof MappingNode mapping)) {
            fault(
                    node,
                    prefix.replaceFirst("\\.$", ""),
                    called + " has no properties",
                    "write " + String.join(", ", known) + ", each with a colon");
            return List.of();
        }
        var found = new ArrayList<Written>();
        for (NodeTuple tuple : mapping.getValue()) {
            String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
            if (!known.contains(key))
                fault(
                        tuple.getKeyNode(),
                        prefix + key,
                        "is not a property of " + called,
                        NearestName.to(key, known)
                                        .map(near -> "did you mean " + near + "? ")
                                        .orElse("") + "known are " + String.join(", ", known));
            else if (found.stream().anyMatch(each -> each.name().equals(key)))
                fault(tuple.getKeyNode(), prefix + key, "occurs twice", "keep one");
            else found.add(new Written(key, tuple.getValueNode()));
        }
        return found;
    }

    private List<Node> list(Node node, String path, String accepted) {
        if (node == null) return List.of();
        if (node instanceof SequenceNode sequence) return sequence.getValue();
        fault(node, path, "is not a list", "write " + accepted);
        return List.of();
    }

    private String text(Node node, String path) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        if (node instanceof ScalarNode scalar) return scalar.getValue();
        if (node instanceof MappingNode map && map.getFlowStyle() == FlowStyle.FLOW)
            fault(node, path, "has braces that are not in quotes, so YAML reads them as properties", YamlFault.QUOTES);
        else fault(node, path, "is not a single value", "write one value");
        return null;
    }

    private Long number(Node node, String path) {
        String text = text(node, path);
        if (text == null) return null;
        if (text.replace("_", "").matches("[+-]?[0-9]{1,18}")) return Long.valueOf(text.replace("_", ""));
        fault(
                node,
                path,
                "‘" + text + "’ is not a whole number of up to 18 digits",
                "write it in digits, such as 99999");
        return null;
    }

    private List<String> texts(Node node, String path, String accepted) {
        return node == null
                ? null
                : list(node, path, accepted).stream()
                        .map(each -> text(each, path))
                        .toList();
    }

    private Boolean flag(Node node, String path) {
        String text = text(node, path);
        if (text == null) return null;
        if (text.equals("true") || text.equals("false")) return Boolean.valueOf(text);
        fault(node, path, "‘" + text + "’ is neither true nor false", "write true or false");
        return null;
    }
}
