package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Tells whether the machine went down since the tables were last in use. A process that is killed leaves its writes
 * with the operating system; a machine that goes down may have kept any part of what was not forced, so that H2's file
 * is not to be trusted then and is rebuilt.
 */
final class MachineRun {
    private static final Path LINUX = Path.of("/proc/sys/kernel/random/boot_id");

    private MachineRun() {}

    static String current() {
        try {
            return Files.isReadable(LINUX) ? Files.readString(LINUX).strip() : "";
        } catch (IOException e) {
            return "";
        }
    }

    /** Whether a run that was not ended cleanly can have been ended by the machine going down. */
    static boolean mayHaveGoneDown(Path marker, String current) throws IOException {
        if (!Files.exists(marker)) return false;
        return current.isEmpty()
                || !Files.readString(marker).lines().findFirst().orElse("").equals(current);
    }
}
