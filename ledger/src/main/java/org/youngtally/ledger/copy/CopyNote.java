package org.youngtally.ledger.copy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.youngtally.ledger.journal.WholeFile;

/**
 * What stands beside a copy of a journal: by which policy it is written. Whoever goes back to the copy learns from it
 * whether it has every number that was answered.
 *
 * @param policy absent for a copy that is not written any more
 * @param since the entry from which that is so
 */
public record CopyNote(Optional<CopyPolicy> policy, long since) {
    private static final String NAME = "about";
    private static final String ENDED = "ended";

    /** Absent where there is none. */
    public static Optional<CopyNote> in(Path folder) throws IOException {
        Path file = folder.resolve(NAME);
        if (!Files.exists(file)) return Optional.empty();
        Map<String, String> said = WholeFile.values(file);
        String policy = said.getOrDefault("policy", "");
        Optional<CopyPolicy> known = CopyPolicy.of(policy);
        if (known.isEmpty() && !policy.equals(ENDED)
                || !said.getOrDefault("since", "").matches("[0-9]{1,18}"))
            throw new IOException(file + " does not say by which policy the journal was copied");
        return Optional.of(new CopyNote(known, Long.parseLong(said.get("since"))));
    }

    public void keep(Path folder) throws IOException {
        WholeFile.write(
                folder.resolve(NAME),
                "policy: " + policy.map(CopyPolicy::word).orElse(ENDED) + "\nsince: " + since + "\n");
    }

    /** Whether the copy has every number that was answered. */
    public boolean proves() {
        return policy.equals(Optional.of(CopyPolicy.STOP));
    }
}
