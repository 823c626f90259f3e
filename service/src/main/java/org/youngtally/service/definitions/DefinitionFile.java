package org.youngtally.service.definitions;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.yaml.snakeyaml.nodes.Tag;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;

/**
 * Reads an administrator's YAML file: drafts of definitions, each property's line, and every fault of the file's shape.
 */
public final class DefinitionFile {
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
        var yaml = YamlText.read(text, "write series: and a list of series");
        yaml.fault()
                .ifPresent(fault -> file.faults.add(
                        file.fault(yaml.line(), null, null, null, "", fault.problem(), fault.accepted())));
        yaml.root().ifPresent(file::file);
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
        return PropertyReader.line(lines.get(kind).get(index), path);
    }

    private void file(Node root) {
        List<String> known =
                DefinitionSort.ALL.stream().map(DefinitionSort::list).toList();
        var reader = new PropertyReader(
                new HashMap<>(), (at, path, problem, accepted) -> fault(at, null, path, problem, accepted));
        for (PropertyReader.Written written : reader.properties(root, known, "", "the file")) {
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
        lines.get(what).add(places);
        var reader = new PropertyReader(
                places, (at, path, problem, accepted) -> fault(at, current(), path, problem, accepted));
        drafts.get(sort).add(reader.read(sort.group(), node));
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
