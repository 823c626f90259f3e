package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.List;

/**
 * The lines of a table in which numbers are, in the order of the numbers; lines that follow on each other are kept as
 * one run. Lines count from 1.
 */
public record FileLines(List<Run> runs) {
    public static final FileLines NONE = new FileLines(List.of());

    /** Lines in a row, both included. */
    public record Run(long first, long last) {}

    public FileLines {
        runs = List.copyOf(runs);
    }

    public static FileLines of(long... lines) {
        var runs = new ArrayList<Run>();
        for (long line : lines) {
            if (!runs.isEmpty() && runs.getLast().last() + 1 == line)
                runs.set(runs.size() - 1, new Run(runs.getLast().first(), line));
            else runs.add(new Run(line, line));
        }
        return new FileLines(runs);
    }

    /**
     * The line of one of the numbers.
     *
     * @param index of the number, from 0
     * @return 0 where there is none
     */
    public long lineAt(long index) {
        long left = index;
        for (Run run : runs) {
            long length = run.last() - run.first() + 1;
            if (left < length) return run.first() + left;
            left -= length;
        }
        return 0;
    }

    /** The lines of some of the numbers. */
    public FileLines between(long from, long to) {
        var part = new ArrayList<Run>();
        long at = 0;
        for (Run run : runs) {
            long behind = at + run.last() - run.first() + 1;
            long first = Math.max(from, at);
            long last = Math.min(to, behind - 1);
            if (first <= last) part.add(new Run(run.first() + first - at, run.first() + last - at));
            at = behind;
        }
        return new FileLines(part);
    }

    /** As the journal and the tables keep it: {@code 2-1001,1205}. */
    public String written() {
        var text = new StringBuilder();
        for (Run run : runs) {
            if (!text.isEmpty()) text.append(',');
            text.append(run.first());
            if (run.last() > run.first()) text.append('-').append(run.last());
        }
        return text.toString();
    }

    /** @throws NumberFormatException for a text that was not written so */
    public static FileLines read(String written) {
        var runs = new ArrayList<Run>();
        if (written.isEmpty()) return NONE;
        for (String one : written.split(",")) {
            int dash = one.indexOf('-');
            long first = Long.parseLong(dash < 0 ? one : one.substring(0, dash));
            runs.add(new Run(first, dash < 0 ? first : Long.parseLong(one.substring(dash + 1))));
        }
        return new FileLines(runs);
    }
}
