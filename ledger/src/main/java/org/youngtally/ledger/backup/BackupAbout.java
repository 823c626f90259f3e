package org.youngtally.ledger.backup;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.WholeFile;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a backup says of itself, in its file {@code backup.json}; it is written once the backup was opened and audited.
 *
 * @param ledger the name of the ledger: the first 16 hexadecimal digits of the hash of its first entry
 * @param head the newest entry that it has
 * @param at when it was made
 * @param files how many files of records it has
 * @param damaged how many of them are not what was kept
 * @param secret whether it has the secret of the data folder
 * @param scheduled whether it was made by the schedule, which deletes it again
 */
public record BackupAbout(
        String ledger, Head head, Instant at, long files, long damaged, boolean secret, boolean scheduled) {
    static final String NAME = "backup.json";
    private static final ObjectMapper MAPPER = JsonMapper.shared();
    private static final int FORMAT = 1;

    /** @throws IOException where a folder is no backup, or one of a later release */
    public static BackupAbout in(Path backup) throws IOException {
        try {
            JsonNode node = MAPPER.readTree(Files.readString(backup.resolve(NAME)));
            int format = node.required("format").intValue();
            if (format != FORMAT)
                throw new IOException(backup + " is of format " + format + ", and this release reads format " + FORMAT);
            return new BackupAbout(
                    node.required("ledger").stringValue(),
                    Head.parse(node.required("head").stringValue()),
                    Instant.parse(node.required("at").stringValue()),
                    node.required("files").longValue(),
                    node.required("damaged").longValue(),
                    node.required("secret").booleanValue(),
                    node.required("scheduled").booleanValue());
        } catch (NoSuchFileException e) {
            throw new IOException(backup + " is no backup: it has no file " + NAME, e);
        } catch (JacksonException | DateTimeException | IllegalArgumentException e) {
            throw new IOException(backup.resolve(NAME) + " cannot be read: " + e.getMessage(), e);
        }
    }

    void keep(Path backup) throws IOException {
        var node = MAPPER.createObjectNode();
        node.put("format", FORMAT);
        node.put("ledger", ledger);
        node.put("head", head.toString());
        node.put("at", at.toString());
        node.put("files", files);
        node.put("damaged", damaged);
        node.put("secret", secret);
        node.put("scheduled", scheduled);
        WholeFile.write(backup.resolve(NAME), node.toPrettyString() + "\n");
    }
}
