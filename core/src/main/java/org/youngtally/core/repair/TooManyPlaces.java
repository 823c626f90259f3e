package org.youngtally.core.repair;

/** A table has more different dates and fields than a plan can keep. */
public final class TooManyPlaces extends RuntimeException {
    private static final long serialVersionUID = 1L;

    TooManyPlaces() {
        super("more than " + Places.MOST + " different dates and fields", null, false, false);
    }
}
