package org.youngtally.bench;

import java.io.BufferedOutputStream;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.Content;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.NumberedFile.Mark;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.documents.NumberedFile.Texts;

/** A large program and a large STEP file read, numbered and written, beside parsers that only read the same file. */
final class FileNumbering {
    private static final int ROUNDS = 7;
    private static final long PROGRAM = 100_000_000L;
    private static final long STEP = 200_000_000L;

    private FileNumbering() {}

    /** @param arguments {@code program} or {@code step} */
    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createTempDirectory("files");
        Path file = folder.resolve(arguments[0].equals("step") ? "hall.stp" : "plates.nc");
        Path written = folder.resolve("written");
        try {
            if (arguments[0].equals("step")) measure(file, written, step(file), Reading.USUAL, () -> statements(file));
            else measure(file, written, program(file), marks(), () -> lines(file));
        } finally {
            Files.deleteIfExists(file);
            Files.deleteIfExists(written);
            Files.delete(folder);
        }
    }

    private interface Read {
        long run() throws IOException;
    }

    private static void measure(Path file, Path written, String what, Reading reading, Read plain) throws Exception {
        double read = Double.MAX_VALUE;
        double numbered = Double.MAX_VALUE;
        double first = 0;
        int items = 0;
        for (int round = 0; round < ROUNDS; round++) {
            long begin = System.nanoTime();
            items = number(file, written, reading);
            double seconds = (System.nanoTime() - begin) / 1e9;
            if (round == 0) first = seconds;
            numbered = Math.min(numbered, seconds);
            begin = System.nanoTime();
            if (plain.run() == 0) throw new IllegalStateException("the plain parser read nothing");
            read = Math.min(read, (System.nanoTime() - begin) / 1e9);
        }
        System.out.println("| | s | ratio |\n|---|--:|--:|");
        System.out.printf("| %s of %,d MB, read alone | %.2f | |%n", what, Files.size(file) / 1_000_000, read);
        System.out.printf(
                "| read, %,d items numbered, written, with %,d MB of memory | %.2f | %.1f × |%n",
                items, Runtime.getRuntime().maxMemory() >> 20, numbered, numbered / read);
        System.out.printf("| the same for the first time in a fresh process | %.2f | |%n", first);
    }

    private static int number(Path file, Path written, Reading reading) throws Exception {
        NumberedFile read =
                NumberedFile.read(Content.of(file), file.getFileName().toString(), 1, reading);
        var changed = new HashMap<String, String>();
        for (Item item : read.items()) changed.put(item.id(), "P-" + (100_000 + changed.size()));
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(written), 1 << 16)) {
            read.write(new Texts(changed, Map.of()), out);
        }
        return changed.size();
    }

    private static Reading marks() {
        return new Reading(
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                List.of(
                        new Mark("<<SERIAL>>", Optional.of("number"), Optional.empty()),
                        new Mark("<<ORDER>>", Optional.of("order"), Optional.empty())),
                Map.of("order", "LW26-0117"),
                Optional.empty());
    }

    /** Moves of a cutter, and every thousand lines a piece. */
    private static String program(Path file) throws IOException {
        try (var out = Files.newBufferedWriter(file)) {
            long size = 0;
            for (int line = 0; size < PROGRAM; line++) {
                String text = line % 1_000 == 0
                        ? "L1 \"<<ORDER>> <<SERIAL>>\" H2.5\n"
                        : "G1 X" + line % 977 + ".125 Y" + line % 613 + ".250 F600\n";
                out.append(text);
                size += text.length();
            }
        }
        return "a program";
    }

    /** Points and edges, and among them products. */
    private static String step(Path file) throws IOException {
        try (var out = Files.newBufferedWriter(file)) {
            out.append(
                    "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('','',(''),(''),'','','');\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\nENDSEC;\nDATA;\n");
            long size = 0;
            for (long id = 1; size < STEP; id++) {
                String text = id % 5_000 == 0
                        ? "#" + id + "=PRODUCT('Part" + id + "','Pallet " + id + "','',(#3));\n"
                        : id % 3 == 0
                                ? "#" + id + "=EDGE_CURVE('',#" + (id - 1) + ",#" + (id - 2) + ",#" + id / 2
                                        + ",.T.);\n"
                                : "#" + id + "=CARTESIAN_POINT('',(" + id % 977 + ".125,-" + id % 613 + ".5E-3,0.));\n";
                out.append(text);
                size += text.length();
            }
            out.append("ENDSEC;\nEND-ISO-10303-21;\n");
        }
        return "a STEP file";
    }

    private static long lines(Path file) throws IOException {
        long symbols = 0;
        try (BufferedReader reader = Files.newBufferedReader(file)) {
            for (String line = reader.readLine(); line != null; line = reader.readLine()) symbols += line.length();
        }
        return symbols;
    }

    /** Splits the file into statements, as a plain parser begins. */
    private static long statements(Path file) throws IOException {
        String text = Files.readString(file, StandardCharsets.ISO_8859_1);
        long statements = 0;
        boolean quoted = false;
        int from = 0;
        for (int i = 0; i < text.length(); i++) {
            char symbol = text.charAt(i);
            if (symbol == '\'') quoted = !quoted;
            if (symbol != ';' || quoted) continue;
            statements += text.substring(from, i).isBlank() ? 0 : 1;
            from = i + 1;
        }
        return statements;
    }
}
