package org.youngtally.service.definitions;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.yaml.snakeyaml.DumperOptions.FlowStyle;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;
import org.youngtally.core.property.Values;
import org.youngtally.core.text.HalfSymbols;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;

/**
 * Reads an administrator's YAML file: drafts of definitions, each property's line, and every fault of the file's shape.
 */
public final class DefinitionFile {
    private static final int LARGEST = 8 << 20;
    private static final int DEEPEST = 40;

    private final String name;
    private final Map<DefinitionSort<?>, List<Object>> drafts = new HashMap<>();
    private final Map<What, List<Map<String, Integer>>> lines = new EnumMap<>(What.class);
    private final List<DefinitionFault> faults = new ArrayList<>();
    /** What is being read. */
    private What what = What.SERIES;

    private DefinitionFile(String name) {
        this.name = name;
        for (What each : What.values()) lines.put(each, new ArrayList<>());
        for (DefinitionSort<?> sort : DefinitionSort.ALL) drafts.put(sort, new ArrayList<>());
    }

    /** @param name the file's name, for the messages */
    public static DefinitionFile read(String name, String text) {
        var file = new DefinitionFile(name);
        var options = new LoaderOptions();
        options.setCodePointLimit(LARGEST);
        options.setMaxAliasesForCollections(0);
        options.setNestingDepthLimit(DEEPEST);
        Optional<LongLine> longLine = LongLine.in(text);
        if (longLine.isPresent()) {
            file.faults.add(file.fault(
                    longLine.get().number(),
                    null,
                    null,
                    null,
                    "",
                    "the line has %,d symbols".formatted(longLine.get().length()),
                    "break it: at most %,d are read".formatted(LongLine.LONGEST)));
            return file;
        }
        try {
            Node root = new Yaml(options).compose(new StringReader(text));
            if (root == null)
                file.faults.add(
                        file.fault(1, null, null, null, "", "the file is empty", "write series: and a list of series"));
            else if (halfSymbol(root).isPresent())
                file.faults.add(file.fault(
                        halfSymbol(root).get().getStartMark().getLine() + 1,
                        null,
                        null,
                        null,
                        "",
                        "a text holds half a symbol",
                        "write whole symbols"));
            else file.file(root);
        } catch (MarkedYAMLException e) {
            Integer line =
                    e.getProblemMark() == null ? null : e.getProblemMark().getLine() + 1;
            Fault fault = YamlFault.of(e, text);
            file.faults.add(file.fault(line, null, null, null, "", fault.problem(), fault.accepted()));
        } catch (YAMLException e) {
            file.faults.add(file.fault(
                    null,
                    null,
                    null,
                    null,
                    "",
                    "the file is not YAML: " + e.getMessage(),
                    "write it in UTF-8, up to " + (LARGEST >> 20) + " MB"));
        }
        return file;
    }

    public String name() {
        return name;
    }

    public Drafts drafts() {
        return new Drafts(
                drafts(DefinitionSort.NAMESPACES),
                drafts(DefinitionSort.CODEBOOKS),
                drafts(DefinitionSort.SERIES),
                drafts(DefinitionSort.UNITS),
                drafts(DefinitionSort.KINDS),
                drafts(DefinitionSort.ROUTES),
                drafts(DefinitionSort.LAYOUTS));
    }

    @SuppressWarnings("unchecked") // read by the sort's own group
    private <D> List<D> drafts(DefinitionSort<D> sort) {
        return (List<D>) drafts.get(sort);
    }

    public List<DefinitionFault> faults() {
        return faults;
    }

    /** How many definitions of a kind the file holds. */
    public int count(What kind) {
        return lines.get(kind).size();
    }

    /** The line of a property of a definition, or of what encloses it, from 1. */
    public Integer line(What kind, int index, String path) {
        for (String at = path; ; at = at.replaceFirst("[.\\[]?[^.\\[]*$", "")) {
            Integer line = lines.get(kind).get(index).get(at);
            if (line != null || at.isEmpty()) return line;
        }
    }

    private static Optional<Node> halfSymbol(Node node) {
        return switch (node) {
            case ScalarNode scalar -> HalfSymbols.isIn(scalar.getValue()) ? Optional.of(scalar) : Optional.empty();
            case SequenceNode list ->
                list.getValue().stream()
                        .flatMap(each -> halfSymbol(each).stream())
                        .findFirst();
            case MappingNode map ->
                map.getValue().stream()
                        .flatMap(each -> Stream.of(each.getKeyNode(), each.getValueNode()))
                        .flatMap(each -> halfSymbol(each).stream())
                        .findFirst();
            default -> Optional.empty();
        };
    }

    private void file(Node root) {
        List<String> known =
                DefinitionSort.ALL.stream().map(DefinitionSort::list).toList();
        for (Written written : properties(root, known, null, "", "the file")) {
            // A list that lost its last entry.
            if (written.value().getTag().equals(Tag.NULL)) continue;
            if (!(written.value() instanceof SequenceNode list)) {
                fault(written.value(), null, written.name(), "is not a list", "start each item with a hyphen");
                continue;
            }
            for (DefinitionSort<?> sort : DefinitionSort.ALL)
                if (sort.list().equals(written.name())) for (Node one : list.getValue()) definition(sort, one);
        }
    }

    private void definition(DefinitionSort<?> sort, Node node) {
        what = sort.what();
        var places = new HashMap<String, Integer>();
        places.put("", node.getStartMark().getLine() + 1);
        lines.get(what).add(places);
        drafts.get(sort).add(thing(sort.group(), node, "", places));
    }

