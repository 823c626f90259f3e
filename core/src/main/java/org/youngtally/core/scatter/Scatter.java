package org.youngtally.core.scatter;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The secret by which the positions of a series are spread over its values. Its text shows a mark of the key, never the
 * key.
 */
public final class Scatter {
    private static final int MARK_BYTES = 8;

    /** Null where only the mark is known. */
    private final byte[] key;

    private final String mark;
    private final Map<String, Permutation> permutations = new ConcurrentHashMap<>();

    /** @param key of AES: 16, 24 or 32 bytes */
    public Scatter(byte[] key) {
        this.key = key.clone();
        this.mark = HexFormat.of().formatHex(Arrays.copyOf(sha256(key), MARK_BYTES));
    }

    private Scatter(String mark) {
        this.key = null;
        this.mark = mark;
    }

    /** A secret of which only the mark is at hand: nothing can be spread by it. */
    public static Scatter sealed(String mark) {
        return new Scatter(mark);
    }

    public boolean isSealed() {
        return key == null;
    }

    private static byte[] sha256(byte[] bytes) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(bytes);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** By which the key is known again; nothing of the key follows from it. */
    public String mark() {
        return mark;
    }

    /**
     * The permutation of a lane.
     *
     * @param lane what tells it from all other lanes of the series
     */
    public Permutation of(String lane, long size) {
        if (isSealed()) throw new IllegalStateException("the secret with the mark " + mark + " is not at hand");
        return permutations.computeIfAbsent(
                lane + "\n" + size, added -> new Permutation(key, lane.getBytes(StandardCharsets.UTF_8), size));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Scatter scatter && scatter.mark.equals(mark);
    }

    @Override
    public int hashCode() {
        return mark.hashCode();
    }

    @Override
    public String toString() {
        return "scattered by the key " + mark;
    }
}
