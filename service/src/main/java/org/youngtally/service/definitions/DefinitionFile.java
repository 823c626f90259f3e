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
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SkipsDraft;
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
    private final List<NamespaceDraft> namespaces = new ArrayList<>();
    private final List<CodebookDraft> codebooks = new ArrayList<>();
    private final List<SeriesDraft> series = new ArrayList<>();
    private final List<UnitDraft> units = new ArrayList<>();
    private final List<KindDraft> kinds = new ArrayList<>();
    private final List<RouteDraft> routes = new ArrayList<>();
    private final Map<What, List<Map<String, Integer>>> lines = new EnumMap<>(What.class);
    private final List<DefinitionFault> faults = new ArrayList<>();
    /** What is being read. */
    private What what = What.SERIES;

    private DefinitionFile(String name) {
        this.name = name;
        for (What each : What.values()) lines.put(each, new ArrayList<>());
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
                    "break it: %,d are read at most".formatted(LongLine.LONGEST)));
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
            file.faults.add(file.fault(
                    line,
                    null,
                    null,
                    null,
                    "",
                    "the file is not YAML: " + e.getProblem(),
                    "mend it there"
                            + (line == null
                                    ? ""
                                    : ", at column " + (e.getProblemMark().getColumn() + 1))));
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
        return new Drafts(namespaces, codebooks, series, units, kinds, routes);
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
        for (Property property : properties(root, DefinitionShape.ofFile(), null, "", "the file")) {
            // A list that lost its last entry.
            if (property.value().getTag().equals(Tag.NULL)) continue;
            if (!(property.value() instanceof SequenceNode list)) {
                fault(property.value(), null, property.name(), "is not a list", "write each one behind a hyphen");
                continue;
            }
            for (Node one : list.getValue()) {
                switch (property.name()) {
                    case "namespaces" -> namespace(one);
                    case "codebooks" -> codebook(one);
                    case "units" -> unit(one);
                    case "kinds" -> kind(one);
                    case "routes" -> route(one);
                    default -> series(one);
                }
            }
        }
    }

    private Map<String, Node> open(What kind, Node node, List<String> known, String called) {
        what = kind;
        var places = new HashMap<String, Integer>();
        places.put("", node.getStartMark().getLine() + 1);
        lines.get(kind).add(places);
        return values(node, known, "", called, places);
    }

    private void namespace(Node node) {
        Map<String, Node> values = open(What.NAMESPACE, node, DefinitionShape.ofNamespace(), "a namespace");
        namespaces.add(new NamespaceDraft(
                text(values.get("key"), "key"),
                text(values.get("title"), "title"),
                text(values.get("repeats"), "repeats"),
                number(values.get("comparison"), "comparison")));
    }

    private void codebook(Node node) {
        Map<String, Node> values = open(What.CODEBOOK, node, DefinitionShape.ofCodebook(), "a codebook");
        codebooks.add(new CodebookDraft(
                text(values.get("key"), "key"),
                text(values.get("title"), "title"),
                choices(values.get("choices"), "choices", lines.get(what).getLast())));
    }

    private void unit(Node node) {
        Map<String, Node> values = open(What.UNIT, node, DefinitionShape.ofUnit(), "a unit");
        units.add(new UnitDraft(
                text(values.get("key"), "key"),
                text(values.get("title"), "title"),
                text(values.get("below"), "below"),
                text(values.get("code"), "code"),
                text(values.get("time-zone"), "time-zone")));
    }

    private void kind(Node node) {
        Map<String, Node> values = open(What.KIND, node, DefinitionShape.ofKind(), "a kind");
        Map<String, Integer> places = lines.get(what).getLast();
        kinds.add(new KindDraft(
                text(values.get("key"), "key"),
                text(values.get("title"), "title"),
                kindFields(values.get("fields"), "fields", places),
                kindFields(values.get("lines"), "lines", places),
                texts(values.get("known-by"), "known-by", "a list of fields, such as [hardware-address]"),
                texts(values.get("agree"), "agree", "a list of fields, such as [class]"),
                text(values.get("deleting"), "deleting"),
                text(values.get("dated-by"), "dated-by"),
                whole(values.get("line-step"), "line-step")));
    }

    private Integer whole(Node node, String path) {
        Long number = number(node, path);
        // One that is far too large is told as the largest there is.
        return number == null ? null : (int) Math.max(Integer.MIN_VALUE, Math.min(Integer.MAX_VALUE, number));
    }

    private List<KindFieldDraft> kindFields(Node node, String path, Map<String, Integer> places) {
        if (node == null) return null;
        var fields = new ArrayList<KindFieldDraft>();
        for (Node one : list(node, path, "a list of fields")) {
            String here = path + "[" + fields.size() + "]";
            places.put(here, one.getStartMark().getLine() + 1);
            Map<String, Node> values = values(one, DefinitionShape.ofKindField(), here + ".", "a field", places);
            fields.add(new KindFieldDraft(
                    text(values.get("name"), here + ".name"),
                    text(values.get("title"), here + ".title"),
                    text(values.get("type"), here + ".type"),
                    text(values.get("codebook"), here + ".codebook"),
                    text(values.get("within"), here + ".within"),
                    flag(values.get("required"), here + ".required"),
                    flag(values.get("sticky"), here + ".sticky"),
                    text(values.get("name-of"), here + ".name-of"),
                    text(values.get("code-of"), here + ".code-of")));
        }
        return fields;
    }

    private void route(Node node) {
        Map<String, Node> values = open(What.ROUTE, node, DefinitionShape.ofRoute(), "a route");
        routes.add(new RouteDraft(
                text(values.get("kind"), "kind"),
                text(values.get("unit"), "unit"),
                conditions(values.get("when"), lines.get(what).getLast()),
                text(values.get("series"), "series"),
                text(values.get("into"), "into")));
    }

    private Map<String, TestDraft> conditions(Node node, Map<String, Integer> places) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        var tests = new LinkedHashMap<String, TestDraft>();
        if (!(node instanceof MappingNode mapping)) {
            fault(
                    node,
                    current(),
                    "when",
                    "is not written as fields",
                    "write each field with a colon, such as { class: school }");
            return tests;
        }
        for (NodeTuple tuple : mapping.getValue()) {
            String field = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
            String path = "when." + field;
            places.put(path, tuple.getKeyNode().getStartMark().getLine() + 1);
            TestDraft test = test(tuple.getValueNode(), path, places);
            if (tests.putIfAbsent(field, test) != null)
                fault(tuple.getKeyNode(), current(), path, "stands here twice", "keep one");
        }
        return tests;
    }

    private TestDraft test(Node node, String path, Map<String, Integer> places) {
        if (node instanceof SequenceNode) return new TestDraft(texts(node, path, "a list of values"), null, null);
        if (node instanceof ScalarNode)
            return new TestDraft(List.of(Objects.requireNonNullElse(text(node, path), "")), null, null);
        Map<String, Node> ends = values(node, DefinitionShape.ofTest(), path + ".", "a stretch of values", places);
        return new TestDraft(null, text(ends.get("from"), path + ".from"), text(ends.get("to"), path + ".to"));
    }

    private List<ChoiceDraft> choices(Node node, String path, Map<String, Integer> places) {
        if (node == null) return null;
        var choices = new ArrayList<ChoiceDraft>();
        for (Node one : list(node, path, "a list of choices")) {
            String here = path + "[" + choices.size() + "]";
            places.put(here, one.getStartMark().getLine() + 1);
            Map<String, Node> values = values(one, DefinitionShape.ofChoice(), here + ".", "a choice", places);
            choices.add(new ChoiceDraft(
                    text(values.get("name"), here + ".name"),
                    text(values.get("code"), here + ".code"),
                    flag(values.get("retired"), here + ".retired"),
                    choices(values.get("choices"), here + ".choices", places)));
        }
        return choices;
    }

    private void series(Node node) {
        Map<String, Node> values = open(What.SERIES, node, DefinitionShape.ofSeries(), "a series");
        Map<String, Integer> places = lines.get(what).getLast();
        var ranges = new ArrayList<RangeDraft>();
        for (Node one : list(values.get("ranges"), "ranges", "a list of ranges"))
            ranges.add(range(one, "ranges[" + ranges.size() + "]", places));
        var fields = new ArrayList<FieldDraft>();
        for (Node one : list(values.get("fields"), "fields", "a list of fields"))
            fields.add(field(one, "fields[" + fields.size() + "]", places));
        series.add(new SeriesDraft.Builder(text(values.get("key"), "key"), text(values.get("pattern"), "pattern"))
                .title(text(values.get("title"), "title"))
                .namespace(text(values.get("namespace"), "namespace"))
                .locale(text(values.get("locale"), "locale"))
                .fiscalYearStarts(number(values.get("fiscal-year-starts"), "fiscal-year-starts"))
                .fields(values.get("fields") == null ? null : fields)
                .restarts(texts(values.get("restarts"), "restarts", "a list, such as [year]"))
                .skips(values.get("skips") == null ? null : skips(values.get("skips"), places))
                .order(text(values.get("order"), "order"))
                .longest(number(values.get("longest"), "longest"))
                .symbols(text(values.get("symbols"), "symbols"))
                .typed(text(values.get("typed"), "typed"))
                .gaps(text(values.get("gaps"), "gaps"))
                .returns(text(values.get("returns"), "returns"))
                .chronological(flag(values.get("chronological"), "chronological"))
                .proof(text(values.get("proof"), "proof"))
                .ranges(values.get("ranges") == null ? null : ranges)
                .draft());
    }

    private FieldDraft field(Node node, String path, Map<String, Integer> places) {
        places.put(path, node.getStartMark().getLine() + 1);
        Map<String, Node> values = values(node, DefinitionShape.ofField(), path + ".", "a field", places);
        return new FieldDraft(
                text(values.get("name"), path + ".name"),
                text(values.get("codebook"), path + ".codebook"),
                text(values.get("within"), path + ".within"),
                number(values.get("longest"), path + ".longest"),
                text(values.get("symbols"), path + ".symbols"));
    }

    private SkipsDraft skips(Node node, Map<String, Integer> places) {
        Map<String, Node> values = values(node, DefinitionShape.ofSkips(), "skips.", "skips", places);
        return new SkipsDraft(
                texts(values.get("values"), "skips.values", "a list, such as [13, 4000-4999]"),
                texts(values.get("containing"), "skips.containing", "a list, such as [\"13\", \"666\"]"));
    }

    private RangeDraft range(Node node, String path, Map<String, Integer> places) {
        places.put(path, node.getStartMark().getLine() + 1);
        Map<String, Node> values = values(node, DefinitionShape.ofRange(), path + ".", "a range", places);
        return new RangeDraft(
                number(values.get("first"), path + ".first"),
                number(values.get("last"), path + ".last"),
                number(values.get("step"), path + ".step"),
                text(values.get("opens"), path + ".opens"),
                text(values.get("closes"), path + ".closes"),
                number(values.get("warn-when-left"), path + ".warn-when-left"),
                number(values.get("warn-days-before"), path + ".warn-days-before"));
    }

    private record Property(String name, Node value) {}

    private Map<String, Node> values(
            Node node, List<String> known, String prefix, String called, Map<String, Integer> places) {
        var values = new HashMap<String, Node>();
        for (Property property : properties(node, known, current(), prefix, called)) {
            values.put(property.name(), property.value());
            places.put(prefix + property.name(), property.value().getStartMark().getLine() + 1);
        }
        return values;
    }

    private List<Property> properties(Node node, List<String> known, Integer index, String prefix, String called) {
        if (!(node instanceof MappingNode mapping)) {
            fault(
                    node,
                    index,
                    prefix.replaceFirst("\\.$", ""),
                    called + " is not written as properties",
                    "write " + String.join(", ", known) + ", each with a colon");
            return List.of();
        }
        var found = new ArrayList<Property>();
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
                fault(tuple.getKeyNode(), index, prefix + key, "stands here twice", "keep one");
            else found.add(new Property(key, tuple.getValueNode()));
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
        fault(node, current(), path, "is not a single value", "write one value");
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
        if (text == null || text.equals("false")) return null;
        if (text.equals("true")) return true;
        fault(node, current(), path, "‘" + text + "’ is neither true nor false", "write true, or leave it out");
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
