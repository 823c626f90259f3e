package org.youngtally.core.codebook;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.commons.lang3.StringUtils;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.text.Comparison;

/** What may change in a codebook that exists: choices are added and retired; a code stands for one thing for ever. */
public final class CodebookChange {
    private final List<Fault> faults = new ArrayList<>();

    private CodebookChange() {}

    /**
     * @param book the changed codebook with its new version, or the old one where nothing differs; absent if there are
     *     faults
     */
    public record Result(Optional<Codebook> book, List<Fault> faults) {}

    public static Result of(Codebook from, Codebook to) {
        var change = new CodebookChange();
        change.compare("", from.choices(), to.choices());
        if (!change.faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(change.faults));
        Codebook same = to.withVersion(from.version());
        return new Result(Optional.of(same.equals(from) ? from : to.withVersion(from.version() + 1)), List.of());
    }

    private void compare(String prefix, List<Choice> from, List<Choice> to) {
        for (Choice earlier : from) {
            int at = 0;
            while (at < to.size()
                    && !Comparison.OF_NAMES.key(to.get(at).code()).equals(Comparison.OF_NAMES.key(earlier.code())))
                at++;
            if (at == to.size()) {
                fault(
                        prefix + "choices",
                        "the code ‘" + earlier.code() + "’ of " + earlier.name() + " is gone",
                        "keep it, with retired: true if it is no longer to be chosen");
                continue;
            }
            Choice now = to.get(at);
            String path = prefix + "choices[" + at + "].";
            if (!now.code().equals(earlier.code()))
                fault(
                        path + "code",
                        "was ‘" + earlier.code() + "’ before",
                        "keep it as it was written, or add another choice");
            if (!letters(now.name()).equals(letters(earlier.name())))
                fault(
                        path + "name",
                        "the code ‘" + earlier.code() + "’ already belongs to " + earlier.name(),
                        "keep the name (its case, accents and signs may change), or use another code for "
                                + now.name());
            compare(path, earlier.choices(), now.choices());
        }
    }

    private static String letters(String name) {
        return StringUtils.stripAccents(Normalizer.normalize(name, Normalizer.Form.NFC))
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^\\p{L}\\p{N}]", "");
    }

    private void fault(String path, String problem, String accepted) {
        faults.add(new Fault(path, problem, accepted));
    }
}
