package org.youngtally.core.check;

import java.util.Optional;

/**
 * The structured creditor reference of ISO 11649: RF, two check digits, then the reference of up to 21 symbols. The reference
 * with RF and 00 behind it is read as a number, letters as two digits from A = 10 on; 98 less its rest by 97 is the check.
 */
record CreditorReference() implements CheckScheme {
    private static final String BEHIND = "RF00";

    @Override
    public String name() { return "iso11649"; }

    @Override
    public String title() { return "Creditor reference, ISO 11649: RF, the check digits, the reference"; }

    @Override
    public String reads() { return Symbols.BOTH; }

    @Override
    public String writes() { return Symbols.DIGITS; }

    @Override
    public int length() { return 2; }

    @Override
    public boolean inFront() { return true; }

    @Override
    public String misses() { return "a letter in the place of a digit or the other way round, one time in 97; a swap of a letter with a digit, as seldom"; }

    /** @param payload the reference, without RF */
    @Override
    public Optional<String> check(CharSequence payload) {
        int rest = rest(BEHIND, rest(payload, 0));
        int check = 98 - rest;
        return Optional.of("" + check / 10 + check % 10);
    }

    private static int rest(CharSequence text, int before) {
        int rest = before;
        for (int i = 0; i < text.length(); i++) {
            int value = Symbols.value(text.charAt(i), Symbols.BOTH);
            rest = (rest * (value < 10 ? 10 : 100) + value) % 97;
        }
        return rest;
    }
}
