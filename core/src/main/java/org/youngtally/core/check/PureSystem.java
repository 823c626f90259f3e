package org.youngtally.core.check;

/**
 * A pure system of ISO/IEC 7064 (clause 7): the symbols, weighted with powers of the radix, leave 1 modulo the modulus.
 */
record PureSystem(String name, String title, int modulus, int radix, String reads, String writes, int length)
        implements CheckScheme {

    static PureSystem of(int modulus, int radix) {
        String reads =
                switch (modulus) {
                    case 11, 97 -> Symbols.DIGITS;
                    case 661 -> Symbols.LETTERS;
                    default -> Symbols.BOTH;
                };
        String writes =
                switch (modulus) {
                    case 11 -> Symbols.DIGITS + "X";
                    case 37 -> Symbols.BOTH + "*";
                    default -> reads;
                };
        return new PureSystem(
                "mod" + modulus + "-" + radix,
                "ISO/IEC 7064 MOD " + modulus + "-" + radix,
                modulus,
                radix,
                reads,
                writes,
                modulus > 37 ? 2 : 1);
    }

    @Override
    public String misses() {
        return "neither a wrong symbol nor a swap of neighbours";
    }

    @Override
    public int check(byte[] values, int count) {
        int sum = 0;
        for (int i = 0; i < count; i++) sum = (sum + values[i]) * radix % modulus;
        if (length == 2) sum = sum * radix % modulus;
        return Math.floorMod(1 - sum, modulus);
    }
}
