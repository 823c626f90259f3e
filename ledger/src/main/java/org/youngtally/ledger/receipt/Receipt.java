package org.youngtally.ledger.receipt;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a ledger has shown of itself: that it had an entry. Written as {@code ledger.epoch.entry.mac}; whoever keeps it
 * can show it again, and a ledger that lacks the entry knows then that it is not the newest.
 *
 * @param ledger its name: the first 16 hexadecimal digits of the hash of its first entry
 * @param epoch in which the entry was written
 * @param entry its sequence number
 * @param mac the first 16 bytes of HMAC-SHA-256 over the text before it, in base64url, by a key that is derived from
 *     the secret of the data folder
 */
public record Receipt(String ledger, String epoch, long entry, String mac) {
    private static final Pattern WRITTEN =
            Pattern.compile("([0-9a-f]{16})\\.([0-9]{1,9}-[0-9a-f]{16})\\.([0-9]{1,18})\\.([0-9A-Za-z_-]{22})");

    /** Absent where the text is no receipt. */
    public static Optional<Receipt> of(String text) {
        Matcher matcher = WRITTEN.matcher(text);
        return matcher.matches()
                ? Optional.of(new Receipt(
                        matcher.group(1), matcher.group(2), Long.parseLong(matcher.group(3)), matcher.group(4)))
                : Optional.empty();
    }

    /** How often the ledger had gone on after a loss when it was written. */
    public int generation() {
        return Epoch.of(epoch).generation();
    }

    /** What its MAC is made of. */
    String signed() {
        return ledger + "." + epoch + "." + entry;
    }

    @Override
    public String toString() {
        return signed() + "." + mac;
    }
}
