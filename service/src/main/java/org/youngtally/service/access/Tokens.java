package org.youngtally.service.access;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.HexFormat;

/** Tokens: 256 random bits behind a word by which a leaked one is recognised. Only their hashes are kept. */
public final class Tokens {
    private static final String BEGINNING = "tally-";
    private static final int BYTES = 32;
    private static final SecureRandom RANDOM = new SecureRandom();

    private Tokens() {}

    public static String random() {
        byte[] bytes = new byte[BYTES];
        RANDOM.nextBytes(bytes);
        return BEGINNING + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
    }

    /**
     * By what a token is known: SHA-256 in hexadecimal. It cannot be turned back, and needs no salt, since tokens are
     * random.
     */
    public static String hash(String token) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
