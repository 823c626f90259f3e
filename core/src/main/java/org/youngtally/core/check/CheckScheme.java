package org.youngtally.core.check;

import java.util.Optional;

/** A published way of computing one or two check symbols from the other symbols of an identifier. */
public sealed interface CheckScheme
        permits CreditorReference, Damm, HybridSystem, Luhn, PureSystem, Verhoeff, WeightedModulus {

    /** The name in patterns and commands, e.g. {@code mod97-10}. */
    String name();

    /** What it is and where it is published, in a line. */
    String title();

    /** The symbols that it reads, in the order of their values from 0. Letters are upper case. */
    String reads();

    /** The symbols that the check symbols are written in. */
    String writes();

    /** How many check symbols it gives. */
    int length();

    /** Whether the check symbols are in front of what they check. */
    default boolean inFront() {
        return false;
    }

    /**
     * Which slips it lets through, in words. Every scheme here finds a single wrong symbol unless this says otherwise.
     */
    String misses();

    /**
     * The check of some symbols, as a number: where there is one check symbol its place in {@link #writes}, where there
     * are two their places as the places of a number. -1 where the scheme has none for them, so that the number is not
     * to be used.
     *
     * @param values the values of the symbols, in order
     * @param count how many of them there are
     */
    int check(byte[] values, int count);

    /** The value of a symbol among those that are read, small letters as capitals; -1 for any other. */
    default int valueOf(char symbol) {
        return Symbols.value(symbol, reads());
    }

    /**
     * The check symbols of a payload that holds nothing but symbols of {@link #reads}; empty where the scheme has none
     * for it.
     *
     * @throws IllegalArgumentException where it holds another symbol
     */
    default Optional<String> check(CharSequence payload) {
        byte[] values = values(payload);
        int check = check(values, values.length);
        if (check < 0) return Optional.empty();
        String writes = writes();
        String last = String.valueOf(writes.charAt(check % writes.length()));
        return Optional.of(length() == 2 ? writes.charAt(check / writes.length()) + last : last);
    }

    /**
     * Whether check symbols are right for a payload.
     *
     * @throws IllegalArgumentException where the payload holds a symbol that is not read
     */
    default boolean isRight(CharSequence payload, String given) {
        return check(payload).filter(given::equals).isPresent();
    }

    /**
     * The values of the symbols of a payload.
     *
     * @throws IllegalArgumentException where it holds a symbol that is not read
     */
    default byte[] values(CharSequence payload) {
        byte[] values = new byte[payload.length()];
        for (int i = 0; i < values.length; i++) {
            int value = valueOf(payload.charAt(i));
            if (value < 0)
                throw new IllegalArgumentException(
                        "‘" + payload.charAt(i) + "’ cannot be read; only " + reads() + " can");
            values[i] = (byte) value;
        }
        return values;
    }
}
