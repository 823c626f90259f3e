package org.youngtally.core.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A text with its check symbols, as somebody typed or scanned it, put to a scheme. White space, hyphens, dots and
 * strokes are passed over; small letters count as capitals.
 *
 * @param expected the check symbols that would be right for the rest; absent where the scheme has none for it
 * @param given those that stand there
 */
public record Checked(CheckScheme scheme, String text, Optional<String> expected, String given) {
    /** More symbols than any identifier has; every repair of a longer text would take long to try. */
    private static final int MOST_SYMBOLS = 200;

    private static final String SEPARATORS = " -./\t";

    /** A slip that would explain a wrong text. */
    public enum TypingError {
        WRONG_SYMBOL,
        SWAP
    }

    /**
     * A text that is right and one slip away.
     *
     * @param at the place of the slip in the text as compared, from 1
     */
    public record Repair(TypingError slip, int at, String text) {}

    /** @throws IllegalArgumentException where the text is too short or holds a symbol that the scheme cannot read */
    public static Checked of(CheckScheme scheme, String typed) {
        String text = plain(typed);
        Parts parts = split(scheme, text);
        return new Checked(scheme, text, scheme.check(parts.payload()), parts.check());
    }

    /**
     * A text without check symbols, and what it is with them; empty where the scheme has none for it.
     *
     * @throws IllegalArgumentException where it is empty or holds a symbol that the scheme cannot read
     */
    public static Optional<String> add(CheckScheme scheme, String typed) {
        String text = plain(typed);
        if (text.isEmpty()) throw new IllegalArgumentException("the text is empty");
        if (scheme instanceof CreditorReference) CreditorReference.mustBeOne(text);
        String payload = text;
        return scheme.check(payload).map(check -> scheme.inFront() ? "RF" + check + payload : payload + check);
    }

    public boolean right() {
        Parts parts = split(scheme, text);
        return scheme.isRight(parts.payload(), parts.check());
    }

    /**
     * Every text one wrong symbol or one swap of neighbours away that is right; none for a text that is right itself.
     */
    public List<Repair> repairs() {
        if (right()) return List.of();
        Map<String, Repair> found = new LinkedHashMap<>();
        for (int i = 0; i + 1 < text.length(); i++) {
            char[] swapped = text.toCharArray();
            swapped[i] = text.charAt(i + 1);
            swapped[i + 1] = text.charAt(i);
            keep(TypingError.SWAP, i, new String(swapped), found);
        }
        String symbols = scheme.reads()
                + (scheme.writes().length() > scheme.reads().length()
                        ? scheme.writes().substring(scheme.reads().length())
                        : "");
        for (int i = 0; i < text.length(); i++) {
            for (char symbol : symbols.toCharArray()) {
                char[] changed = text.toCharArray();
                changed[i] = symbol;
                keep(TypingError.WRONG_SYMBOL, i, new String(changed), found);
            }
        }
        return new ArrayList<>(found.values());
    }

    private void keep(TypingError slip, int at, String candidate, Map<String, Repair> found) {
        if (candidate.equals(text) || found.containsKey(candidate) || !readable(candidate)) return;
        if (of(scheme, candidate).right()) found.put(candidate, new Repair(slip, at + 1, candidate));
    }

    private boolean readable(String candidate) {
        if (scheme instanceof CreditorReference && !candidate.startsWith("RF")) return false;
        int checkFrom = scheme.inFront() ? 2 : candidate.length() - scheme.length();
        for (int i = scheme.inFront() ? 2 : 0; i < candidate.length(); i++) {
            String allowed = i >= checkFrom && i < checkFrom + scheme.length() ? scheme.writes() : scheme.reads();
            if (allowed.indexOf(candidate.charAt(i)) < 0) return false;
        }
        return true;
    }

    private record Parts(String payload, String check) {}

    private static Parts split(CheckScheme scheme, String text) {
        int front = scheme instanceof CreditorReference ? 2 : 0;
        if (front > 0 && !text.isEmpty() && !text.startsWith("RF"))
            throw new IllegalArgumentException("a creditor reference starts with RF");
        if (text.isEmpty()) throw new IllegalArgumentException("the text is empty");
        if (text.length() <= front + scheme.length())
            throw new IllegalArgumentException(
                    "‘" + text + "’ is too short: " + (front + scheme.length() + 1) + " symbols at least");
        if (scheme instanceof CreditorReference && text.length() > CreditorReference.LONGEST)
            throw new IllegalArgumentException("‘" + text + "’ has " + text.length()
                    + " symbols, and a creditor reference has " + CreditorReference.LONGEST + " at most");
        int at = scheme.inFront() ? front : text.length() - scheme.length();
        return new Parts(
                text.substring(front, at) + text.substring(at + scheme.length()),
                text.substring(at, at + scheme.length()));
    }

    private static String plain(String typed) {
        var kept = new StringBuilder(typed.length());
        for (int i = 0; i < typed.length(); i++)
            if (SEPARATORS.indexOf(typed.charAt(i)) < 0) kept.append(typed.charAt(i));
        if (kept.length() > MOST_SYMBOLS)
            throw new IllegalArgumentException(
                    "the text has " + kept.length() + " symbols; " + MOST_SYMBOLS + " are read at most");
        // Only the letters from a to z: others that look like one, such as a long s, are no symbols of a scheme.
        for (int i = 0; i < kept.length(); i++)
            if (kept.charAt(i) >= 'a' && kept.charAt(i) <= 'z') kept.setCharAt(i, (char) (kept.charAt(i) - 'a' + 'A'));
        return kept.toString();
    }
}
