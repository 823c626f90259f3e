package org.youngtally.core.gs1;

import org.youngtally.core.fault.DefinitionException;

/**
 * The digits that GS1 gave to a company, with which its identifiers begin (GS1 General Specifications, section 1.2.4).
 *
 * @param digits 4 to 12
 */
public record CompanyPrefix(String digits) {
    private static final int CONTAINER_DIGITS = 18;

    public CompanyPrefix {
        if (!digits.matches("[0-9]{4,12}"))
            throw new DefinitionException(
                    "prefix", "‘" + digits + "’ is not a company prefix", "write 4 to 12 digits, e.g. 9521234");
    }

    /** How many digits are left for the serial of a shipping container, between the prefix and the check digit. */
    public int containerSerialDigits() {
        return CONTAINER_DIGITS - 1 - digits.length() - 1;
    }

    /**
     * The pattern of serial shipping container codes (section 2.2.1): an extension digit, the prefix, a serial as wide
     * as is left, and the check digit.
     *
     * @param extension 0 to 9
     */
    public String containerPattern(int extension) {
        if (extension < 0 || extension > 9)
            throw new DefinitionException("extension", extension + " is not a digit", "write one digit, 0 to 9");
        return extension + digits + "{count " + containerSerialDigits() + "}{check gs1}";
    }

    /** The highest serial; the lowest is 0. */
    public long containerLast() {
        long power = 1;
        for (int i = 0; i < containerSerialDigits(); i++) power *= 10;
        return power - 1;
    }
}
