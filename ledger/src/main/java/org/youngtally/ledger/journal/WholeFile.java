package org.youngtally.ledger.journal;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;

/** Writes small files as a whole or not at all, and reads those that have a name and a value in each line. */
public final class WholeFile {
    private WholeFile() {}

    /** What a file says in lines such as {@code policy: stop}, by their names. */
    public static Map<String, String> values(Path file) throws IOException {
        var values = new HashMap<String, String>();
        for (String line : Files.readAllLines(file)) {
            int colon = line.indexOf(": ");
            if (colon > 0) values.put(line.substring(0, colon), line.substring(colon + 2));
        }
        return values;
    }

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
