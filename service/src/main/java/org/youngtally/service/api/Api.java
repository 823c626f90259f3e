package org.youngtally.service.api;

/** Where the HTTP interface begins. */
final class Api {
    static final String V1 = "/api/v1";
    static final String KEY = "Idempotency-Key";

    private Api() {}
}
