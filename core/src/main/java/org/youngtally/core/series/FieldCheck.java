package org.youngtally.core.series;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;
import org.youngtally.core.text.SymbolSet;

/** Checks what a series takes for the fields of the record: their shape, and that the codebooks have what they name. */
final class FieldCheck {
    private static final int MOST_FIELDS = 12;

    private final List<Fault> faults = new ArrayList<>();

    private FieldCheck() {}

    record Result(List<FieldRule> rules, List<Fault> faults) {}

    /** The shape alone. */
    static Result of(List<FieldDraft> drafts, Optional<Pattern> pattern) {
        var check = new FieldCheck();
        List<FieldRule> rules = check.rules(drafts == null ? List.of() : drafts);
        pattern.ifPresent(known -> check.named(known, rules, drafts != null && drafts.size() > rules.size()));
        return new Result(rules, check.faults);
    }

    private List<FieldRule> rules(List<FieldDraft> drafts) {
        if (drafts.size() > MOST_FIELDS) fault("fields", "are " + drafts.size(), "define at most " + MOST_FIELDS);
        var rules = new ArrayList<FieldRule>();
        for (int i = 0; i < drafts.size(); i++) rule("fields[" + i + "].", drafts.get(i), rules);
        return rules;
    }

    private void rule(String prefix, FieldDraft draft, List<FieldRule> rules) {
        int before = faults.size();
        if (draft.name() == null || draft.name().isEmpty())
            fault(prefix + "name", "is missing", "add the name that the pattern uses, such as group");
        else if (!draft.name().matches(Particulars.FIELD_NAME))
            fault(
                    prefix + "name",
                    "‘" + draft.name() + "’ is not the name of a field",
                    "use 1 to 32 small letters, digits and hyphens, a letter first");
        if (rules.stream().anyMatch(rule -> rule.name().equals(draft.name())))
            fault(prefix + "name", "‘" + draft.name() + "’ occurs twice", "define each field once");
        boolean units = Boolean.TRUE.equals(draft.units());
        boolean chosen = draft.codebook() != null || draft.within() != null || units;
        if (units && !Particulars.UNIT.equals(draft.name()))
            fault(prefix + "units", "is for the field unit only", "name the field unit, or remove units");
        if (units && (draft.codebook() != null || draft.within() != null))
            fault(prefix + "units", "cannot be combined with codebook or within", "keep one of them");
        if (draft.codebook() != null && draft.within() != null)
            fault(
                    prefix + "within",
                    "cannot be combined with codebook",
                    "keep one: a field within another uses the codebook of that one");
        if (draft.codebook() != null && draft.codebook().isBlank())
            fault(prefix + "codebook", "is not chosen", "name the codebook with its choices");
        else if (draft.codebook() != null)
            DefinitionName.fault(prefix + "codebook", draft.codebook()).ifPresent(faults::add);
        if (draft.within() != null && draft.within().isBlank())
            fault(prefix + "within", "is not chosen", "name the field above whose choice narrows this one");
        else if (draft.within() != null
                && rules.stream().noneMatch(rule -> rule.name().equals(draft.within()) && !rule.isText()))
            fault(
                    prefix + "within",
                    "‘" + draft.within() + "’ is not an earlier field with a codebook",
                    "name such a field, or add a codebook to this one");
        if (chosen && draft.longest() != null)
            fault(prefix + "longest", "a field with a codebook is as long as its codes", "remove it");
        if (chosen && draft.symbols() != null)
            fault(prefix + "symbols", "a field with a codebook has the symbols of its codes", "remove it");
        long longest = draft.longest() == null ? FieldRule.USUAL_LONGEST : draft.longest();
        if (longest < 1 || longest > FieldRule.LONGEST)
            fault(
                    prefix + "longest",
                    longest + " is not a length",
                    "write a number of symbols from 1 to " + FieldRule.LONGEST);
        SymbolSet symbols = draft.symbols() == null || draft.symbols().isBlank()
                ? FieldRule.USUAL_SYMBOLS
                : new SymbolSet(draft.symbols());
        for (String word : symbols.each())
            if (!isUsable(word))
                fault(prefix + "symbols", "‘" + word + "’ is not a kind of symbols", SymbolSet.ACCEPTED);
        if (faults.size() == before)
            rules.add(new FieldRule(
                    draft.name(),
                    units ? Optional.of(FieldRule.UNITS) : Optional.ofNullable(draft.codebook()),
                    Optional.ofNullable(draft.within()),
                    chosen ? 0 : (int) longest,
                    chosen ? SymbolSet.ANY : symbols));
    }

