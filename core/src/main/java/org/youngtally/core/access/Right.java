package org.youngtally.core.access;

import java.util.Arrays;
import java.util.Optional;

/** What somebody may do. None of them holds another: who may take numbers may not read the ledger for it. */
public enum Right {
    /** Define series, codebooks, units, kinds and routes; close periods. */
    DEFINE("define"),
    /** Take numbers and blocks, report the use of blocks and hand on parts of them. */
    ALLOCATE("allocate"),
    /** Hold numbers, confirm and release them. */
    HOLD("hold"),
    /** Void numbers and give back issued ones. */
    VOID("void"),
    /** See series, numbers and entries. */
    READ("read"),
    /** Have the ledger proved. */
    AUDIT("audit"),
    /** Open accounts and say what they may do. */
    ACCESS("access");

    private final String word;

    Right(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    public static Optional<Right> of(String word) {
        return Arrays.stream(values()).filter(right -> right.word.equals(word)).findFirst();
    }
}
