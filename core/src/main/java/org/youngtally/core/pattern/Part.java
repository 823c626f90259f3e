package org.youngtally.core.pattern;

/** One piece of a pattern: text that stands as it is, or a field that is filled in. */
public sealed interface Part {

    /** Text that appears in every identifier as written, braces already unescaped. */
    record Literal(String text) implements Part {}

    /** The business date, written in a date format. */
    record DateField(DateFormat format) implements Part {}

    /**
     * The running value in decimal digits.
     *
     * @param width digits to which the value is padded with zeros, 1 to {@value #MAX_WIDTH}, which is also the most it may
     *     take; 0 for no padding and no limit of its own
     */
    record CountField(int width) implements Part {
        /** Values stay below 10^18, so that sums over them fit a signed 64-bit integer. */
        public static final int MAX_WIDTH = 18;

        /** The largest value this field can write. */
        public long largest() {
            return TEN_TO_THE[width == 0 ? MAX_WIDTH : width] - 1;
        }

        private static final long[] TEN_TO_THE = new long[MAX_WIDTH + 1];

        static {
            TEN_TO_THE[0] = 1;
            for (int i = 1; i <= MAX_WIDTH; i++) TEN_TO_THE[i] = TEN_TO_THE[i - 1] * 10;
        }
    }
}
