package org.youngtally.service.api;

/** Where the HTTP interface begins. */
final class Api {
    static final String V1 = "/api/v1";
    static final String KEY = "Idempotency-Key";
    /** What the description says of it. */
    static final String KEY_MEANING =
            "An idempotency key for this request; repeating the request with it returns the same answer";

    private Api() {}
}
