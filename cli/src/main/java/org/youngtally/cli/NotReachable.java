package org.youngtally.cli;

/** No service answered. */
final class NotReachable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    NotReachable(String message, Throwable cause) {
        super(message, cause);
    }
}
