package org.youngtally.core.inspection;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;

/** How often each of some texts occurs; beyond so many different ones the rest is counted together. */
final class Tally {
    /** What all others are counted as. */
    static final String OTHERS = "…";

    private static final int MOST = 200;

    private final Map<String, Long> counts = new TreeMap<>();
    private long others;

    void add(String text) {
        if (counts.size() < MOST || counts.containsKey(text)) counts.merge(text, 1L, Long::sum);
        else others++;
    }

    Map<String, Long> counts() {
        var all = new LinkedHashMap<>(counts);
        if (others > 0) all.put(OTHERS, others);
        return all;
    }
}
