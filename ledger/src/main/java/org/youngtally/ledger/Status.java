package org.youngtally.ledger;

import java.util.List;
import org.youngtally.ledger.journal.Head;

/**
 * How the ledger stands.
 *
 * @param stopped why it gives no numbers; empty while it does
 * @param head the newest entry that is on disk
 * @param opening what was found and done when it was opened, for people
 */
public record Status(String stopped, Head head, List<String> opening) {
    public Status {
        opening = List.copyOf(opening);
    }

    public boolean running() {
        return stopped.isEmpty();
    }
}