    private <R> R thing(Group<R> group, Node node, String prefix, Map<String, Integer> places) {
        Map<String, Node> nodes = values(node, group.names(), prefix, group.called(), places);
        Values values = Values.NONE;
        for (Property<?> property : group.properties())
            values = with(values, property, nodes.get(property.name()), prefix + property.name(), places);
        return group.make(values);
    }

    @SuppressWarnings("unchecked") // the shape says what the value is
    private <T> Values with(Values values, Property<T> property, Node node, String path, Map<String, Integer> places) {
        return values.with(property, (T) value(property.shape(), node, path, places));
    }

    private Object value(Shape<?> shape, Node node, String path, Map<String, Integer> places) {
        if (node == null) return null;
        return switch (shape) {
            case Shape.Text text -> text(node, path);
            case Shape.Word word -> text(node, path);
            case Shape.Date date -> text(node, path);
            case Shape.Decimal decimal -> text(node, path);
            case Shape.Whole whole -> number(node, path);
            case Shape.Flag flag -> flag(node, path);
            case Shape.Texts texts -> texts(node, path, "a list, such as " + texts.example());
            case Shape.One<?> one -> thing(one.group(), node, path + ".", places);
            case Shape.Many<?> many -> things(many, node, path, places);
            case Shape.ByField<?> tests -> conditions(node, places);
        };
    }

    private <R> List<R> things(Shape.Many<R> many, Node node, String path, Map<String, Integer> places) {
        var things = new ArrayList<R>();
        for (Node one : list(node, path, many.called())) {
            String here = path + "[" + things.size() + "]";
            places.put(here, one.getStartMark().getLine() + 1);
            things.add(thing(many.group().get(), one, here + ".", places));
        }
        return things;
    }

    private Map<String, TestDraft> conditions(Node node, Map<String, Integer> places) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        var tests = new LinkedHashMap<String, TestDraft>();
        if (!(node instanceof MappingNode mapping)) {
            fault(node, current(), "when", "has no fields", "write each field with a colon, such as { class: school }");
            return tests;
        }
        for (NodeTuple tuple : mapping.getValue()) {
            String field = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
            String path = "when." + field;
            places.put(path, tuple.getKeyNode().getStartMark().getLine() + 1);
            TestDraft test = test(tuple.getValueNode(), path, places);
            if (tests.putIfAbsent(field, test) != null)
                fault(tuple.getKeyNode(), current(), path, "occurs twice", "keep one");
        }
        return tests;
    }

    private TestDraft test(Node node, String path, Map<String, Integer> places) {
        if (node instanceof SequenceNode) return new TestDraft(texts(node, path, "a list of values"), null, null);
        if (node instanceof ScalarNode)
            return new TestDraft(List.of(Objects.requireNonNullElse(text(node, path), "")), null, null);
        return thing(TestDraft.PROPERTIES, node, path + ".", places);
    }

    private record Written(String name, Node value) {}

    private Map<String, Node> values(
            Node node, List<String> known, String prefix, String called, Map<String, Integer> places) {
        var values = new HashMap<String, Node>();
        for (Written written : properties(node, known, current(), prefix, called)) {
            values.put(written.name(), written.value());
            places.put(prefix + written.name(), written.value().getStartMark().getLine() + 1);
        }
        return values;
    }

    private List<Written> properties(Node node, List<String> known, Integer index, String prefix, String called) {
        if (!(node instanceof MappingNode mapping)) {
            fault(
                    node,
                    index,
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
                        index,
                        prefix + key,
                        "is not a property of " + called,
                        NearestName.to(key, known)
                                        .map(near -> "did you mean " + near + "? ")
                                        .orElse("") + "known are " + String.join(", ", known));
            else if (found.stream().anyMatch(each -> each.name().equals(key)))
                fault(tuple.getKeyNode(), index, prefix + key, "occurs twice", "keep one");
            else found.add(new Written(key, tuple.getValueNode()));
        }
        return found;
    }

    private List<Node> list(Node node, String path, String accepted) {
        if (node == null) return List.of();
        if (node instanceof SequenceNode sequence) return sequence.getValue();
        fault(node, current(), path, "is not a list", "write " + accepted);
        return List.of();
    }

    private String text(Node node, String path) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        if (node instanceof ScalarNode scalar) return scalar.getValue();
        if (node instanceof MappingNode map && map.getFlowStyle() == FlowStyle.FLOW)
            fault(
                    node,
                    current(),
                    path,
                    "has braces that are not in quotes, so YAML reads them as properties",
                    YamlFault.QUOTES);
        else fault(node, current(), path, "is not a single value", "write one value");
        return null;
    }

    private Long number(Node node, String path) {
        String text = text(node, path);
        if (text == null) return null;
        if (text.replace("_", "").matches("[+-]?[0-9]{1,18}")) return Long.valueOf(text.replace("_", ""));
        fault(
                node,
                current(),
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
        fault(node, current(), path, "‘" + text + "’ is neither true nor false", "write true or false");
        return null;
    }

    /** The place of the definition that is being read. */
    private int current() {
        return lines.get(what).size() - 1;
    }

    private void fault(Node node, Integer index, String path, String problem, String accepted) {
        faults.add(fault(
                node == null
                        ? Integer.valueOf(1)
                        : Integer.valueOf(node.getStartMark().getLine() + 1),
                index == null ? null : Refusals.word(what),
                index,
                null,
                path,
                problem,
                accepted));
    }

    private DefinitionFault fault(
            Integer line, String kind, Integer index, String key, String path, String problem, String accepted) {
        return new DefinitionFault(name, line, kind, index, key, path, problem, accepted, null);
    }
}
