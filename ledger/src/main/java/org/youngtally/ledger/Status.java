package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import org.youngtally.ledger.journal.Head;

/**
 * How the ledger stands.
 *
 * @param stopped why it gives no numbers until an administrator has looked; empty where that is not so
 * @param paused why it gives no numbers for now; empty where that is not so
 * @param head the newest entry that is on disk
 * @param opening what was found and done when it was opened, for people
 * @param remarks what people should know of how it runs
 * @param proof how far the journal is proved; absent once all of it is
 */
public record Status(
        String stopped, String paused, Head head, List<String> opening, List<String> remarks, Optional<Proof> proof) {

    /**
     * How far the journal is proved that the start trusted.
     *
     * @param reached the last entry that is proved
     * @param upTo the last one that is to be
     */
    public record Proof(long reached, long upTo) {}

    public Status {
        opening = List.copyOf(opening);
        remarks = List.copyOf(remarks);
    }

    /** Whether numbers are given. */
    public boolean running() {
        return stopped.isEmpty() && paused.isEmpty();
    }
}
