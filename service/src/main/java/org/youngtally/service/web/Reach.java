package org.youngtally.service.web;

/**
 * From where the service can be reached.
 *
 * @param isThisMachine whether from this machine alone
 * @param behindProxy whether a proxy in front of it ends TLS
 */
public record Reach(boolean isThisMachine, boolean behindProxy) {
    /** The name of the cookie that a session is known by. */
    public static final String COOKIE = "tally-session";
}
