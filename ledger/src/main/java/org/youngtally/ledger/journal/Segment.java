package org.youngtally.ledger.journal;

import java.util.List;

/**
 * The names of the files that a journal is cut into: the sequence number of the first entry, so that names sort as
 * entries do.
 */
final class Segment {
    private Segment() {}

    static String name(long firstSeq) {
        return "%018d.jsonl".formatted(firstSeq);
    }

    static boolean is(String name) {
        return name.matches("[0-9]{18}\\.jsonl");
    }

    static long firstSeq(String name) {
        return Long.parseLong(name.substring(0, 18));
    }

    static List<String> sorted(List<String> names) {
        return names.stream().filter(Segment::is).sorted().toList();
    }
}
