package org.youngtally.cli;

import com.google.gson.JsonObject;
import com.google.gson.JsonParseException;
import com.google.gson.JsonParser;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * The last receipt of each ledger that answered, by the ledger's own name: {@code ledger.epoch.entry.mac}, where an
 * epoch begins with the ledger's generation and a dash. They are sent with every request, so that a ledger that was put
 * back to an older state learns of it. In a file of whoever runs the command.
 */
final class KeptReceipts {
    static final String HEADER = "Ledger-Receipt";
    /** A request carries no more. */
    private static final int MOST = 8;

    private static boolean told;

    private KeptReceipts() {}

    private static Path file() {
        return Surroundings.variable("XDG_STATE_HOME")
                .map(Path::of)
                .orElseGet(() -> Path.of(System.getProperty("user.home"), ".local", "state"))
                .resolve("youngtally")
                .resolve("receipts.json");
    }

    private static JsonObject all() {
        try {
            return Files.exists(file())
                    ? JsonParser.parseString(Files.readString(file())).getAsJsonObject()
                    : new JsonObject();
        } catch (IOException | JsonParseException | IllegalStateException e) {
            tell("The receipts in " + file() + " cannot be read (" + e.getMessage() + "). Delete the file.");
            return new JsonObject();
        }
    }

    /** What a request shows; empty where nothing is kept. */
    static String shown() {
        var receipts = new ArrayList<String>();
        all().asMap().values().forEach(receipt -> receipts.add(receipt.getAsString()));
        return String.join(",", receipts);
    }

    /** The receipt of a ledger; absent where none is kept. */
    static Optional<String> of(String ledger) {
        return Optional.ofNullable(all().get(ledger)).map(receipt -> receipt.getAsString());
    }

    /** @param receipt as an answer carried it; null where it carried none */
    static void keep(String receipt) {
        if (receipt == null) return;
        String[] parts = receipt.split("\\.");
        if (parts.length != 4) return;
        JsonObject all = all();
        String before = all.has(parts[0]) ? all.get(parts[0]).getAsString() : "";
        if (before.equals(receipt) || !before.isEmpty() && isBehind(parts, before.split("\\."))) return;
        all.remove(parts[0]);
        while (all.size() >= MOST) all.remove(List.copyOf(all.keySet()).getFirst());
        all.addProperty(parts[0], receipt);
        try {
            Files.createDirectories(file().getParent());
            Path fresh = Files.createTempFile(file().getParent(), "receipts", ".json");
            Files.writeString(fresh, all.toString());
            Files.move(fresh, file(), StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            tell("The receipt of the ledger cannot be kept in " + file() + ": " + e.getMessage());
        }
    }

    /** Whether a receipt is of an older state than one that is kept. */
    private static boolean isBehind(String[] receipt, String[] kept) {
        try {
            int generation = generation(receipt[1]) - generation(kept[1]);
            return generation < 0 || generation == 0 && Long.parseLong(receipt[2]) < Long.parseLong(kept[2]);
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            tell("The receipts in " + file() + " cannot be read (" + e.getMessage() + "). Delete the file.");
            return false;
        }
    }

    private static int generation(String epoch) {
        return Integer.parseInt(epoch.split("-")[0]);
    }

    /** Once a command, and behind what it prints for others to read. */
    private static void tell(String what) {
        if (!told) System.err.println(what);
        told = true;
    }
}
