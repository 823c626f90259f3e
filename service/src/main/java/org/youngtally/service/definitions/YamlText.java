package org.youngtally.service.definitions;

import java.io.StringReader;
import java.util.Optional;
import java.util.stream.Stream;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import org.yaml.snakeyaml.nodes.MappingNode;
import org.yaml.snakeyaml.nodes.Node;
import org.yaml.snakeyaml.nodes.ScalarNode;
import org.yaml.snakeyaml.nodes.SequenceNode;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.text.HalfSymbols;

/**
 * A text of YAML as nodes that know their lines, or what is wrong with it as a whole.
 *
 * @param root absent where there is a fault
 * @param line of the fault, from 1; null for none that can be named
 */
public record YamlText(Optional<Node> root, Integer line, Optional<Fault> fault) {
    private static final int LARGEST = 8 << 20;
    private static final int DEEPEST = 40;

    private static YamlText faulty(Integer line, String problem, String accepted) {
        return new YamlText(Optional.empty(), line, Optional.of(new Fault("", problem, accepted)));
    }

    /** @param wanted what to write into an empty file */
    public static YamlText read(String text, String wanted) {
        var options = new LoaderOptions();
        options.setCodePointLimit(LARGEST);
        options.setMaxAliasesForCollections(0);
        options.setNestingDepthLimit(DEEPEST);
        Optional<LongLine> longLine = LongLine.in(text);
        if (longLine.isPresent())
            return faulty(
                    longLine.get().number(),
                    "the line has %,d symbols".formatted(longLine.get().length()),
                    "break it: at most %,d are read".formatted(LongLine.LONGEST));
        try {
            Node root = new Yaml(options).compose(new StringReader(text));
            if (root == null) return faulty(1, "the file is empty", wanted);
            return halfSymbol(root)
                    .map(half -> faulty(
                            half.getStartMark().getLine() + 1, "a text holds half a symbol", "write whole symbols"))
                    .orElseGet(() -> new YamlText(Optional.of(root), null, Optional.empty()));
        } catch (MarkedYAMLException e) {
            Integer line =
                    e.getProblemMark() == null ? null : e.getProblemMark().getLine() + 1;
            return new YamlText(Optional.empty(), line, Optional.of(YamlFault.of(e, text)));
        } catch (YAMLException e) {
            return faulty(
                    null,
                    "the file is not YAML: " + e.getMessage(),
                    "write it in UTF-8, up to " + (LARGEST >> 20) + " MB");
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
}
