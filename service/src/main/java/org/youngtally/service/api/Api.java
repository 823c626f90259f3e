package org.youngtally.service.api;

/** Where the HTTP interface begins. */
final class Api {
    static final String V1 = "/api/v1";
    /** Says who acts, until there is access control. */
    static final String ACTOR = "Young-Tally-Actor";
    static final String KEY = "Idempotency-Key";

    private Api() {}
}
