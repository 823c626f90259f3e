package org.youngtally.cli;

import java.io.InputStream;
import java.util.Map;
import java.util.Optional;

/**
 * What surrounds a command: the environment, and what is typed. A program that runs commands as somebody else would
 * gives a thread surroundings of its own; any other thread has those of the process.
 *
 * @param environment by name
 * @param input what is typed
 */
public record Surroundings(Map<String, String> environment, InputStream input) {
    private static final ThreadLocal<Surroundings> CURRENT =
            ThreadLocal.withInitial(() -> new Surroundings(System.getenv(), System.in));

    static Surroundings current() {
        return CURRENT.get();
    }

    /** A variable of the environment; absent where it is blank. */
    static Optional<String> variable(String name) {
        return Optional.ofNullable(current().environment().get(name)).filter(value -> !value.isBlank());
    }

    /** What the thread's commands find from now on. */
    static void set(Surroundings surroundings) {
        CURRENT.set(surroundings);
    }

    static void reset() {
        CURRENT.remove();
    }
}
