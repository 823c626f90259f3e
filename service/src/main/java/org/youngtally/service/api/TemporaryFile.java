package org.youngtally.service.api;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** A file that is made for one answer, in the system's folder for temporary files. */
record TemporaryFile(Path path) implements AutoCloseable {

    static TemporaryFile create() throws IOException {
        return new TemporaryFile(Files.createTempFile("youngtally-answer-", null));
    }

    /** SHA-256 of its bytes, in small hexadecimal digits. */
    String digest() throws IOException {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            try (InputStream in = new DigestInputStream(Files.newInputStream(path), digest)) {
                in.transferTo(OutputStream.nullOutputStream());
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    void send(HttpServletResponse response) throws IOException {
        response.setContentLengthLong(Files.size(path));
        Files.copy(path, response.getOutputStream());
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(path);
    }
}
