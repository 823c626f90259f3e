package org.youngtally.core.inspection;

import it.unimi.dsi.fastutil.longs.LongOpenHashSet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.inspection.Inspection.Duplicate;
import org.youngtally.core.inspection.Inspection.Duplicates;

/**
 * Finds numbers that occur more than once, in two passes and bounded memory: in the first one the table is looked
 * through for fingerprints of 64 bits that come again, in the second the texts behind them are compared.
 */
final class DuplicateSearch {
    private static final int MOST_LISTED = 1_000;
    private static final int MOST_LINES = 20;
    private static final int LONGEST_KEPT = 200;
    /** The multiplier and start of FNV-1a for 64 bits (Fowler, Noll, Vo). */
    private static final long PRIME = 0x100000001b3L;

    private static final long START = 0xcbf29ce484222325L;

    private final LongOpenHashSet seen = new LongOpenHashSet();
    private final LongOpenHashSet twice = new LongOpenHashSet();
    private final Map<String, Group> groups = new LinkedHashMap<>();
    private long beyondListed;

    /** The rows of one number. */
    private static final class Group {
        private final String text;
        private final List<String> first;
        private final List<Long> lines = new ArrayList<>(2);
        private final Set<Integer> differing = new LinkedHashSet<>();
        private long rows;

        Group(String text, List<String> first) {
            this.text = text;
            this.first = first;
        }
    }

    void first(String key) {
        long mark = fingerprint(key);
        if (!seen.add(mark)) twice.add(mark);
    }

    private static long fingerprint(String key) {
        long mark = START;
        for (int i = 0; i < key.length(); i++) mark = (mark ^ key.charAt(i)) * PRIME;
        // The low bits of FNV are the weak ones.
        return mark ^ mark >>> 32;
    }

    boolean anyTwice() {
        // What is no longer needed in the second pass makes room for it.
        seen.clear();
        seen.trim();
        return !twice.isEmpty();
    }

    void second(String key, String text, int column, long line, List<String> cells) {
        if (!twice.contains(fingerprint(key))) return;
        Group group = groups.get(key);
        if (group == null) {
            if (groups.size() >= MOST_LISTED) {
                beyondListed++;
                return;
            }
            group = new Group(text, cells.stream().map(DuplicateSearch::kept).toList());
            groups.put(key, group);
        }
        group.rows++;
        if (group.lines.size() < MOST_LINES) group.lines.add(line);
        for (int i = 0; i < Math.max(cells.size(), group.first.size()); i++)
            if (i != column && !cell(group.first, i).equals(kept(cell(cells, i)))) group.differing.add(i);
    }

    private static String cell(List<String> cells, int at) {
        return at < cells.size() ? cells.get(at) : "";
    }

    private static String kept(String cell) {
        return cell.length() > LONGEST_KEPT ? cell.substring(0, LONGEST_KEPT) : cell;
    }

    Duplicates found(List<String> columns) {
        List<Group> real =
                groups.values().stream().filter(group -> group.rows > 1).toList();
        long unreal = groups.size() - real.size();
        return new Duplicates(
                twice.size() - (unreal + 1) / 2,
                real.stream().mapToLong(group -> group.rows).sum() + beyondListed,
                real.stream().map(group -> duplicate(group, columns)).toList());
    }

    private static Duplicate duplicate(Group group, List<String> columns) {
        var differing = new LinkedHashSet<String>();
        group.differing.stream()
                .sorted()
                .forEach(at -> differing.add(at < columns.size() ? columns.get(at) : "column " + (at + 1)));
        return new Duplicate(group.text, group.rows, List.copyOf(group.lines), differing);
    }
}
