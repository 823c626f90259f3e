package org.youngtally.ledger.copy;

import java.nio.file.Path;

/**
 * Where a copy of the journal is kept.
 *
 * @param folder of its own, on another disk if it can be
 */
public record CopyPlace(Path folder, CopyPolicy policy) {
    public CopyPlace {
        folder = folder.toAbsolutePath().normalize();
    }
}
