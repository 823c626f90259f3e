package org.youngtally.ledger;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The room on the disk of a data folder, and a reserve: a file that is kept while there is room and given up when there
 * is none, so that the tables can still be written and a start finds what it needs. Numbers stop before the disk is
 * full to the last byte, because H2 does not survive a write that fails.
 */
final class Room {
    private static final Logger LOG = LoggerFactory.getLogger(Room.class);
    private static final long RESERVE = 8L << 20;
    /** Of a small disk the reserve takes no more than this part. */
    private static final int PART = 32;

    private static final int PIECE = 1 << 16;

    private final Path data;
    private final Path reserve;
    private final LongSupplier left;
    private final long size;

    /** @param left how many bytes are left on the disk */
    Room(Path data, LongSupplier left) {
        this.data = data;
        this.reserve = data.resolve("reserve");
        this.left = left;
        long total = data.toFile().getTotalSpace();
        this.size = total <= 0 ? RESERVE : Math.min(RESERVE, total / PART);
    }

    /** What must be left while numbers are given. */
    private long low(long unsaved) {
        return size / 2 + unsaved;
    }

    /**
     * Whether there is too little room to go on.
     *
     * @param unsaved bytes of the tables that are in memory alone
     */
    Optional<Shortage> shortage(long unsaved) {
        return below(low(unsaved));
    }

    /** Whether there is still too little room to go on again: the reserve comes back first. */
    Optional<Shortage> shortageToGoOn(long unsaved) {
        return below(low(unsaved) + (Files.exists(reserve) ? 0 : size));
    }

    private Optional<Shortage> below(long needed) {
        long now = left.getAsLong();
        return now < needed ? Optional.of(new Shortage(data, now, needed)) : Optional.empty();
    }

    /** Gives the reserve up. */
    void spend() {
        try {
            Files.deleteIfExists(reserve);
        } catch (IOException e) {
            LOG.warn("the reserve {} could not be released", reserve, e);
        }
    }

    /** Makes the reserve where it is not there and there is room for it. */
    void keepReserve() throws IOException {
        if (Files.exists(reserve) && Files.size(reserve) == size
                || below(low(0) + size).isPresent()) return;
        // Not zeros, which some disks do not store.
        byte[] piece = new byte[PIECE];
        Arrays.fill(piece, (byte) 0x59);
        try (FileChannel channel = FileChannel.open(
                reserve, StandardOpenOption.CREATE, StandardOpenOption.TRUNCATE_EXISTING, StandardOpenOption.WRITE)) {
            for (long written = 0; written < size; ) {
                ByteBuffer next = ByteBuffer.wrap(piece, 0, (int) Math.min(PIECE, size - written));
                while (next.hasRemaining()) written += channel.write(next);
            }
        } catch (IOException e) {
            spend();
            throw e;
        }
    }
}
