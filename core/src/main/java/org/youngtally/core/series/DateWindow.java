package org.youngtally.core.series;

import java.time.LocalDate;
import org.youngtally.core.fault.DefinitionException;

/**
 * The dates a range serves, both ends included.
 *
 * @param opens the first date served
 * @param closes the last date served; {@link #HORIZON} where the definition names none
 */
public record DateWindow(LocalDate opens, LocalDate closes) {
    /** The last date that any series serves: what is proved about a definition is proved up to here. */
    public static final LocalDate HORIZON = LocalDate.of(2099, 12, 31);

    /** The earliest date that a range may open on. */
    public static final LocalDate EARLIEST = LocalDate.of(1900, 1, 1);

    public DateWindow {
        if (closes == null) closes = HORIZON;
        if (opens.isBefore(EARLIEST) || opens.isAfter(HORIZON))
            throw new DefinitionException(
                    "opens", opens + " is out of bounds", "enter a date from " + EARLIEST + " to " + HORIZON);
        if (closes.isAfter(HORIZON))
            throw new DefinitionException(
                    "closes", closes + " is out of bounds", "enter a date up to " + HORIZON + ", or remove it");
        if (closes.isBefore(opens))
            throw new DefinitionException(
                    "closes", closes + " lies before the day it opens, " + opens, "enter " + opens + " or later");
    }

    public boolean includes(LocalDate date) {
        return !date.isBefore(opens) && !date.isAfter(closes);
    }

    /** Whether the definition left the end open. */
    public boolean isOpenEnded() {
        return closes.equals(HORIZON);
    }

    @Override
    public String toString() {
        return isOpenEnded() ? "from " + opens : opens + " to " + closes;
    }
}
