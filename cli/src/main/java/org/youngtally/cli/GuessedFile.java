package org.youngtally.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.guess.Proposal;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Range;

/**
 * A definition that was guessed, as a file to edit and apply; what else would explain the numbers is in its comments.
 */
final class GuessedFile {
    private final String key;
    private final String title;
    private final StringBuilder text = new StringBuilder();

    /** @param key of the series */
    GuessedFile(String key, String title) {
        this.key = key;
        this.title = title;
    }

    /** @param proposals the best first; one at least */
    String of(List<Proposal> proposals) {
        Proposal best = proposals.getFirst();
        line("# Guessed from examples: check it before you apply it.");
        line("# Reads " + share(best) + leftOver(best));
        best.fields()
                .forEach((field, column) ->
                        line("# The field " + field + " is filled from the column ‘" + column + "’."));
        for (Proposal other : proposals.subList(1, proposals.size())) {
            line("# " + (other.apart().isEmpty() ? "Also possible: " : "As good: ")
                    + other.series().pattern() + restarts(other, ", restarting with ") + ", reads " + share(other));
            if (!other.apart().isEmpty()) line("#   " + other.apart());
        }
        series(best);
        if (!best.books().isEmpty()) {
            line("codebooks:");
            best.books().values().forEach(this::codebook);
        }
        return text.toString();
    }

    private void line(String line) {
        text.append(line).append('\n');
    }

    private static String share(Proposal proposal) {
        return Output.grouped(proposal.read()) + " of " + Output.counted(proposal.numbers(), "different number") + ".";
    }

    private static String leftOver(Proposal proposal) {
        if (proposal.leftOver().isEmpty()) return "";
        long more = proposal.numbers() - proposal.read() - proposal.leftOver().size();
        return " Not read: lines "
                + proposal.leftOver().stream().map(Output::grouped).collect(Collectors.joining(", "))
                + (more > 0 ? " and " + Output.grouped(more) + " more" : "") + ".";
    }

    private static String restarts(Proposal proposal, String before) {
        return proposal.series().restarts().isNever()
                ? ""
                : before + String.join(", ", proposal.series().restarts().words());
    }

    private void series(Proposal best) {
        line("series:");
        line("  - key: " + key);
        line("    title: " + quoted(title));
        line("    pattern: " + quoted(best.series().pattern().toString()));
        String restarts = restarts(best, "");
        if (!restarts.isEmpty()) line("    restarts: [" + restarts + "]");
        if (!best.series().fields().isEmpty()) {
            line("    fields:");
            best.series().fields().forEach(rule -> line("      - " + field(rule)));
        }
        line("    ranges:");
        for (Range range : best.series().ranges())
            line("      - { first: " + range.first() + ", last: " + range.last()
                    + (range.step() == 1 ? "" : ", step: " + range.step()) + ", opens: "
                    + range.serves().opens() + " }");
    }

    private static String field(FieldRule rule) {
        var parts = new ArrayList<String>();
        parts.add("name: " + rule.name());
        rule.codebook().ifPresent(book -> parts.add("codebook: " + book));
        if (rule.isText()) {
            parts.add("longest: " + rule.longest());
            parts.add("symbols: " + quoted(rule.symbols().words()));
        }
        return "{ " + String.join(", ", parts) + " }";
    }

    private void codebook(Codebook book) {
        line("  - key: " + book.key());
        line("    choices:");
        for (Choice choice : book.choices())
            line("      - { name: " + quoted(choice.name()) + ", code: " + quoted(choice.code()) + " }");
    }

    private static String quoted(String text) {
        return "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }
}
