package org.youngtally.core.text;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The rule by which two identifiers are one. Under every rule a text is compared as its key: Unicode NFC, without white
 * space at the ends, case folded. A namespace keeps the rule that it began with until it is proved that nothing in it
 * becomes alike under another.
 */
public enum Comparison {
    /** The capital sharp s is a letter of its own, while the small one counts as two s. */
    FIRST(1),
    /** The capital sharp s counts as the small one. */
    SECOND(2);

    public static final Comparison NEWEST = SECOND;
    /** For the names of choices, units and records, which are in no namespace. */
    public static final Comparison OF_NAMES = FIRST;

    private static final char CAPITAL_SHARP_S = '\u1E9E';
    private static final char SHARP_S = '\u00DF';

    private final int number;

    Comparison(int number) {
        this.number = number;
    }

    /** By which definitions and the journal know it. */
    public int number() {
        return number;
    }

    public static Optional<Comparison> of(int number) {
        return Arrays.stream(values()).filter(rule -> rule.number == number).findFirst();
    }

    /** The key of a text; any text has one, the empty text included. */
    public String key(String text) {
        if (isPlain(text)) return text;
        return fold(Normalizer.normalize(text, Normalizer.Form.NFC).strip());
    }

    /** The keys that a text has under one rule or another. */
    public static Set<String> keys(String text) {
        return Arrays.stream(values()).map(rule -> rule.key(text)).collect(Collectors.toCollection(LinkedHashSet::new));
    }

    /** Whether two texts are one identifier. */
    public boolean alike(String one, String other) {
        return key(one).equals(key(other));
    }

    /**
     * Folds the case of a part of an identifier without trimming it, so that parts can be compared before they are
     * joined.
     */
    public String fold(String part) {
        String told = this == FIRST ? part : part.replace(CAPITAL_SHARP_S, SHARP_S);
        // Up and then down again: one way alone keeps apart letters such as long s and s, or the two small sigmas.
        return told.toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT);
    }

    /** Whether a text may have another key under another rule. */
    public static boolean matters(String text) {
        return text.indexOf(CAPITAL_SHARP_S) >= 0;
    }

    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c <= ' ' || c > '~' || (c >= 'A' && c <= 'Z')) return false;
        }
        return true;
    }
}
