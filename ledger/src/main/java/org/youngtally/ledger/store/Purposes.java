package org.youngtally.ledger.store;

import java.util.Optional;
import org.youngtally.core.act.Purpose;

/** What numbers are for, in one column. */
public final class Purposes {
    private static final String NOT_KNOWN = "-";

    private Purposes() {}

    static String write(Purpose purpose) {
        return purpose.equals(Purpose.NONE)
                ? null
                : purpose.kind().orElse(NOT_KNOWN) + " " + purpose.unit().orElse(NOT_KNOWN);
    }

    /** @param text null for none */
    public static Purpose read(String text) {
        if (text == null) return Purpose.NONE;
        String[] parts = text.split(" ");
        return new Purpose(known(parts[0]), known(parts[1]));
    }

    private static Optional<String> known(String part) {
        return Optional.of(part).filter(name -> !name.equals(NOT_KNOWN));
    }
}
