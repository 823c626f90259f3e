package org.youngtally.cli;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** What goes to standard output: tables for people, or the service's JSON as it came. */
final class Output {
    @Option(names = "--json", description = "Print the service's answer as JSON.")
    private boolean json;

    @Spec(Spec.Target.MIXEE)
    private CommandSpec spec;

    /**
     * Prints the answer as JSON if that was asked for.
     *
     * @return whether it was
     */
    boolean asJson(Service.Answer answer) {
        if (json) line(answer.text().strip());
        return json;
    }

    /** A count with its thousands grouped, as people read it. */
    static String grouped(long count) {
        return String.format(Locale.ROOT, "%,d", count);
    }

    /** A count with the word for what is counted, in the singular where it is one. */
    static String counted(long count, String one) {
        return grouped(count) + " " + one + (count == 1 ? "" : "s");
    }

    void line(String text) {
        PrintWriter out = spec.commandLine().getOut();
        out.println(text);
        out.flush();
    }

    /** Text as it is, with the ends of its own lines. */
    void text(String text) {
        PrintWriter out = spec.commandLine().getOut();
        out.print(text);
        out.flush();
    }

    /** A message that is not the answer. */
    void note(String text) {
        PrintWriter err = spec.commandLine().getErr();
        err.println(text);
        err.flush();
    }

    /** Columns as wide as their widest value; those whose heading begins with > stand to the right. */
    void table(List<String> headings, List<List<String>> rows) {
        var widths = new ArrayList<Integer>();
        for (int c = 0; c < headings.size(); c++) {
            int column = c;
            int heading = headings.get(c).replace(">", "").length();
            widths.add(Math.max(
                    heading,
                    rows.stream()
                            .mapToInt(row -> row.get(column).length())
                            .max()
                            .orElse(0)));
        }
        line(row(headings.stream().map(heading -> heading.replace(">", "")).toList(), headings, widths));
        for (List<String> row : rows) line(row(row, headings, widths));
    }

    private static String row(List<String> values, List<String> headings, List<Integer> widths) {
        var text = new StringBuilder();
        for (int c = 0; c < values.size(); c++) {
            String padding = " ".repeat(widths.get(c) - values.get(c).length());
            text.append(headings.get(c).startsWith(">") ? padding + values.get(c) : values.get(c) + padding)
                    .append("  ");
        }
        return text.toString().stripTrailing();
    }
}
