package org.youngtally.documents;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** The bytes of a file, in memory or where they are. */
public interface Content {
    InputStream open() throws IOException;

    /** All of them. */
    byte[] bytes() throws IOException;

    static Content of(byte[] bytes) {
        return new Content() {
            @Override
            public InputStream open() {
                return new ByteArrayInputStream(bytes);
            }

            @Override
            public byte[] bytes() {
                return bytes;
            }
        };
    }

    static Content of(Path file) {
        return new Content() {
            @Override
            public InputStream open() throws IOException {
                return Files.newInputStream(file);
            }

            @Override
            public byte[] bytes() throws IOException {
                return Files.readAllBytes(file);
            }
        };
    }
}
