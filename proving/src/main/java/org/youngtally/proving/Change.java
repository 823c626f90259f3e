package org.youngtally.proving;

import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What is otherwise than at an earlier commit: of each file the lines of then that were changed or stood next to what
 * was put in, from 1. Read from {@code git diff -U0 --no-renames}.
 *
 * @param lines by the file's path; none for a file that was not there
 */
record Change(SortedMap<String, SortedSet<Integer>> lines) {
    private static final Pattern HUNK = Pattern.compile("@@ -([0-9]+)(?:,([0-9]+))? .*");
    private static final String BEFORE = "--- a/";
    private static final String AFTER = "+++ b/";

    static Change read(List<String> diff, List<String> added) {
        var lines = new TreeMap<String, SortedSet<Integer>>();
        for (String file : added) lines.put(file, new TreeSet<>());
        SortedSet<Integer> file = new TreeSet<>();
        Optional<String> before = Optional.empty();
        for (String line : diff) {
            Matcher hunk = HUNK.matcher(line);
            if (line.startsWith("--- ")) before = named(line, BEFORE);
            else if (line.startsWith("+++ "))
                file = lines.computeIfAbsent(
                        before.or(() -> named(line, AFTER)).orElseThrow(), path -> new TreeSet<>());
            else if (hunk.matches()) {
                int first = Integer.parseInt(hunk.group(1));
                int count = hunk.group(2) == null ? 1 : Integer.parseInt(hunk.group(2));
                // What is put in stands behind a line, and before the next.
                for (int i = 0; i < Math.max(count, 2); i++) file.add(first + i);
            }
        }
        return new Change(lines);
    }

    private static Optional<String> named(String line, String prefix) {
        return line.startsWith(prefix) ? Optional.of(line.substring(prefix.length())) : Optional.empty();
    }
}
