package org.youngtally.service.definitions;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.web.Refusals.SeriesFault;

/** Reads an administrator's YAML file: drafts of series, each property's line, and every fault of the file's shape. */
public final class DefinitionFile {
    private static final int LARGEST = 8 << 20;

    private final String name;
    private final List<SeriesDraft> drafts = new ArrayList<>();
    private final List<Map<String, Integer>> lines = new ArrayList<>();
    private final List<SeriesFault> faults = new ArrayList<>();

    private DefinitionFile(String name) {
        this.name = name;
    }

    /** @param name the file's name, for the messages */
    public static DefinitionFile read(String name, String text) {
        var file = new DefinitionFile(name);
        var options = new LoaderOptions();
        options.setCodePointLimit(LARGEST);
        options.setMaxAliasesForCollections(0);
        try {
            Node root = new Yaml(options).compose(new StringReader(text));
            if (root == null) file.fault(null, null, "", "the file is empty", "write series: and a list of series");
            else file.file(root);
        } catch (MarkedYAMLException e) {
            Integer line = e.getProblemMark() == null ? null : e.getProblemMark().getLine() + 1;
            file.faults.add(new SeriesFault(name, line, null, null, "", "the file is not YAML: " + e.getProblem(), "mend it there" + (line == null ? "" : ", at column " + (e.getProblemMark().getColumn() + 1)), null));
        } catch (YAMLException e) {
            file.faults.add(new SeriesFault(name, null, null, null, "", "the file is not YAML: " + e.getMessage(), "write it in UTF-8, up to " + (LARGEST >> 20) + " MB", null));
        }
        return file;
    }

    public String name() { return name; }

    public List<SeriesDraft> drafts() { return drafts; }

    public List<SeriesFault> faults() { return faults; }

    /** The line of a property of a series, or of what encloses it, from 1. */
    public Integer line(int index, String path) {
        for (String at = path; ; at = at.replaceFirst("[.\\[]?[^.\\[]*$", "")) {
            Integer line = lines.get(index).get(at);
            if (line != null || at.isEmpty()) return line;
        }
    }

    private void file(Node root) {
        for (Property property : properties(root, DefinitionShape.ofFile(), null, "", "the file")) {
            if (!(property.value() instanceof SequenceNode list)) {
                fault(property.value(), null, "series", "is not a list", "write each series behind a hyphen");
                continue;
            }
            for (Node one : list.getValue()) series(one);
        }
    }

    private void series(Node node) {
        var places = new HashMap<String, Integer>();
        places.put("", node.getStartMark().getLine() + 1);
        lines.add(places);
        Map<String, Node> values = values(node, DefinitionShape.ofSeries(), "", "a series", places);
        var ranges = new ArrayList<RangeDraft>();
        boolean hasRanges = values.get("ranges") != null;
        for (Node one : list(values.get("ranges"), "ranges", "a list of ranges")) ranges.add(range(one, "ranges[" + ranges.size() + "]", places));
        List<String> restarts = values.get("restarts") == null ? null : list(values.get("restarts"), "restarts", "a list, such as [year]").stream().map(each -> text(each, "restarts")).toList();
        drafts.add(new SeriesDraft(text(values.get("key"), "key"), text(values.get("title"), "title"), text(values.get("namespace"), "namespace"), text(values.get("pattern"), "pattern"), text(values.get("locale"), "locale"), number(values.get("fiscal-year-starts"), "fiscal-year-starts"), restarts,
                number(values.get("longest"), "longest"), text(values.get("symbols"), "symbols"), text(values.get("typed"), "typed"), hasRanges ? ranges : null));
    }

    private RangeDraft range(Node node, String path, Map<String, Integer> places) {
        places.put(path, node.getStartMark().getLine() + 1);
        Map<String, Node> values = values(node, DefinitionShape.ofRange(), path + ".", "a range", places);
        return new RangeDraft(number(values.get("first"), path + ".first"), number(values.get("last"), path + ".last"), number(values.get("step"), path + ".step"),
                text(values.get("opens"), path + ".opens"), text(values.get("closes"), path + ".closes"), number(values.get("warn-when-left"), path + ".warn-when-left"));
    }

    private record Property(String name, Node value) {}

    private Map<String, Node> values(Node node, List<String> known, String prefix, String what, Map<String, Integer> places) {
        var values = new HashMap<String, Node>();
        for (Property property : properties(node, known, lines.size() - 1, prefix, what)) {
            values.put(property.name(), property.value());
            places.put(prefix + property.name(), property.value().getStartMark().getLine() + 1);
        }
        return values;
    }

    private List<Property> properties(Node node, List<String> known, Integer index, String prefix, String what) {
        if (!(node instanceof MappingNode mapping)) {
            fault(node, index, prefix.replaceFirst("\\.$", ""), what + " is not written as properties", "write " + String.join(", ", known) + ", each with a colon");
            return List.of();
        }
        var found = new ArrayList<Property>();
        for (NodeTuple tuple : mapping.getValue()) {
            String key = tuple.getKeyNode() instanceof ScalarNode scalar ? scalar.getValue() : "?";
            if (!known.contains(key)) fault(tuple.getKeyNode(), index, prefix + key, "is not a property of " + what, NearestName.to(key, known).map(near -> "did you mean " + near + "? ").orElse("") + "known are " + String.join(", ", known));
            else if (found.stream().anyMatch(each -> each.name().equals(key))) fault(tuple.getKeyNode(), index, prefix + key, "stands here twice", "keep one");
            else found.add(new Property(key, tuple.getValueNode()));
        }
        return found;
    }

    private List<Node> list(Node node, String path, String accepted) {
        if (node == null) return List.of();
        if (node instanceof SequenceNode sequence) return sequence.getValue();
        fault(node, lines.size() - 1, path, "is not a list", "write " + accepted);
        return List.of();
    }

    private String text(Node node, String path) {
        if (node == null || node.getTag().equals(Tag.NULL)) return null;
        if (node instanceof ScalarNode scalar) return scalar.getValue();
        fault(node, lines.size() - 1, path, "is not a single value", "write one value");
        return null;
    }

    private Long number(Node node, String path) {
        String text = text(node, path);
        if (text == null) return null;
        if (text.replace("_", "").matches("[+-]?[0-9]{1,18}")) return Long.valueOf(text.replace("_", ""));
        fault(node, lines.size() - 1, path, "‘" + text + "’ is not a whole number of up to 18 digits", "write it in digits, such as 99999");
        return null;
    }

    private void fault(Node node, Integer index, String path, String problem, String accepted) {
        String series = index == null || index >= drafts.size() ? null : drafts.get(index).key();
        faults.add(new SeriesFault(name, node == null ? 1 : node.getStartMark().getLine() + 1, index, series, path, problem, accepted, null));
    }
}