    private static boolean isUsable(String word) {
        if (!SymbolSet.isKind(word)) return false;
        char symbol = word.charAt(0);
        return word.length() > 1
                || !(Character.isISOControl(symbol)
                        || Character.isSurrogate(symbol)
                        || Character.getType(symbol) == Character.NON_SPACING_MARK
                        || Character.getType(symbol) == Character.FORMAT
                        || Comparison.FIRST.fold(word).length() != 1);
    }

    private void named(Pattern pattern, List<FieldRule> rules, boolean someLost) {
        List<String> names = rules.stream().map(FieldRule::name).toList();
        var told = new HashSet<String>();
        for (TextField field : pattern.textFields()) {
            if (names.contains(field.name()) || someLost || !told.add(field.name())) continue;
            String unit = field.name().equals(Particulars.UNIT)
                    ? ", such as { name: unit, units: true }"
                    : ", such as { name: " + field.name() + ", codebook: " + field.name()
                            + " } for choices, or { name: " + field.name() + ", longest: 10 } for a text";
            fault("fields", field.shown() + " occurs in the pattern, and is not defined", "add a line" + unit);
        }
    }

    /** What the codebooks lack, for a series that is right in itself. */
    static List<Fault> books(Fields fields) {
        var check = new FieldCheck();
        List<FieldRule> rules = fields.series().fields();
        for (int i = 0; i < rules.size(); i++) {
            FieldRule rule = rules.get(i);
            String prefix = "fields[" + i + "].";
            if (rule.codebook().isPresent()
                    && !fields.books().containsKey(rule.codebook().get()))
                check.fault(
                        prefix + "codebook",
                        "codebook ‘" + rule.codebook().get() + "’ not found",
                        NearestName.to(rule.codebook().get(), fields.books().keySet())
                                        .map(near -> "did you mean " + near + "? ")
                                        .orElse("")
                                + "define it under codebooks: in the same files, or before");
        }
        if (!check.faults.isEmpty()) return check.faults;
        for (int i = 0; i < rules.size(); i++)
            if (!rules.get(i).isText()) check.codes(fields, rules.get(i), "fields[" + i + "].");
        if (check.faults.isEmpty()) {
            if (fields.combinations().size() > Fields.MOST_COMBINATIONS)
                check.fault(
                        "fields",
                        "have more than " + Fields.MOST_COMBINATIONS + " combinations of codes",
                        "use smaller codebooks, or fewer of them");
        }
        return check.faults;
    }

    private void codes(Fields fields, FieldRule rule, String prefix) {
        List<String> codes = fields.codes(rule);
        Map<String, String> told = new HashMap<>();
        for (String code : codes) {
            String twin = told.putIfAbsent(fields.series().comparison().key(code), code);
            // Choices beneath different ones may have codes that are alike anyway.
            if (twin != null && !Comparison.OF_NAMES.alike(twin, code))
                fault(
                        prefix + "codebook",
                        "the codes ‘" + twin + "’ and ‘" + code + "’ are one as the namespace compares them",
                        "change the code of one of the two choices");
        }
        if (codes.isEmpty())
            fault(
                    prefix + "within",
                    "no choices are defined within those of ‘" + rule.within().orElseThrow() + "’",
                    "add choices within them to the codebook");
        for (TextField field : fields.series().pattern().textFields()) {
            if (!field.name().equals(rule.name())) continue;
            codes.stream()
                    .filter(code -> field.written(code).isEmpty())
                    .findFirst()
                    .ifPresent(code -> fault(
                            "pattern",
                            "nothing is left of the code ‘" + code + "’ in " + field.shown(),
                            "use another code, or shorten it less"));
        }
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }
}
