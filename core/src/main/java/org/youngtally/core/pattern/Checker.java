package org.youngtally.core.pattern;

import org.youngtally.core.check.CheckScheme;
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

    /**
     * Appends the check symbols of a stretch of text; what the scheme cannot read is passed over.
     *
     * @param scratch has room for every symbol of the stretch
     */
    void append(StringBuilder text, int from, int end, byte[] scratch, StringBuilder to) {
        int count = 0;
        for (int at = from; at < end; at++) {
            char symbol = text.charAt(at);
            byte value = symbol < ASCII ? values[symbol] : -1;
            if (value >= 0) scratch[count++] = value;
        }
        int check = scheme.check(scratch, count);
        if (check < 0) throw new IllegalStateException("a pattern has only schemes with a check for every number");
        if (two) to.append(writes[check / writes.length]);
        to.append(writes[two ? check % writes.length : check]);
    }
}
