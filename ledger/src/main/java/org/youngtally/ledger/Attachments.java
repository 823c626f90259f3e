package org.youngtally.ledger;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;
import org.youngtally.ledger.journal.OwnerOnly;
import org.youngtally.ledger.journal.Sha256;

/**
 * The files that go with records, by what they hold. A file is on disk before the act that speaks of it; one that no
 * act speaks of, because the service ended between the two, is nobody's and does no harm.
 */
public final class Attachments {
    private final Path folder;

    private Attachments(Path folder) {
        this.folder = folder;
    }

    public static Attachments in(Path data) {
        return new Attachments(data.resolve("files"));
    }

    /** @param digest SHA-256 of its bytes, in small hexadecimal digits */
    public record Kept(String digest, long size) {}

    /** A file is larger than may be kept. */
    public static final class TooLarge extends IOException {
        private static final long serialVersionUID = 1L;
    }

    /**
     * Keeps a file, forced to disk.
     *
     * @param most bytes that it may have
     */
    public Kept keep(InputStream from, long most) throws IOException {
        OwnerOnly.makeFolder(folder);
        Path incoming = Files.createTempFile(folder, "incoming", "");
        try {
            MessageDigest digest = Sha256.fresh();
            long size = 0;
            try (FileChannel to = FileChannel.open(incoming, StandardOpenOption.WRITE);
                    var in = new DigestInputStream(from, digest);
                    var out = Channels.newOutputStream(to)) {
                var buffer = new byte[1 << 16];
                for (int count = in.read(buffer); count >= 0; count = in.read(buffer)) {
                    size += count;
                    if (size > most) throw new TooLarge();
                    out.write(buffer, 0, count);
                }
                to.force(true);
            }
            String name = HexFormat.of().formatHex(digest.digest());
            Files.move(
                    incoming,
                    folder.resolve(name),
                    StandardCopyOption.REPLACE_EXISTING,
                    StandardCopyOption.ATOMIC_MOVE);
            try (FileChannel entry = FileChannel.open(folder)) {
                entry.force(true);
            }
            return new Kept(name, size);
        } catch (IOException e) {
            if (!Shortage.saidBy(e)) throw e;
            var shortage = new Shortage(folder, folder.toFile().getUsableSpace(), most);
            throw new LedgerUnavailable(
                    LedgerUnavailable.Kind.DISK_FULL, "the disk has no space for the file", Optional.of(shortage), e);
        } finally {
            Files.deleteIfExists(incoming);
        }
    }

    /** What is kept; absent where it is gone, or is not what was kept any more. */
    public Optional<byte[]> read(String digest) throws IOException {
        Path file = folder.resolve(digest);
        if (!Files.isRegularFile(file)) return Optional.empty();
        byte[] bytes = Files.readAllBytes(file);
        return HexFormat.of().formatHex(Sha256.fresh().digest(bytes)).equals(digest)
                ? Optional.of(bytes)
                : Optional.empty();
    }
}
