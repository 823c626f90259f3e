package org.youngtally.core.check;

import java.util.Optional;

/** A pure system of ISO/IEC 7064 (clause 7): the symbols, weighted with powers of the radix, leave 1 modulo the modulus. */
record PureSystem(String name, String title, int modulus, int radix, String reads, String writes, int length) implements CheckScheme {

    static PureSystem of(int modulus, int radix) {
        String reads = switch (modulus) {
            case 11, 97 -> Symbols.DIGITS;
            case 661 -> Symbols.LETTERS;
            default -> Symbols.BOTH;
        };
        String writes = switch (modulus) {
            case 11 -> Symbols.DIGITS + "X";
            case 37 -> Symbols.BOTH + "*";
            default -> reads;
        };
        return new PureSystem("mod" + modulus + "-" + radix, "ISO/IEC 7064 MOD " + modulus + "-" + radix, modulus, radix, reads, writes, modulus > 37 ? 2 : 1);
    }

    @Override
    public String misses() { return "neither a wrong symbol nor a swap of neighbours"; }

    @Override
    public Optional<String> check(CharSequence payload) {
        int sum = 0;
        for (int i = 0; i < payload.length(); i++) sum = (sum + Symbols.value(payload.charAt(i), reads)) * radix % modulus;
        if (length == 2) sum = sum * radix % modulus;
        int check = Math.floorMod(1 - sum, modulus);
        if (length == 1) return Optional.of(String.valueOf(writes.charAt(check)));
        return Optional.of(String.valueOf(new char[] {writes.charAt(check / reads.length()), writes.charAt(check % reads.length())}));
    }
}
