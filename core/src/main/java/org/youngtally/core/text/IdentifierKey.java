package org.youngtally.core.text;

import java.text.Normalizer;
import java.util.Locale;

/**
 * The form in which two identifiers are compared inside a namespace: Unicode NFC, without white space at the ends, case
 * folded. Two texts with the same key are the same identifier.
 */
public final class IdentifierKey {
    private IdentifierKey() {}

    /** The key of a text; any text has one, the empty text included. */
    public static String of(String text) {
        if (isPlain(text)) return text;
        return fold(Normalizer.normalize(text, Normalizer.Form.NFC).strip());
    }

    /**
     * Folds the case of a part of an identifier without trimming it, so that parts can be compared before they are
     * joined.
     */
    public static String fold(String part) {
        // Up and then down again: one way alone keeps apart letters such as long s and s, or the two small sigmas.
        return part.toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT);
    }

    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c <= ' ' || c > '~' || (c >= 'A' && c <= 'Z')) return false;
        }
        return true;
    }
}
