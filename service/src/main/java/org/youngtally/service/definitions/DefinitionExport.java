package org.youngtally.service.definitions;

import java.io.StringReader;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import org.yaml.snakeyaml.DumperOptions.FlowStyle;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.NodeTuple;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.codebook.CodebookCheck;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.service.definitions.DefinitionWriter.Written;

/**
 * Gives the files of definitions back as they were applied. What has changed since is rewritten property by property;
 * everything else, comments above all, stays as it was written. Definitions that are in no file get one of their own.
 */
public final class DefinitionExport {
    /** The file of what was defined in the console. */
    public static final String OTHERS = "console.yaml";

    /** Definitions as they stand now, by the list they belong to and their key. */
    private final Map<String, Map<String, Written>> now = new LinkedHashMap<>();
    /** What is written, by list and key. */
    private final Set<List<String>> written = new HashSet<>();

    private final UnaryOperator<RouteDraft> normal;

    private DefinitionExport(Drafts current, UnaryOperator<RouteDraft> normal) {
        this.normal = normal;
        for (DefinitionSort<?> sort : DefinitionSort.ALL) now.put(sort.list(), written(sort, current));
    }

    private static <D> Map<String, Written> written(DefinitionSort<D> sort, Drafts drafts) {
        var written = new LinkedHashMap<String, Written>();
        for (D each : sort.of().apply(drafts)) written.put(sort.key().apply(each), DefinitionWriter.of(sort, each));
        return written;
    }

    /**
     * @param kept the kept files, those applied last first: what is in several belongs to the last applied
     * @param current everything that is defined, as it would be written
     * @param normal writes a route as {@code current} has it, whatever names its condition gives to choices
     */
    public static List<KeptFile> of(List<KeptFile> kept, Drafts current, UnaryOperator<RouteDraft> normal) {
        var export = new DefinitionExport(current, normal);
        var files = new TreeMap<String, String>();
        for (KeptFile file : kept) files.put(file.name(), export.brought(file));
        String others = export.others();
        if (!others.isEmpty()) {
            String name = OTHERS;
            // A file of that name with comments and lists of its own is left as it is.
            while (files.containsKey(name)) name = "more-" + name;
            files.put(name, others);
        }
        return files.entrySet().stream()
                .map(file -> new KeptFile(file.getKey(), file.getValue()))
                .toList();
    }

    private String others() {
        var text = new StringBuilder();
        now.forEach((list, definitions) -> {
            List<Written> others = definitions.values().stream()
                    .filter(each -> !written.contains(List.of(list, each.key())))
                    .toList();
            if (others.isEmpty()) return;
            text.append(text.isEmpty() ? "" : "\n").append(list).append(":\n");
            for (Written each : others) text.append('\n').append(each.entry("    "));
        });
        return text.toString();
    }

    /** A stretch of a text and what is to be in its place. */
    private record Edit(int from, int to, String text) {}

    private String brought(KeptFile file) {
        var options = new LoaderOptions();
        options.setCodePointLimit(Integer.MAX_VALUE);
        Node root = new Yaml(options).compose(new StringReader(file.text()));
        Drafts drafts = DefinitionFile.read(file.name(), file.text()).drafts();
        Map<String, Iterator<Written>> then = Map.of(
                DefinitionSort.NAMESPACES.list(),
                then(
                        DefinitionSort.NAMESPACES,
                        drafts,
                        draft -> draft.faults().isEmpty() ? NamespaceDraft.of(draft.checked()) : draft),
                DefinitionSort.CODEBOOKS.list(),
                then(DefinitionSort.CODEBOOKS, drafts, draft -> CodebookCheck.of(draft)
                        .book()
                        .map(CodebookDraft::of)
                        .orElse(draft)),
                DefinitionSort.SERIES.list(),
                then(DefinitionSort.SERIES, drafts, draft -> DraftCheck.of(draft)
                        .series()
                        .map(SeriesDraft::of)
                        .orElse(draft)),
                DefinitionSort.UNITS.list(),
                then(
                        DefinitionSort.UNITS,
                        drafts,
                        draft -> draft.faults().isEmpty() ? UnitDraft.of(draft.checked(Optional.empty())) : draft),
                DefinitionSort.KINDS.list(),
                then(DefinitionSort.KINDS, drafts, KindDraft::plain),
                DefinitionSort.ROUTES.list(),
                then(DefinitionSort.ROUTES, drafts, normal),
                DefinitionSort.LAYOUTS.list(),
                then(DefinitionSort.LAYOUTS, drafts, UnaryOperator.identity()));
        var edits = new ArrayList<Edit>();
        for (NodeTuple tuple : ((MappingNode) root).getValue()) {
            String list = ((ScalarNode) tuple.getKeyNode()).getValue();
            if (tuple.getValueNode() instanceof SequenceNode entries)
                for (Node entry : entries.getValue())
                    edit(list, (MappingNode) entry, then.get(list).next(), file.text(), edits);
        }
        var text = new StringBuilder(file.text());
        edits.sort((a, b) -> Integer.compare(b.from(), a.from()));
        for (Edit edit : edits) text.replace(edit.from(), edit.to(), edit.text());
        return text.toString();
    }

