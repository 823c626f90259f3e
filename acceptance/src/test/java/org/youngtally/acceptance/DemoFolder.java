package org.youngtally.acceptance;

import java.io.IOException;
import java.io.StringWriter;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;

/** A data folder with the demo's data. It is filled once for all tests of a build; each gets a copy. */
final class DemoFolder {
    private static final Path TARGET = Path.of("target");

    private DemoFolder() {}

    static Path copied() throws Exception {
        Path copy = Files.createTempDirectory("demo");
        Folders.copy(filled(), copy);
        return copy;
    }

    /** By whichever process comes first; it is another one for another build of the service. */
    private static Path filled() throws Exception {
        long build = Files.getLastModifiedTime(Service.jar("service")).toMillis();
        Path filled = TARGET.resolve("demo-" + build);
        try (FileChannel file = FileChannel.open(
                        TARGET.resolve("demo.lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                FileLock lock = file.lock()) {
            if (!lock.isValid()) throw new IOException("the lock of the demo's folder is lost");
            if (!Files.exists(filled)) {
                Path half = Files.createTempDirectory(TARGET.toAbsolutePath(), "demo-half");
                ServiceProgram.start(
                                new StringWriter(),
                                List.of("demo", "--port", "0", "--zone", "UTC", "--data", half.toString()))
                        .close();
                Files.move(half, filled);
            }
        }
        return filled;
    }
}
