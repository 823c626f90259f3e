package org.youngtally.core.check;

import java.util.Optional;

/** A published way of computing one or two check symbols from the other symbols of an identifier. */
public sealed interface CheckScheme permits CreditorReference, Damm, HybridSystem, Luhn, PureSystem, Verhoeff, WeightedModulus {

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

    /** Whether the check symbols stand in front of what they check. */
    default boolean inFront() { return false; }

    /** Which slips it lets through, in words. Every scheme here finds a single wrong symbol unless this says otherwise. */
    String misses();

    /**
     * The check symbols of a payload that holds nothing but symbols of {@link #reads}; empty where the scheme has none for it,
     * so that the number is not to be used.
     *
     * @throws IllegalArgumentException where it holds another symbol
     */
    Optional<String> check(CharSequence payload);
}
