package org.youngtally.core.check;

/**
 * A pure system of ISO/IEC 7064 (clause 7): the symbols, weighted with powers of the radix, leave 1 modulo the modulus.
 *
 * @param lowest the lowest check, as a number: 2 for mod97-10, whose users write 98 less the rest, from 02 to 98
 */
record PureSystem(
        String name, String title, int modulus, int radix, String reads, String writes, int length, int lowest)
        implements CheckScheme {

    static PureSystem of(int modulus, int radix) {
        return of(modulus, radix, modulus == 97 ? 2 : 0);
    }

    /** As the first patterns wrote it, from 00 to 96. */
    static PureSystem fromZero(int modulus, int radix) {
        return of(modulus, radix, 0);
    }

    private static PureSystem of(int modulus, int radix, int lowest) {
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
                modulus > 37 ? 2 : 1,
                lowest);
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
        int check = Math.floorMod(1 - sum, modulus);
        return check < lowest ? check + modulus : check;
    }

    /** Right is whatever leaves 1, however it was written. */
    @Override
    public boolean isRight(CharSequence payload, String given) {
        if (length == 1) return CheckScheme.super.isRight(payload, given);
        int number = 0;
        for (int i = 0; i < given.length(); i++) {
            int value = writes.indexOf(given.charAt(i));
            if (value < 0) return false;
            number = number * writes.length() + value;
        }
        byte[] values = values(payload);
        return (number - check(values, values.length)) % modulus == 0;
    }
}
