package org.youngtally.core.check;

/**
 * J. Verhoeff, Error Detecting Decimal Codes (1969): multiplication in the dihedral group of order 10, with a
 * permutation for each place.
 */
record Verhoeff() implements CheckScheme {
    private static final int PERIOD = 8;
    private static final int[][] PERMUTATIONS = permutations();

    /** The group: 0 to 4 are rotations of the pentagon, 5 to 9 reflections. */
    private static int times(int a, int b) {
        int turn = a < 5 ? a + b : a - b;
        return Math.floorMod(turn, 5) + ((a < 5) == (b < 5) ? 0 : 5);
    }

    private static int inverse(int a) {
        return a == 0 || a >= 5 ? a : 5 - a;
    }

    private static int[][] permutations() {
        int[] once = {1, 5, 7, 6, 2, 8, 3, 0, 9, 4};
        int[][] all = new int[PERIOD][10];
        for (int digit = 0; digit < 10; digit++) {
            all[0][digit] = digit;
            for (int i = 1; i < PERIOD; i++) all[i][digit] = once[all[i - 1][digit]];
        }
        return all;
    }

    @Override
    public String name() {
        return "verhoeff";
    }

    @Override
    public String title() {
        return "Verhoeff's dihedral code, 1969";
    }

    @Override
    public String reads() {
        return Symbols.DIGITS;
    }

    @Override
    public String writes() {
        return Symbols.DIGITS;
    }

    @Override
    public int length() {
        return 1;
    }

    @Override
    public String misses() {
        return "neither a wrong digit nor a swap of neighbours";
    }

    @Override
    public int check(byte[] values, int count) {
        int state = 0;
        for (int i = count - 1, place = 1; i >= 0; i--, place++)
            state = times(state, PERMUTATIONS[place % PERIOD][values[i]]);
        return inverse(state);
    }
}
