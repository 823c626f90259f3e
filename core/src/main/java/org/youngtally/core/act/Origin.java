package org.youngtally.core.act;

import java.time.Instant;
import java.util.Optional;
import org.youngtally.core.pattern.Particulars;

/**
 * How a number came to be given.
 *
 * @param seq the entry that gave it
 * @param version the version of the series that rendered it
 * @param until when it lapses, if it was held; the instant stays when the hold has ended
 * @param ahead whether it was typed while the counter had not come so far
 * @param text the identifier; absent for one of a block
 */
public record Origin(
        long seq,
        int version,
        Particulars particulars,
        Optional<Instant> until,
        boolean ahead,
        Optional<String> text) {}
