package org.youngtally.core.check;

/**
 * The Luhn formula (ISO/IEC 7812-1, annex B), over digits or over digits and letters: every second symbol from the
 * right is doubled, and the two places of the product, in the radix, are added.
 */
record Luhn(String name, String title, String reads, String misses) implements CheckScheme {
    static Luhn digits() {
        return new Luhn(
                "luhn", "Luhn formula, ISO/IEC 7812-1 annex B", Symbols.DIGITS, "a swap of neighbouring 0 and 9");
    }

    static Luhn digitsAndLetters() {
        return new Luhn(
                "luhn36",
                "Luhn formula over digits and letters, radix 36",
                Symbols.BOTH,
                "a swap of neighbouring 0 and Z");
    }

    @Override
    public String writes() {
        return reads;
    }

    @Override
    public int length() {
        return 1;
    }

    @Override
    public int check(byte[] values, int count) {
        int radix = reads.length();
        int sum = 0;
        boolean doubled = true;
        for (int i = count - 1; i >= 0; i--) {
            int product = doubled ? values[i] * 2 : values[i];
            sum += product / radix + product % radix;
            doubled = !doubled;
        }
        return Math.floorMod(-sum, radix);
    }
}
