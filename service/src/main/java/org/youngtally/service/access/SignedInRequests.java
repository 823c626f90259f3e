package org.youngtally.service.access;

import jakarta.servlet.ServletRequest;

/** Tells whether somebody who is signed in asks. */
public final class SignedInRequests {
    private SignedInRequests() {}

    public static boolean is(ServletRequest request) {
        return Callers.of(request).isPresent();
    }
}
