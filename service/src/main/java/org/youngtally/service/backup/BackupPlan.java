package org.youngtally.service.backup;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;

/**
 * Where the service keeps backups, and how often it makes one by itself.
 *
 * @param folder absent where it makes none
 * @param every absent where it makes them when it is asked alone
 * @param keep how many of those that it made by itself stay
 * @param passphraseFile absent where the secret is left out
 */
public record BackupPlan(Optional<Path> folder, Optional<Duration> every, int keep, Optional<Path> passphraseFile) {
    public static final BackupPlan NONE = new BackupPlan(Optional.empty(), Optional.empty(), 1, Optional.empty());

    /** Read anew for each backup, so that it can be changed. */
    public Optional<char[]> passphrase() throws IOException {
        return passphraseFile.isEmpty() ? Optional.empty() : Optional.of(Passphrase.in(passphraseFile.get()));
    }

    /** The passphrase of a file is its first line. */
    public static final class Passphrase {
        private static final int SHORTEST = 12;

        private Passphrase() {}

        public static char[] in(Path file) throws IOException {
            if (!Files.isReadable(file)) throw new IOException("--passphrase-file: " + file + " cannot be read");
            String first = Files.readString(file).lines().findFirst().orElse("");
            if (first.length() < SHORTEST)
                throw new IOException("--passphrase-file: the first line of " + file + " has " + first.length()
                        + " symbols; a passphrase has " + SHORTEST + " or more");
            return first.toCharArray();
        }
    }
}
