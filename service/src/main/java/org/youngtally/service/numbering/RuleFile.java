package org.youngtally.service.numbering;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.numbering.DocumentName;
import org.youngtally.core.numbering.Rule;
import org.youngtally.core.numbering.RuleCheck;
import org.youngtally.core.numbering.RuleDraft;
import org.youngtally.core.numbering.Writing;
import org.youngtally.documents.NumberedFile.Between;
import org.youngtally.documents.NumberedFile.Mark;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.service.definitions.PropertyReader;
import org.youngtally.service.definitions.YamlText;
import org.youngtally.service.web.Refusals.DefinitionFault;

/** A rule for documents as a file of YAML: what it says, and what is wrong with it, each at its line. */
public final class RuleFile {
    /** What the file is called where it came without a name. */
    private static final String NAME = "rule";

    private final Map<String, Integer> lines = new HashMap<>();
    private final List<DefinitionFault> faults = new ArrayList<>();
    private Optional<RuleDraft> draft = Optional.empty();
    private Optional<Rule> rule = Optional.empty();

    private RuleFile() {}

    public static RuleFile read(String text) {
        var file = new RuleFile();
        YamlText yaml = YamlText.read(text, "write pattern: and a pattern");
        yaml.fault().ifPresent(fault -> file.fault(yaml.line(), fault));
        yaml.root().ifPresent(root -> {
            var reader = new PropertyReader(
                    file.lines,
                    (node, path, problem, accepted) ->
                            file.fault(node.getStartMark().getLine() + 1, new Fault(path, problem, accepted)));
            RuleDraft read = reader.read(RuleDraft.PROPERTIES, root);
            if (!file.faults.isEmpty()) return;
            RuleCheck check = RuleCheck.of(read);
            check.faults().forEach(fault -> file.fault(PropertyReader.line(file.lines, fault.path()), fault));
            file.draft = Optional.of(read);
            file.rule = check.rule();
        });
        return file;
    }

    private void fault(Integer line, Fault fault) {
        faults.add(located(line, fault));
    }

    private static DefinitionFault located(Integer line, Fault fault) {
        return new DefinitionFault(NAME, line, null, null, null, fault.path(), fault.problem(), fault.accepted(), null);
    }

    /** A fault of the rule for a document, at its line. */
    public DefinitionFault located(Fault fault) {
        return located(PropertyReader.line(lines, fault.path()), fault);
    }

    public List<DefinitionFault> faults() {
        return List.copyOf(faults);
    }

    /** Absent where there are faults. */
    public Optional<Rule> rule() {
        return rule;
    }

    /** The series that its numbers come from; absent where the document counts itself, or routes lead to series. */
    public Optional<String> series() {
        return draft.map(RuleDraft::series);
    }

    /** The kind whose routes lead to series. */
    public Optional<String> kind() {
        return draft.map(RuleDraft::kind);
    }

    /** The unit whose routes they are. */
    public Optional<String> unit() {
        return draft.map(RuleDraft::unit);
    }

    /**
     * What the document is called in the ledger; absent where it counts itself.
     *
     * @param file the name of the first file
     */
    public Optional<String> document(Map<String, String> values, String file) throws DocumentName.Faulty {
        if (rule.isEmpty() || draft.isEmpty() || draft.get().document() == null) return Optional.empty();
        return Optional.of(DocumentName.of(draft.get().document(), values, file));
    }

    /** The name of the numbered files. */
    public Optional<Writing> fileName() {
        return draft.map(RuleDraft::fileName).map(Writing::text);
    }

    /** What is written beside the number, by the properties that it is written into. */
    public Map<String, Writing> also() {
        var also = new LinkedHashMap<String, Writing>();
        if (rule.isPresent()) list(RuleDraft::also).forEach(each -> also.put(each.into(), Writing.text(each.write())));
        return also;
    }

    private <T> List<T> list(Function<RuleDraft, List<T>> of) {
        return draft.map(of).orElse(List.of());
    }

    /** What every item has; values that are said when the rule is used come first. */
    public Map<String, String> values(Map<String, String> said) {
        var values = new TreeMap<String, String>();
        if (rule.isEmpty()) return values;
        list(RuleDraft::values).forEach(each -> values.put(each.name(), each.value()));
        values.putAll(said);
        values.values().removeIf(String::isEmpty);
        return values;
    }

    /** How the items of the files are found; in the usual way where the rule says nothing that can be read. */
    public Reading reading(Map<String, String> said, Optional<List<Map<String, String>>> rows) {
        if (draft.isEmpty()) return Reading.USUAL;
        RuleDraft known = draft.get();
        return new Reading(
                Optional.ofNullable(known.into()),
                Optional.ofNullable(known.path()),
                Optional.ofNullable(known.identity()),
                Optional.ofNullable(known.between())
                        .filter(marks -> rule.isPresent())
                        .map(marks -> new Between(marks.getFirst(), marks.getLast())),
                rule.isEmpty()
                        ? List.of()
                        : list(RuleDraft::marks).stream()
                                .map(mark -> new Mark(
                                        mark.text(),
                                        Optional.ofNullable(mark.replacedBy()),
                                        Optional.ofNullable(mark.begins())))
                                .toList(),
                values(said),
                rows);
    }
}
