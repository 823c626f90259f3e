package org.youngtally.core.check;

import java.util.Optional;

/** A hybrid system of ISO/IEC 7064 (clause 9): two moduli, M + 1 and M, taken in turn. M is the number of symbols. */
record HybridSystem(String name, String title, String reads) implements CheckScheme {

    static HybridSystem over(String reads) {
        String moduli = (reads.length() + 1) + "," + reads.length();
        return new HybridSystem("mod" + moduli.replace(',', '-'), "ISO/IEC 7064 MOD " + moduli, reads);
    }

    @Override
    public String writes() { return reads; }

    @Override
    public int length() { return 1; }

    @Override
    public String misses() { return "a few swaps of neighbours"; }

    @Override
    public Optional<String> check(CharSequence payload) {
        int m = reads.length();
        int product = m;
        for (int i = 0; i < payload.length(); i++) {
            int sum = (product + Symbols.value(payload.charAt(i), reads)) % m;
            product = (sum == 0 ? m : sum) * 2 % (m + 1);
        }
        return Optional.of(String.valueOf(reads.charAt(Math.floorMod(1 - product, m))));
    }
}
