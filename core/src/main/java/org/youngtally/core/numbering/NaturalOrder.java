package org.youngtally.core.numbering;

import java.util.Comparator;

/**
 * Texts in the order in which people list them: digits in a row are compared as the number that they write, all else
 * symbol by symbol without regard to case. Texts that differ only in case or in leading zeros are told apart at last,
 * so that no two texts are equal but the same.
 */
public final class NaturalOrder implements Comparator<String> {
    public static final NaturalOrder INSTANCE = new NaturalOrder();

    private NaturalOrder() {}

    @Override
    public int compare(String one, String other) {
        int i = 0;
        int j = 0;
        while (i < one.length() && j < other.length()) {
            int a = one.codePointAt(i);
            int b = other.codePointAt(j);
            if (isDigit(a) && isDigit(b)) {
                int oneEnd = endOfDigits(one, i);
                int otherEnd = endOfDigits(other, j);
                int compared = compareDigits(one.substring(i, oneEnd), other.substring(j, otherEnd));
                if (compared != 0) return compared;
                i = oneEnd;
                j = otherEnd;
                continue;
            }
            int compared = Integer.compare(folded(a), folded(b));
            if (compared != 0) return compared;
            i += Character.charCount(a);
            j += Character.charCount(b);
        }
        boolean oneLonger = i < one.length();
        boolean otherLonger = j < other.length();
        if (oneLonger != otherLonger) return oneLonger ? 1 : -1;
        return one.compareTo(other);
    }

    private static boolean isDigit(int symbol) {
        return symbol >= '0' && symbol <= '9';
    }

    private static int endOfDigits(String text, int from) {
        int end = from;
        while (end < text.length() && isDigit(text.charAt(end))) end++;
        return end;
    }

    /** Numbers of any length: the longer one without its leading zeros is greater. */
    private static int compareDigits(String one, String other) {
        String a = withoutZeros(one);
        String b = withoutZeros(other);
        return a.length() != b.length() ? Integer.compare(a.length(), b.length()) : a.compareTo(b);
    }

    private static String withoutZeros(String digits) {
        int at = 0;
        while (at < digits.length() - 1 && digits.charAt(at) == '0') at++;
        return digits.substring(at);
    }

    private static int folded(int symbol) {
        return Character.toLowerCase(Character.toUpperCase(symbol));
    }
}
