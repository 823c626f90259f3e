package org.youngtally.service.web;

/**
 * From where the service can be reached.
 *
 * @param isThisMachine whether from this machine alone
 * @param behindProxy whether a proxy in front of it ends TLS
 */
public record Reach(boolean isThisMachine, boolean behindProxy) {
    /**
     * How the name of the cookie begins that a session is known by. The port follows: browsers do not tell the services
     * of one machine apart.
     */
    public static final String COOKIE = "tally-session";
}
