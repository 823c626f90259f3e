package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import org.youngtally.ledger.journal.WholeFile;
import org.youngtally.ledger.receipt.Receipt;

/**
 * That the ledger of a folder may not be the newest: it was restored, or somebody has seen an entry that it lacks. It
 * stands in a file of the data folder, and allocates no numbers while it does.
 *
 * @param why in words that go behind a colon
 * @param entry the last one of the ledger when that was found
 * @param seen the receipt of an entry that the ledger lacks; absent where none was shown
 */
public record PossibleRollback(String why, long entry, Optional<Receipt> seen) {
    private static final String NAME = "possible-rollback";

    private static Path file(Path data) {
        return data.resolve(NAME);
    }

    /** Absent where the ledger of a folder is the newest, as far as anybody knows. */
    public static Optional<PossibleRollback> in(Path data) throws IOException {
        if (!Files.exists(file(data))) return Optional.empty();
        Map<String, String> said = WholeFile.values(file(data));
        String entry = said.getOrDefault("entry", "");
        return Optional.of(new PossibleRollback(
                said.getOrDefault("why", "the file " + file(data) + " says so"),
                entry.matches("[0-9]{1,18}") ? Long.parseLong(entry) : 0,
                Optional.ofNullable(said.get("receipt")).flatMap(Receipt::of)));
    }

    /** It is on disk when this returns. */
    public void keep(Path data) throws IOException {
        WholeFile.write(
                file(data),
                "why: " + why.replace('\n', ' ') + "\nentry: " + entry + "\n"
                        + seen.map(receipt -> "receipt: " + receipt + "\n").orElse(""));
    }

    /** The ledger of a folder is the newest after all, or what it lacks is stated. */
    public static void settle(Path data) throws IOException {
        Files.deleteIfExists(file(data));
    }

    /** What people are told while no numbers are allocated. */
    public String message() {
        return "it is not known whether this ledger is the newest: " + why
                + ". Have it catch up from a journal copy, prove it by a head that was kept elsewhere (‘restore --head’), or state what may have been issued (‘restore state’)";
    }
}
