package org.youngtally.ledger.journal;

import java.io.IOException;
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

    /** What the name of a file ends with that is compressed. */
    static final String PACKED = ".gz";

    static JournalBroken notUnpacked(String segment, IOException why, Head proved) {
        return new JournalBroken(
                "segment " + segment + PACKED + " cannot be unpacked behind entry " + proved.seq() + " ("
                        + why.getMessage() + ")",
                wayOut(segment + PACKED, proved),
                proved);
    }

    /** @param file that has what is damaged */
    static String wayOut(String file, Head proved) {
        return "Restore " + file + " from a copy that was made after entry " + (proved.seq() + 1);
    }

    static boolean is(String name) {
        return name.matches("[0-9]{18}\\.jsonl");
    }

    /** What a file is called as long as it is not compressed. */
    static String unpackedName(String name) {
        return name.endsWith(PACKED) && is(name.substring(0, name.length() - PACKED.length()))
                ? name.substring(0, name.length() - PACKED.length())
                : name;
    }

    static long firstSeq(String name) {
        return Long.parseLong(name.substring(0, 18));
    }

    static List<String> sorted(List<String> names) {
        return names.stream().filter(Segment::is).sorted().toList();
    }
}
