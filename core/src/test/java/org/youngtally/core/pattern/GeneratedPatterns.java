package org.youngtally.core.pattern;

import java.util.List;
import java.util.Random;

/** Patterns of all sorts, drawn at random; their fields are f and the unit. */
public final class GeneratedPatterns {
    /** What records give for the field f. */
    public static final List<String> TEXTS = List.of("Ørsted", "a", "Zürich West", "b-17", "LARK");

    private static final String[] FRONTS = {
        "",
        "A",
        "{date yy}",
        "x{date yyyyMM}-",
        "{date d}",
        "7",
        "{date d}.{date M}.",
        "{fiscal yy}{date MMM}",
        "RF{check iso11649}",
        "{field f}",
        "{unit lower}-",
        "{field f unaccented first 2 upper pad 3 X}"
    };
    private static final String[] ALPHABETS = {
        "", "", " upper", " lower", " alphanumeric", " safe", " of 10", " grow", " safe grow"
    };
    private static final String[] BACKS = {
        "", "-z", "{date yy}", "/{date w}", "9", "{check luhn36 of count}", "{field f initials}", "-{unit}"
    };

    private GeneratedPatterns() {}

    public static String next(Random random) {
        int width = random.nextInt(6);
        String alphabet = ALPHABETS[random.nextInt(ALPHABETS.length)];
        return FRONTS[random.nextInt(FRONTS.length)]
                + "{count"
                + (width == 0 ? alphabet.replace(" grow", "") : " " + width + alphabet)
                + "}"
                + BACKS[random.nextInt(BACKS.length)];
    }
}
