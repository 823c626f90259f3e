package org.youngtally.ledger.secret;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.FolderDisk;

/**
 * The secret of a data folder, from which the key of each scattered series is derived (HMAC-SHA-256 over the series'
 * key), and that of receipts. It is in a file that its owner alone can read, and nowhere else: neither the journal nor
 * the tables hold it, nor is it ever exported.
 */
public final class Secrets {
    private static final int BYTES = 32;
    private static final String NAME = "secret";

    private final Path file;
    private byte[] secret;
    /** The secret that this folder would get. */
    private byte[] proposed;

    private Secrets(Path file) {
        this.file = file;
    }

    public static Secrets in(Path folder) {
        return new Secrets(folder.resolve(NAME));
    }

    /** The key of a series that is being defined. The secret is made when it is first needed. */
    public synchronized Scatter of(String series) {
        try {
            if (!isThere()) write(proposed());
            return derived(series);
        } catch (IOException e) {
            throw new UncheckedIOException("the secret cannot be kept in " + file, e);
        }
    }

    /** The key that a series would get by {@link #of}; nothing is written for it. */
    public synchronized Scatter proposed(String series) {
        try {
            return isThere() ? derived(series) : derived(series, proposed());
        } catch (IOException e) {
            throw new UncheckedIOException("the secret cannot be read from " + file, e);
        }
    }

    private byte[] proposed() {
        if (proposed == null) {
            proposed = new byte[BYTES];
            new SecureRandom().nextBytes(proposed);
        }
        return proposed;
    }

    /** The key of the ledger's receipts, 32 bytes. The secret is made when it is first needed. */
    public synchronized byte[] receiptKey() throws IOException {
        if (!isThere()) write(proposed());
        load();
        // No series has such a key.
        return keyed("\u0000receipts", secret);
    }

    /**
     * A series as it was read back, with its key if it is scattered and the secret is the one that it was defined with.
     */
    public synchronized Series unsealed(Series series) {
        if (!series.order().isSealed()) return series;
        try {
            if (!isThere()) return series;
            Scatter scatter = derived(series.key());
            return scatter.mark().equals(series.order().scatter().orElseThrow().mark())
                    ? series.withScatter(scatter)
                    : series;
        } catch (IOException e) {
            throw new UncheckedIOException("the secret cannot be read from " + file, e);
        }
    }

    /** The secret itself, for a backup; absent where there is none yet. */
    public synchronized Optional<byte[]> bytes() throws IOException {
        if (!isThere()) return Optional.empty();
        load();
        return Optional.of(secret.clone());
    }

    /** Keeps a secret of one's own in a folder that has none: for data that is to come out alike every time. */
    public static void keep(Path folder, byte[] secret) throws IOException {
        Secrets secrets = in(folder);
        if (!secrets.isThere()) secrets.write(secret);
    }

    private boolean isThere() {
        return secret != null || Files.exists(file);
    }

    private void write(byte[] fresh) throws IOException {
        boolean posix = FileSystems.getDefault().supportedFileAttributeViews().contains("posix");
        FileAttribute<?>[] owner = posix
                ? new FileAttribute<?>[] {
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"))
                }
                : new FileAttribute<?>[0];
        // Written beside and moved into place, so that half a secret is never taken for one.
        Path beside = file.resolveSibling(NAME + ".new");
        Files.deleteIfExists(beside);
        Files.createFile(beside, owner);
        try (FileChannel channel = FileChannel.open(beside, StandardOpenOption.WRITE)) {
            channel.write(
                    ByteBuffer.wrap((HexFormat.of().formatHex(fresh) + "\n").getBytes(StandardCharsets.US_ASCII)));
            channel.force(true);
        }
        Files.move(beside, file);
        FolderDisk.force(file.getParent());
        secret = fresh;
    }

    private void load() throws IOException {
        if (secret != null) return;
        try {
            secret = HexFormat.of().parseHex(Files.readString(file).strip());
        } catch (IllegalArgumentException e) {
            throw new IOException("the file " + file + " does not hold a secret", e);
        }
    }

    private Scatter derived(String series) throws IOException {
        load();
        return derived(series, secret);
    }

    private static Scatter derived(String series, byte[] secret) {
        return new Scatter(keyed(series, secret));
    }

    private static byte[] keyed(String what, byte[] secret) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(secret, "HmacSHA256"));
            return mac.doFinal(what.getBytes(StandardCharsets.UTF_8));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java has HMAC-SHA-256", e);
        }
    }
}
