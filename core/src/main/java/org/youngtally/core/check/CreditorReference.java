package org.youngtally.core.check;

/**
 * The structured creditor reference of ISO 11649: RF, two check digits, then the reference of up to 21 symbols. The
 * reference with RF and 00 behind it is read as a number, letters as two digits from A = 10 on; 98 less its rest by 97
 * is the check.
 */
record CreditorReference() implements CheckScheme {
    /** RF, two check digits and the reference. */
    static final int LONGEST = 25;

    static final int LONGEST_REFERENCE = 21;

    /** @throws IllegalArgumentException where a text is not a reference that the check digits can be put in front of */
    static void mustBeOne(String reference) {
        if (reference.matches("RF[0-9]{2}.+"))
            throw new IllegalArgumentException(
                    "‘" + reference
                            + "’ looks like a complete creditor reference; enter the reference without RF and its digits, or verify it");
        if (reference.length() > LONGEST_REFERENCE)
            throw new IllegalArgumentException("‘" + reference + "’ has " + reference.length()
                    + " symbols, and a reference has " + LONGEST_REFERENCE + " at most");
    }

    @Override
    public String name() {
        return "iso11649";
    }

    @Override
    public String title() {
        return "Creditor reference, ISO 11649: RF, the check digits, the reference";
    }

    @Override
    public String reads() {
        return Symbols.BOTH;
    }

    @Override
    public String writes() {
        return Symbols.DIGITS;
    }

    @Override
    public int length() {
        return 2;
    }

    @Override
    public boolean inFront() {
        return true;
    }

    @Override
    public String misses() {
        return "a letter in the place of a digit or the other way round, one time in 97; a swap of a letter with a digit, as seldom";
    }

    /** Of the reference, without RF. */
    @Override
    public int check(byte[] values, int count) {
        int rest = 0;
        for (int i = 0; i < count; i++) rest = behind(rest, values[i]);
        // R, F and the two noughts that stand for the check digits.
        for (int value : new int[] {27, 15, 0, 0}) rest = behind(rest, value);
        return 98 - rest;
    }

    private static int behind(int rest, int value) {
        return (rest * (value < 10 ? 10 : 100) + value) % 97;
    }
}
