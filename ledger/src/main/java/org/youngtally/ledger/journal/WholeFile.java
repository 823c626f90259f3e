package org.youngtally.ledger.journal;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Writes small files as a whole or not at all. */
public final class WholeFile {
    private WholeFile() {}

    /** It is on disk when this returns. */
    public static void write(Path file, String text) throws IOException {
        Path fresh = file.resolveSibling(file.getFileName() + "-new");
        Files.writeString(fresh, text);
        try (FileChannel channel = FileChannel.open(fresh, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
        Files.move(fresh, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        FolderDisk.force(file.toAbsolutePath().getParent());
    }
}
