package org.youngtally.ledger.journal;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** The digest of FIPS 180-4 by which entries, files and keys are told apart. */
public final class Sha256 {
    private Sha256() {}

    /** A new one, to be used by one thread. */
    public static MessageDigest fresh() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
