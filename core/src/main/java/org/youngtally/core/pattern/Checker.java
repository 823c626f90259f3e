package org.youngtally.core.pattern;

import java.util.Arrays;
import java.util.Optional;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.WeightedModulus;
import org.youngtally.core.pattern.Part.CheckField;

/** A check field ready to be written often: what its scheme says of its symbols is looked up once. */
final class Checker {
    private static final int ASCII = 128;

    private final CheckScheme scheme;
    private final boolean ofCount;
    private final byte[] values = new byte[ASCII];
    private final char[] writes;
    private final boolean two;

    Checker(CheckField field) {
        this.scheme = field.scheme();
        this.ofCount = field.ofCount();
        this.writes = scheme.writes().toCharArray();
        this.two = scheme.length() == 2;
        for (char symbol = 0; symbol < ASCII; symbol++) values[symbol] = (byte) scheme.valueOf(symbol);
    }

    int length() {
        return two ? 2 : 1;
    }

    boolean ofCount() {
        return ofCount;
    }

    boolean inFront() {
        return scheme.inFront();
    }

    /** What the scheme makes of the symbols of a text; those that it cannot read are passed over. */
    byte[] values(String text) {
        byte[] read = new byte[text.length()];
        int count = 0;
        for (int at = 0; at < text.length(); at++) {
            byte value = value(text.charAt(at));
            if (value >= 0) read[count++] = value;
        }
        return Arrays.copyOf(read, count);
    }

    private byte value(char symbol) {
        return symbol < ASCII ? values[symbol] : -1;
    }

    /** The scheme, where its check is that of a weighted sum. */
    Optional<WeightedModulus> weighted() {
        return scheme instanceof WeightedModulus modulus ? Optional.of(modulus) : Optional.empty();
    }

    /**
     * Writes check symbols into a text of ASCII.
     *
     * @param check as the scheme says it
     */
    void write(int check, byte[] text, int at) {
        if (two) text[at] = (byte) writes[check / writes.length];
        text[two ? at + 1 : at] = (byte) writes[two ? check % writes.length : check];
    }

    /** The check of values, as the scheme says it. */
    int check(byte[] read, int count) {
        int check = scheme.check(read, count);
        if (check < 0) throw new IllegalStateException("a pattern has only schemes with a check for every number");
        return check;
    }

    /**
     * Appends the check symbols of a stretch of text; what the scheme cannot read is passed over.
     *
     * @param scratch has room for every symbol of the stretch
     */
    void append(StringBuilder text, int from, int end, byte[] scratch, StringBuilder to) {
        int count = 0;
        for (int at = from; at < end; at++) {
            byte value = value(text.charAt(at));
            if (value >= 0) scratch[count++] = value;
        }
        int check = check(scratch, count);
        if (two) to.append(writes[check / writes.length]);
        to.append(writes[two ? check % writes.length : check]);
    }
}
