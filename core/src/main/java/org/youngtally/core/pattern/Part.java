package org.youngtally.core.pattern;

import java.util.List;
import java.util.OptionalLong;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.text.Comparison;

/** One piece of a pattern: text that stands as it is, or a field that is filled in. */
public sealed interface Part {

    /** Text that appears in every identifier as written, braces already unescaped. */
    record Literal(String text) implements Part {}

    /** The business date, written in a date format. */
    record DateField(DateFormat format) implements Part {}

    /**
     * The running value.
     *
     * @param width symbols to which the value is padded, 1 to {@value #MAX_WIDTH}, which is also the most it may take
     *     unless it grows; 0 for no padding and no limit of its own
     * @param grows whether a value wider than the width is written in full
     */
    record CountField(int width, Alphabet alphabet, boolean grows) implements Part {
        public static final int MAX_WIDTH = 18;
        /** Values stay below 10^18, so that sums over them fit a signed 64-bit integer. */
        public static final long LARGEST = 999_999_999_999_999_999L;

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
        public long least() {
            return countsWithoutNought() ? 1 : 0;
        }

        /** Whether it counts A … Z, AA …: unpadded, in an alphabet that has no nought. */
        public boolean countsWithoutNought() {
            return width == 0 && !alphabet.hasNought();
        }

        /** Whether it is written in decimal digits, of a fixed width or without padding. */
        public boolean isPlain() {
            return alphabet.isDecimal() && !grows;
        }

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
        public String folded(long value) {
            return Comparison.FIRST.fold(written(value));
        }

        /** The value that is written so, its symbols folded; empty where none is. */
        public OptionalLong read(String folded) {
            int length = folded.length();
            boolean rightWidth = width == 0 ? length > 0 : grows ? length >= width : length == width;
            if (!rightWidth) return OptionalLong.empty();
            if (countsWithoutNought()) return alphabet.read(folded, 1);
            boolean padded = length > Math.max(width, 1)
                    && folded.charAt(0) == alphabet.folded().charAt(0);
            return padded ? OptionalLong.empty() : alphabet.read(folded, 0);
        }
    }

    /** A field of the record, its transforms applied in order. */
    record TextField(String name, List<Transform> transforms) implements Part {
        public TextField {
            transforms = List.copyOf(transforms);
        }

        /** What the field writes of a code or a text. */
        public String written(String given) {
            String text = given;
            for (Transform transform : transforms) text = transform.apply(text);
            return text;
        }

        /** The same without what it is padded with. */
        public String bare(String given) {
            String text = given;
            for (Transform transform : transforms)
                if (!(transform instanceof Transform.Pad)) text = transform.apply(text);
            return text;
        }

        /** The symbols that it pads with. */
        public String pads() {
            var symbols = new StringBuilder();
            for (Transform transform : transforms)
                if (transform instanceof Transform.Pad pad) symbols.append(pad.with());
            return symbols.toString();
        }

        /** The fewest symbols that it can write of any text. */
        public int shortest() {
            int shortest = 1;
            for (Transform transform : transforms)
                shortest = transform instanceof Transform.Pad pad
                        ? Math.max(shortest, pad.length())
                        : transform instanceof Transform.First first
                                ? Math.min(shortest, first.symbols())
                                : transform instanceof Transform.Initials ? 1 : shortest;
            return shortest;
        }

        /** The most symbols that it can write of a text that may take so many at the most. */
        public int longest(int most) {
            int longest = Integer.MAX_VALUE / 2;
            int padded = 0;
            for (Transform transform : transforms) {
                switch (transform) {
                    case Transform.First first -> longest = Math.min(longest, first.symbols());
                    case Transform.Unaccented unaccented -> longest = Math.min(longest, Integer.MAX_VALUE / 4) * 2;
                    case Transform.Pad pad -> longest = Math.max(longest, padded = pad.length());
                    default -> {}
                }
            }
            return Math.min(longest, Math.max(most, padded));
        }

        /** As it is in a pattern, without its options. */
        public String shown() {
            return name.equals(Particulars.UNIT) ? "{unit}" : "{field " + name + "}";
        }
    }

    /**
     * Check symbols, over what stands before them (behind them, for a scheme whose check is in front) or over the count
     * alone. Symbols that the scheme cannot read are passed over; small letters count as capitals.
     */
    record CheckField(CheckScheme scheme, boolean ofCount) implements Part {}
}
