package org.youngtally.ledger.receipt;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.youngtally.core.act.Effect;
import org.youngtally.ledger.journal.Entry;

/**
 * Makes the receipts of a ledger, and tells of one that is shown whether the ledger has its entry. Safe for many
 * threads; what was committed is told by one.
 */
public final class Receipts {
    private static final int MAC_BYTES = 16;

    private final SecretKeySpec key;
    private volatile Standing standing;

    /** How far the ledger has come, all of it of one moment. */
    private record Standing(
            Optional<String> ledger, long entry, NavigableMap<Long, String> epochs, Optional<Receipt> receipt) {}

    /** What a receipt says of the ledger that it is shown to. */
    public enum Meaning {
        /** It is of another ledger, or nobody who has the secret wrote it. */
        NONE,
        /** The ledger has its entry. */
        KNOWN,
        /** Its entry is lost, and an administrator has stated what that may have issued. */
        STATED,
        /** The ledger lacks its entry: a newer state of it exists, or did. */
        BEYOND
    }

    /**
     * @param key 32 bytes
     * @param ledger the hash of the first entry; absent before it
     * @param entry the newest
     * @param epochs by the entries that began them
     */
    public Receipts(byte[] key, Optional<String> ledger, long entry, NavigableMap<Long, String> epochs) {
        this.key = new SecretKeySpec(key, "HmacSHA256");
        this.standing = standing(ledger.map(hash -> hash.substring(0, 16)), entry, new TreeMap<>(epochs));
    }

    private Standing standing(Optional<String> ledger, long entry, NavigableMap<Long, String> epochs) {
        Map.Entry<Long, String> epoch = epochs.floorEntry(entry);
        Optional<Receipt> receipt = ledger.isEmpty() || epoch == null
                ? Optional.empty()
                : Optional.of(made(ledger.get(), epoch.getValue(), entry));
        return new Standing(ledger, entry, epochs, receipt);
    }

    private Receipt made(String ledger, String epoch, long entry) {
        var bare = new Receipt(ledger, epoch, entry, "");
        return new Receipt(ledger, epoch, entry, mac(bare.signed()));
    }

    private String mac(String text) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(key);
            byte[] whole = mac.doFinal(text.getBytes(StandardCharsets.US_ASCII));
            return Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(whole, MAC_BYTES));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has HMAC-SHA-256", e);
        }
    }

    /**
     * Entries are on disk.
     *
     * @param hash of the first entry of the ledger, where it is among them
     */
    public void forced(List<Entry> entries, Optional<String> hash) {
        Standing before = standing;
        NavigableMap<Long, String> epochs = before.epochs();
        for (Entry entry : entries)
            for (Effect effect : entry.effects())
                if (effect instanceof Effect.EpochBegun begun) {
                    if (epochs == before.epochs()) epochs = new TreeMap<>(epochs);
                    epochs.put(entry.seq(), begun.epoch());
                }
        standing = standing(
                before.ledger().or(() -> hash.map(all -> all.substring(0, 16))),
                entries.getLast().seq(),
                epochs);
    }

    /** For the newest entry; absent where there is none, or none since receipts are made. */
    public Optional<Receipt> newest() {
        return standing.receipt();
    }

    /** How often the ledger went on after a loss. */
    public int generation() {
        Map.Entry<Long, String> last = standing.epochs().lastEntry();
        return last == null ? 0 : Epoch.of(last.getValue()).generation();
    }

    /** The last entry of the ledger. */
    public long entry() {
        return standing.entry();
    }

    public Meaning meaning(Receipt shown) {
        Standing now = standing;
        boolean own = now.ledger().filter(shown.ledger()::equals).isPresent()
                && MessageDigest.isEqual(
                        mac(shown.signed()).getBytes(StandardCharsets.US_ASCII),
                        shown.mac().getBytes(StandardCharsets.US_ASCII));
        if (!own) return Meaning.NONE;
        Map.Entry<Long, String> epoch = now.epochs().floorEntry(shown.entry());
        if (shown.entry() <= now.entry() && epoch != null && epoch.getValue().equals(shown.epoch()))
            return Meaning.KNOWN;
        return shown.generation() < generation() ? Meaning.STATED : Meaning.BEYOND;
    }
}
