package org.youngtally.core.pattern;

/** Writing non-negative numbers in decimal digits. */
final class Digits {
    private Digits() {}

    /** Appends the value, padded with zeros to the width; a wider value is written in full. */
    static void append(long value, int width, StringBuilder to) {
        int digits = 1;
        for (long rest = value; rest >= 10; rest /= 10) digits++;
        for (int i = digits; i < width; i++) to.append('0');
        to.append(value);
    }
}
