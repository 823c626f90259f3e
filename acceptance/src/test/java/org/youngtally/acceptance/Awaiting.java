package org.youngtally.acceptance;

import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Supplier;

/** Waits for what comes about by itself, with a pause between two looks, so that it is not kept from coming about. */
final class Awaiting {
    /** For a machine that is far slower than any: only what never comes is cut off by it. */
    private static final long PATIENCE = TimeUnit.MINUTES.toNanos(3);

    private static final long PAUSE = TimeUnit.MILLISECONDS.toNanos(25);

    private Awaiting() {}

    /** @param instead what is the case where it did not come about */
    static void until(Callable<Boolean> condition, Supplier<String> instead) throws Exception {
        long began = System.nanoTime();
        while (!condition.call()) {
            if (System.nanoTime() - began > PATIENCE)
                throw new AssertionError("It did not come about; " + instead.get());
            LockSupport.parkNanos(PAUSE);
        }
    }
}
