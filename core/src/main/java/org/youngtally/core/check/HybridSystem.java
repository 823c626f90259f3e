package org.youngtally.core.check;

/** A hybrid system of ISO/IEC 7064 (clause 9): two moduli, M + 1 and M, taken in turn. M is the number of symbols. */
record HybridSystem(String name, String title, String reads) implements CheckScheme {

    static HybridSystem over(String reads) {
        String moduli = (reads.length() + 1) + "," + reads.length();
        return new HybridSystem("mod" + moduli.replace(',', '-'), "ISO/IEC 7064 MOD " + moduli, reads);
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
    public String misses() {
        return "a few swaps of neighbours";
    }

    @Override
    public int check(byte[] values, int count) {
        int m = reads.length();
        int product = m;
        for (int i = 0; i < count; i++) {
            int sum = (product + values[i]) % m;
            product = (sum == 0 ? m : sum) * 2 % (m + 1);
        }
        return Math.floorMod(1 - product, m);
    }
}
