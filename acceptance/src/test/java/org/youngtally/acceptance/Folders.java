package org.youngtally.acceptance;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders as a whole. */
final class Folders {
    private Folders() {}

    static void copy(Path from, Path to) throws IOException {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) {
                Path place = to.resolve(from.relativize(file).toString());
                if (Files.isDirectory(file)) Files.createDirectories(place);
                else Files.copy(file, place);
            }
        }
    }

    /** Where it is there. */
    static void delete(Path folder) throws IOException {
        if (!Files.exists(folder)) return;
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
        }
    }
}
