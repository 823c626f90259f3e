package org.youngtally.ledger.store;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.youngtally.ledger.journal.Sha256;

/**
 * By what the tables find the key of a request again: the first 128 bits of the SHA-256 of the account's name, a line
 * feed and the key, in UTF-8. Keys come in no order, so that each new one falls on another page of their index; marks
 * make it a third of the size, and no two keys share one.
 */
public final class KeyMark {
    private KeyMark() {}

    public static UUID of(String account, String key) {
        ByteBuffer digest =
                ByteBuffer.wrap(Sha256.fresh().digest((account + "\n" + key).getBytes(StandardCharsets.UTF_8)));
        return new UUID(digest.getLong(), digest.getLong());
    }
}
