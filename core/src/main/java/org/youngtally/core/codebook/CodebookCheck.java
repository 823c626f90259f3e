package org.youngtally.core.codebook;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.text.Comparison;

/** Turns what somebody wrote into a codebook, collecting every fault instead of stopping at the first. */
public final class CodebookCheck {
    private static final int LONGEST_NAME = 100;
    private static final int LONGEST_CODE = 20;
    private static final int MOST_CHOICES = 5_000;
    private static final int DEEPEST = 8;

    private final List<Fault> faults = new ArrayList<>();
    private int total;

    private CodebookCheck() {}

    /** @param book the codebook in version 1, if there are no faults */
    public record Result(Optional<Codebook> book, List<Fault> faults) {}

    public static Result of(CodebookDraft draft) {
        return new CodebookCheck().check(draft);
    }

    private Result check(CodebookDraft draft) {
        DefinitionName.fault("key", draft.key()).ifPresent(faults::add);
        String title = draft.title() == null || draft.title().isBlank()
                ? draft.key()
                : draft.title().strip();
        faults.addAll(CodebookDraft.PROPERTIES.faults("", draft));
        if (draft.choices() == null || draft.choices().isEmpty())
            faults.add(new Fault("choices", "are missing", "add at least one, such as { name: Wind-chest, code: WC }"));
        List<Choice> choices = choices("", draft.choices(), 1);
        if (total > MOST_CHOICES)
            faults.add(new Fault("choices", "are " + total + " in all", "define at most " + MOST_CHOICES));
        if (!faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        return new Result(Optional.of(new Codebook(draft.key(), title, choices, 1)), List.of());
    }

    private List<Choice> choices(String prefix, List<ChoiceDraft> drafts, int depth) {
        if (drafts == null) return List.of();
        if (depth > DEEPEST) {
            faults.add(new Fault(
                    prefix + "choices", "are " + depth + " levels deep", "use at most " + DEEPEST + " levels"));
            return List.of();
        }
        var choices = new ArrayList<Choice>();
        Map<String, String> taken = new HashMap<>();
        for (int i = 0; i < drafts.size(); i++) {
            ChoiceDraft draft = drafts.get(i);
            String path = prefix + "choices[" + i + "].";
            total++;
            String name = draft.name() == null
                    ? ""
                    : Normalizer.normalize(draft.name().strip(), Normalizer.Form.NFC);
            String code = draft.code() == null ? "" : draft.code();
            if (name.isEmpty() || name.length() > LONGEST_NAME || name.chars().anyMatch(Character::isISOControl))
                faults.add(new Fault(
                        path + "name",
                        name.isEmpty()
                                ? "is missing"
                                : "is not a name on one line of up to " + LONGEST_NAME + " symbols",
                        "add the full name, such as Wind-chest"));
            if (!isCode(code))
                faults.add(new Fault(
                        path + "code",
                        code.isEmpty() ? "is missing" : "‘" + code + "’ is not a code",
                        "enter 1 to " + LONGEST_CODE + " letters, digits or signs without white space, such as WC"));
            twin(path + "name", name, taken);
            if (!Comparison.OF_NAMES.key(name).equals(Comparison.OF_NAMES.key(code))) twin(path + "code", code, taken);
            choices.add(new Choice(
                    name, code, Boolean.TRUE.equals(draft.retired()), choices(path, draft.choices(), depth + 1)));
        }
        return choices;
    }

    /** Side by side no text may stand for two choices, whether it is the name of one or the code of the other. */
    private void twin(String path, String text, Map<String, String> taken) {
        if (text.isEmpty()) return;
        String other = taken.putIfAbsent(Comparison.OF_NAMES.key(text), path);
        if (other != null)
            faults.add(new Fault(
                    path,
                    "‘" + text + "’ already belongs to another choice of the same level, at " + other,
                    "use a different name and code for each choice; codes are never used again"));
    }

    private static boolean isCode(String code) {
        if (code.isEmpty() || code.length() > LONGEST_CODE || !Normalizer.isNormalized(code, Normalizer.Form.NFC))
            return false;
        for (char symbol : code.toCharArray())
            if (Character.isWhitespace(symbol)
                    || Character.isISOControl(symbol)
                    || Character.isSurrogate(symbol)
                    || Character.getType(symbol) == Character.NON_SPACING_MARK
                    || Character.getType(symbol) == Character.FORMAT
                    || Comparison.OF_NAMES.fold(String.valueOf(symbol)).length() != 1) return false;
        return true;
    }
}
