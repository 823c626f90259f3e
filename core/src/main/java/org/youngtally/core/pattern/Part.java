package org.youngtally.core.pattern;

import java.util.OptionalLong;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.text.IdentifierKey;

/** One piece of a pattern: text that stands as it is, or a field that is filled in. */
public sealed interface Part {

    /** Text that appears in every identifier as written, braces already unescaped. */
    record Literal(String text) implements Part {}

    /** The business date, written in a date format. */
    record DateField(DateFormat format) implements Part {}

    /**
     * The running value.
     *
     * @param width symbols to which the value is padded, 1 to {@value #MAX_WIDTH}, which is also the most it may take unless it
     *     grows; 0 for no padding and no limit of its own
     * @param grows whether a value wider than the width is written in full
     */
    record CountField(int width, Alphabet alphabet, boolean grows) implements Part {
        public static final int MAX_WIDTH = 18;
        /** Values stay below 10^18, so that sums over them fit a signed 64-bit integer. */
        static final long LARGEST = 999_999_999_999_999_999L;

        /** The largest value this field can write. */
        public long largest() {
            if (width == 0 || grows) return LARGEST;
            long values = 1;
            for (int i = 0; i < width; i++) {
                if (values > LARGEST / alphabet.size()) return LARGEST;
                values *= alphabet.size();
            }
            return Math.min(LARGEST, values - 1);
        }

        /** The least value this field can write: 1 where letters are counted A … Z, AA …, or else 0. */
        public long least() { return countsWithoutNought() ? 1 : 0; }

        /** Whether it counts A … Z, AA …: unpadded, in an alphabet that has no nought. */
        public boolean countsWithoutNought() { return width == 0 && !alphabet.hasNought(); }

        /** Whether it is written in decimal digits, of a fixed width or without padding. */
        public boolean isPlain() { return alphabet.isDecimal() && !grows; }

        void append(long value, StringBuilder to) {
            if (alphabet.isDecimal()) Digits.append(value, width, to);
            else if (countsWithoutNought()) alphabet.appendWithoutNought(value, to);
            else alphabet.append(value, width, to);
        }

        /** A value as it is written. */
        public String written(long value) {
            var to = new StringBuilder();
            append(value, to);
            return to.toString();
        }

        /** A value as it is written, in the symbols that are compared. */
        public String folded(long value) { return IdentifierKey.fold(written(value)); }

        /** The value that is written so, its symbols folded; empty where none is. */
        public OptionalLong read(String folded) {
            int length = folded.length();
            boolean rightWidth = width == 0 ? length > 0 : grows ? length >= width : length == width;
            if (!rightWidth) return OptionalLong.empty();
            if (countsWithoutNought()) return alphabet.read(folded, 1);
            boolean padded = length > Math.max(width, 1) && folded.charAt(0) == alphabet.folded().charAt(0);
            return padded ? OptionalLong.empty() : alphabet.read(folded, 0);
        }
    }

    /**
     * Check symbols, over what stands before them (behind them, for a scheme whose check stands in front) or over the count
     * alone. Symbols that the scheme cannot read are passed over; small letters count as capitals.
     */
    record CheckField(CheckScheme scheme, boolean ofCount) implements Part {}
}
