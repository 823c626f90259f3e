package org.youngtally.core.repair;

/** A table comes to more than a plan can keep in memory. */
public final class TooLargePlan extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** @param what there is too much of, after “the table has” */
    TooLargePlan(String what) {
        super(what, null, false, false);
    }
}
