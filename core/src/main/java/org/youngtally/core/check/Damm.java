package org.youngtally.core.check;

/**
 * H. M. Damm, Total anti-symmetrische Quasigruppen (2004): a walk through a table in which no two neighbours can trade
 * places unseen.
 */
record Damm() implements CheckScheme {
    private static final String[] TABLE = {
        "0317598642", "7092154863", "4206871359", "1750983426", "6123045978",
        "3674209581", "5869720134", "8945362017", "9438617205", "2581436790"
    };

    @Override
    public String name() {
        return "damm";
    }

    @Override
    public String title() {
        return "Damm's quasigroup of order 10, 2004";
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
        for (int i = 0; i < count; i++) state = TABLE[state].charAt(values[i]) - '0';
        return state;
    }
}
