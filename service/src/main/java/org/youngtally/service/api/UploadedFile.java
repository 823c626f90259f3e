package org.youngtally.service.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/**
 * The file of a request, in the system's folder for temporary files while the request is answered: the journal needs
 * the data folder's disk.
 *
 * @param digest SHA-256 of its bytes, in small hexadecimal digits
 */
record UploadedFile(Path path, String digest) implements AutoCloseable {
    static final long MOST_BYTES = 1_000_000_000;

    static UploadedFile of(HttpServletRequest request) throws IOException {
        Path path = Files.createTempFile("youngtally-table-", null);
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (InputStream in = new DigestInputStream(Requests.file(request), digest)) {
                Files.copy(in, path, StandardCopyOption.REPLACE_EXISTING);
            }
            return new UploadedFile(path, HexFormat.of().formatHex(digest.digest()));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        } catch (IOException | RuntimeException e) {
            Files.deleteIfExists(path);
            throw e;
        }
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(path);
    }
}
