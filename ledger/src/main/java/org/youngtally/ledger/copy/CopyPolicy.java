package org.youngtally.ledger.copy;

import java.util.Arrays;
import java.util.Optional;

/** What is done while the copy of the journal cannot be written. */
public enum CopyPolicy {
    /** No numbers are allocated: the copy has every number that was answered. */
    STOP("stop"),
    /** Numbers are allocated without it, and everybody is warned. */
    GO_ON("go-on");

    private final String word;

    CopyPolicy(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    public static Optional<CopyPolicy> of(String word) {
        return Arrays.stream(values())
                .filter(policy -> policy.word.equals(word))
                .findFirst();
    }
}
