package org.youngtally.service.definitions;

import java.util.List;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.youngtally.core.fault.Fault;

/** What a parser of YAML objects to, in the words of somebody who wrote a file of definitions. */
final class YamlFault {
    static final String QUOTES = "put the text in quotes, such as pattern: \"LW{date yy}-{count 5}\"";

    private YamlFault() {}

    /** @param text the whole file */
    static Fault of(MarkedYAMLException e, String text) {
        Mark mark = e.getProblemMark();
        String problem = String.valueOf(e.getProblem());
        if (mark == null) return new Fault("", "the file is not YAML: " + problem, "correct it");
        List<String> lines = text.lines().toList();
        // Where the parser stopped, or the line before, which it read as going on.
        String line = mark.getLine() < lines.size() ? lines.get(mark.getLine()) : "";
        String before = mark.getLine() > 0 && mark.getLine() <= lines.size() ? lines.get(mark.getLine() - 1) : "";
        String at = ", at column " + (mark.getColumn() + 1);
        if (problem.contains("TAB") || line.startsWith("\t"))
            return new Fault("", "the line is indented with a tab", "indent with blanks" + at);
        if (hasBareBrace(line) || hasBareBrace(before))
            return new Fault("", "a text with braces is not in quotes, so YAML reads the braces as properties", QUOTES);
        if (problem.contains("mapping values are not allowed"))
            return new Fault(
                    "",
                    "the line is indented further than the one before it, or has a second colon",
                    "align it with the other properties of the same definition, or put a text with a colon in quotes"
                            + at);
        if (problem.contains("<block end>") || problem.contains("could not find expected ':'"))
            return new Fault(
                    "",
                    "the indentation does not match the lines before it, or a colon is missing",
                    "align it with the other properties of the same definition" + at);
        return new Fault("", "the file is not YAML: " + problem, "correct it there" + at);
    }

    /** Whether a value holds a brace as patterns have it, and no quotes around it. */
    private static boolean hasBareBrace(String line) {
        return line.replaceAll("\"[^\"]*\"|'[^']*'", "")
                .matches(".*\\{ *(count|date|fiscal|fiscal-end|field|unit|check)\\b[^:}]*}.*");
    }
}
