package org.youngtally.service.definitions;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import org.yaml.snakeyaml.DumperOptions.FlowStyle;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;

/**
 * Gives the files of definitions back as they were applied. What has changed since is rewritten property by property; everything
 * else, comments above all, stays as it was written. Series that stand in no file get one of their own.
 */
public final class DefinitionExport {
    /** The file of the series that were defined in the console. */
    public static final String OTHERS = "console.yaml";

    private final Map<String, Series> now = new LinkedHashMap<>();
    private final Set<String> written = new HashSet<>();

    private DefinitionExport(List<Series> series) {
        for (Series each : series) now.put(each.key(), each);
    }

    /** @param kept the kept files, those applied last first: a series that stands in several belongs to the last applied */
    public static List<KeptFile> of(List<KeptFile> kept, List<Series> series) {
        var export = new DefinitionExport(series);
        var files = new TreeMap<String, String>();
        for (KeptFile file : kept) files.put(file.name(), export.brought(file));
        List<Series> others = series.stream().filter(each -> !export.written.contains(each.key())).toList();
        if (!others.isEmpty()) {
            var text = new StringBuilder(files.getOrDefault(OTHERS, "series:\n"));
            for (Series each : others) text.append('\n').append(DefinitionWriter.entry(SeriesDraft.of(each), "    "));
            files.put(OTHERS, text.toString());
        }
        return files.entrySet().stream().map(file -> new KeptFile(file.getKey(), file.getValue())).toList();
    }

    /** A stretch of a text and what is to stand in its place. */
    private record Edit(int from, int to, String text) {}

    private String brought(KeptFile file) {
        var options = new LoaderOptions();
        options.setCodePointLimit(Integer.MAX_VALUE);
        Node root = new Yaml(options).compose(new StringReader(file.text()));
        List<SeriesDraft> drafts = DefinitionFile.read(file.name(), file.text()).drafts();
        var edits = new ArrayList<Edit>();
        int index = 0;
        for (Node entry : entries(root)) edit((MappingNode) entry, drafts.get(index++), file.text(), edits);
        var text = new StringBuilder(file.text());
        edits.sort((a, b) -> Integer.compare(b.from(), a.from()));
        for (Edit edit : edits) text.replace(edit.from(), edit.to(), edit.text());
        return text.toString();
    }

    private static List<Node> entries(Node root) {
        var entries = new ArrayList<Node>();
        for (NodeTuple tuple : ((MappingNode) root).getValue()) entries.addAll(((SequenceNode) tuple.getValueNode()).getValue());
        return entries;
    }

    private void edit(MappingNode entry, SeriesDraft draft, String text, List<Edit> edits) {
        Series current = now.get(draft.key());
        if (current == null || !written.add(draft.key())) {
            remove(entry, text, edits);
            return;
        }
        SeriesDraft before = DraftCheck.of(draft).series().map(SeriesDraft::of).orElse(draft);
        SeriesDraft after = SeriesDraft.of(current);
        if (before.equals(after)) return;
        if (entry.getFlowStyle() == FlowStyle.FLOW) {
            edits.add(new Edit(at(entry.getStartMark(), text), at(entry.getEndMark(), text), DefinitionWriter.inBraces(after)));
            return;
        }
        String indent = " ".repeat(entry.getStartMark().getColumn());
        if (!((ScalarNode) entry.getValue().getFirst().getKeyNode()).getValue().equals("key")) {
            // The hyphen's own line cannot be taken away, so that an entry of another order is written as a whole.
            edits.add(new Edit(at(entry.getStartMark(), text), end(entry, text), DefinitionWriter.entry(after, indent).strip().substring(2)));
            return;
        }
        Map<String, String> was = DefinitionWriter.values(before, indent);
        Map<String, String> becomes = DefinitionWriter.values(after, indent);
        Set<String> standing = new HashSet<>();
        for (NodeTuple tuple : entry.getValue()) {
            String name = ((ScalarNode) tuple.getKeyNode()).getValue();
            standing.add(name);
            if (Objects.equals(was.get(name), becomes.get(name))) continue;
            int from = at(tuple.getKeyNode().getStartMark(), text);
            int to = end(tuple.getValueNode(), text);
            if (becomes.containsKey(name)) edits.add(new Edit(from, to, DefinitionWriter.line(name, becomes.get(name))));
            else if (name.equals("title") || name.equals("namespace")) edits.add(new Edit(from, to, DefinitionWriter.line(name, after.key())));
            else edits.add(new Edit(text.lastIndexOf('\n', from), to, ""));
        }
        var added = new StringBuilder();
        becomes.forEach((name, value) -> {
            if (!standing.contains(name) && !Objects.equals(was.get(name), value)) added.append('\n').append(indent).append(DefinitionWriter.line(name, value));
        });
        int last = end(entry.getValue().getLast().getValueNode(), text);
        if (!added.isEmpty()) append(last, added.toString(), edits);
    }

    /** Text behind a place; where an edit ends there already, it is made longer. */
    private static void append(int at, String added, List<Edit> edits) {
        for (int i = 0; i < edits.size(); i++) {
            if (edits.get(i).to() != at) continue;
            edits.set(i, new Edit(edits.get(i).from(), at, edits.get(i).text() + added));
            return;
        }
        edits.add(new Edit(at, at, added));
    }

    private static void remove(MappingNode entry, String text, List<Edit> edits) {
        int from = text.lastIndexOf('-', at(entry.getStartMark(), text));
        edits.add(new Edit(text.lastIndexOf('\n', from) + 1, Math.min(text.length(), end(entry, text) + 1), ""));
    }

    /** Where a value ends, without the blank lines and comments that the parser counts to a block. */
    private static int end(Node node, String text) {
        if (node instanceof MappingNode mapping && mapping.getFlowStyle() != FlowStyle.FLOW) return end(mapping.getValue().getLast().getValueNode(), text);
        if (node instanceof SequenceNode list && list.getFlowStyle() != FlowStyle.FLOW && !list.getValue().isEmpty()) return end(list.getValue().getLast(), text);
        return at(node.getEndMark(), text);
    }

    /** YAML marks count code points. */
    private static int at(Mark mark, String text) { return text.offsetByCodePoints(0, mark.getIndex()); }
}