    private static <D> Iterator<Written> then(DefinitionSort<D> sort, Drafts drafts, UnaryOperator<D> normal) {
        return sort.of().apply(drafts).stream()
                .map(draft -> DefinitionWriter.of(sort, normal.apply(draft)))
                .iterator();
    }

    private void edit(String list, MappingNode entry, Written before, String text, List<Edit> edits) {
        Written after = now.get(list).get(before.key());
        if (after == null || !written.add(List.of(list, before.key()))) {
            remove(entry, text, edits);
            return;
        }
        if (before.inBraces().equals(after.inBraces())) return;
        if (entry.getFlowStyle() == FlowStyle.FLOW) {
            edits.add(new Edit(at(entry.getStartMark(), text), at(entry.getEndMark(), text), after.inBraces()));
            return;
        }
        String indent = " ".repeat(entry.getStartMark().getColumn());
        if (!((ScalarNode) entry.getValue().getFirst().getKeyNode()).getValue().equals("key")) {
            // The hyphen's own line cannot be taken away, so that an entry of another order is written as a whole.
            edits.add(new Edit(
                    at(entry.getStartMark(), text),
                    end(entry, text),
                    after.entry(indent).strip().substring(2)));
            return;
        }
        Map<String, String> was = lines(before, indent);
        Map<String, String> becomes = lines(after, indent);
        Set<String> standing = new HashSet<>();
        for (NodeTuple tuple : entry.getValue()) {
            String name = ((ScalarNode) tuple.getKeyNode()).getValue();
            standing.add(name);
            if (Objects.equals(was.get(name), becomes.get(name))) continue;
            int from = at(tuple.getKeyNode().getStartMark(), text);
            int to = end(tuple.getValueNode(), text);
            if (becomes.containsKey(name)) edits.add(new Edit(from, to, becomes.get(name)));
            else if (name.equals("title") || name.equals("namespace"))
                edits.add(new Edit(from, to, name + ": " + after.key()));
            else edits.add(new Edit(text.lastIndexOf('\n', from), to, ""));
        }
        var added = new StringBuilder();
        becomes.forEach((name, value) -> {
            if (!standing.contains(name) && !Objects.equals(was.get(name), value))
                added.append('\n').append(indent).append(value);
        });
        int last = end(entry.getValue().getLast().getValueNode(), text);
        if (!added.isEmpty()) append(last, added.toString(), edits);
    }

    private static Map<String, String> lines(Written definition, String indent) {
        var lines = new LinkedHashMap<String, String>();
        definition.values().forEach((name, value) -> lines.put(name, DefinitionWriter.line(name, value, indent)));
        return lines;
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
        if (node instanceof MappingNode mapping && mapping.getFlowStyle() != FlowStyle.FLOW)
            return end(mapping.getValue().getLast().getValueNode(), text);
        if (node instanceof SequenceNode list
                && list.getFlowStyle() != FlowStyle.FLOW
                && !list.getValue().isEmpty()) return end(list.getValue().getLast(), text);
        return at(node.getEndMark(), text);
    }

    /** YAML marks count code points. */
    private static int at(Mark mark, String text) {
        return text.offsetByCodePoints(0, mark.getIndex());
    }
}
