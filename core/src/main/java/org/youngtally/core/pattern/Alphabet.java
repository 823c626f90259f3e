package org.youngtally.core.pattern;

import java.util.List;
import java.util.OptionalLong;
import java.util.stream.Collectors;
import org.youngtally.core.text.Comparison;

/**
 * The symbols that a count is written in, the lowest first. Two of them never compare alike, whatever their case.
 *
 * @param name the word in patterns; {@code of …} for symbols of one's own
 * @param folded the symbols as they are compared
 */
public record Alphabet(String name, String symbols, String folded) {
    public static final Alphabet DIGITS = new Alphabet("digits", "0123456789");
    /** Of a value in binary. */
    private static final int MOST_PLACES = 64;

    private static final String LETTERS = "ABCDEFGHIJKLMNOPQRSTUVWXYZ";
    private static final List<Alphabet> NAMED = List.of(
            DIGITS,
            new Alphabet("upper", LETTERS),
            new Alphabet("lower", "abcdefghijklmnopqrstuvwxyz"),
            new Alphabet("alphanumeric", DIGITS.symbols + LETTERS),
            new Alphabet("safe", "23456789ABCDEFGHJKMNPQRTUVWXYZ"));

    private Alphabet(String name, String symbols) {
        this(
                name,
                symbols,
                symbols.chars()
                        .mapToObj(c -> Comparison.FIRST.fold(String.valueOf((char) c)))
                        .collect(Collectors.joining()));
    }

    static List<String> names() {
        return NAMED.stream().map(Alphabet::name).toList();
    }

    /** The alphabet of a word, or of {@code of} and its symbols; null where there is none of that name. */
    static Alphabet named(String word) {
        return NAMED.stream()
                .filter(alphabet -> alphabet.name.equals(word))
                .findFirst()
                .orElse(null);
    }

    /**
     * Symbols of one's own.
     *
     * @throws IllegalArgumentException saying what is wrong with them
     */
    static Alphabet of(String symbols) {
        if (symbols.length() < 2) throw new IllegalArgumentException("an alphabet has two symbols at least");
        for (int i = 0; i < symbols.length(); i++) {
            String symbol = symbols.substring(i, i + 1);
            if (Character.isSurrogate(symbols.charAt(i))
                    || Comparison.FIRST.fold(symbol).length() != 1)
                throw new IllegalArgumentException("‘" + symbol + "’ cannot be compared as a single symbol");
            for (int j = 0; j < i; j++)
                if (Comparison.FIRST.fold(symbols.substring(j, j + 1)).equals(Comparison.FIRST.fold(symbol)))
                    throw new IllegalArgumentException(
                            "‘" + symbols.charAt(j) + "’ and ‘" + symbol + "’ count as the same symbol");
        }
        return new Alphabet("of " + symbols, symbols);
    }

    public int size() {
        return symbols.length();
    }

    public boolean isDecimal() {
        return symbols.equals(DIGITS.symbols);
    }

    /**
     * Whether the alphabet has a nought to pad with. Without one an unpadded count goes A … Z, AA … and its least
     * value, 1, is written A.
     */
    public boolean hasNought() {
        return symbols.indexOf('0') >= 0;
    }

    /** Appends a value by places, padded with the lowest symbol. */
    void append(long value, int width, StringBuilder to) {
        int size = symbols.length();
        char[] places = new char[MOST_PLACES];
        int at = MOST_PLACES;
        long rest = value;
        // Division is what takes the time, and is faster on small numbers.
        for (; rest > Integer.MAX_VALUE; rest /= size) places[--at] = symbols.charAt((int) (rest % size));
        int small = (int) rest;
        do {
            int next = small / size;
            places[--at] = symbols.charAt(small - next * size);
            small = next;
        } while (small > 0);
        while (MOST_PLACES - at < width) places[--at] = symbols.charAt(0);
        to.append(places, at, MOST_PLACES - at);
    }

    /** Appends a value as A … Z, AA … are counted: every symbol stands for 1 to the size of the alphabet. */
    void appendWithoutNought(long value, StringBuilder to) {
        int start = to.length();
        for (long rest = value; rest > 0; rest = (rest - 1) / size())
            to.append(symbols.charAt((int) ((rest - 1) % size())));
        reverse(to, start);
    }

    private static void reverse(StringBuilder text, int from) {
        for (int i = from, j = text.length() - 1; i < j; i++, j--) {
            char c = text.charAt(i);
            text.setCharAt(i, text.charAt(j));
            text.setCharAt(j, c);
        }
    }

    /**
     * The value of folded symbols, the lowest standing for {@code lowest}; empty for another symbol or a value past
     * 10^18.
     */
    OptionalLong read(String text, int lowest) {
        long value = 0;
        for (int i = 0; i < text.length(); i++) {
            int symbol = folded.indexOf(text.charAt(i));
            if (symbol < 0 || value > (Part.CountField.LARGEST - symbol - lowest) / size()) return OptionalLong.empty();
            value = value * size() + symbol + lowest;
        }
        return OptionalLong.of(value);
    }
}
