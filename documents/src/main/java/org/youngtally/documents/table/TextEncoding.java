package org.youngtally.documents.table;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.youngtally.documents.UnreadableDocument;

/**
 * The encoding of a text file.
 *
 * @param guessed whether nothing in the file says so
 */
record TextEncoding(Charset charset, boolean guessed) {
    private static final int BUFFER = 1 << 16;
    private static final Charset WINDOWS = Charset.forName("windows-1252");
    private static final Map<String, Charset> NAMED = Map.of(
            "utf-8", StandardCharsets.UTF_8,
            "utf-16", StandardCharsets.UTF_16,
            "utf-16le", StandardCharsets.UTF_16LE,
            "utf-16be", StandardCharsets.UTF_16BE,
            "windows-1252", WINDOWS,
            "iso-8859-1", StandardCharsets.ISO_8859_1);
    private static final String NAMES = "utf-8, utf-16, utf-16le, utf-16be, windows-1252 or iso-8859-1";

    /** The encoding that was named, or else the one that a mark at the beginning names, or UTF-8, or Windows-1252. */
    static TextEncoding of(Path file, Optional<String> named) throws IOException, UnreadableDocument {
        if (named.isPresent()) {
            Charset charset = NAMED.get(named.get().toLowerCase(Locale.ROOT));
            if (charset == null) throw new UnreadableDocument("‘" + named.get() + "’ is no encoding", NAMES);
            return new TextEncoding(charset, false);
        }
        try (InputStream in = Files.newInputStream(file)) {
            byte[] start = in.readNBytes(BUFFER);
            if (starts(start, 0xFF, 0xFE) || starts(start, 0xFE, 0xFF))
                return new TextEncoding(StandardCharsets.UTF_16, false);
            for (byte each : start)
                if (each == 0)
                    throw new UnreadableDocument(
                            "The file is no text in UTF-8 or Windows-1252: it has bytes that are zero",
                            "a text file, or its encoding, one of " + NAMES);
        }
        return isUtf8(file) ? new TextEncoding(StandardCharsets.UTF_8, false) : new TextEncoding(WINDOWS, true);
    }

    private static boolean starts(byte[] bytes, int first, int second) {
        return bytes.length > 1 && (bytes[0] & 0xFF) == first && (bytes[1] & 0xFF) == second;
    }

    private static boolean isUtf8(Path file) throws IOException {
        CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
        var bytes = ByteBuffer.allocate(BUFFER);
        var symbols = CharBuffer.allocate(BUFFER);
        try (var channel = Files.newByteChannel(file)) {
            while (channel.read(bytes) >= 0) {
                bytes.flip();
                CoderResult result = decoder.decode(bytes, symbols, false);
                if (result.isError()) return false;
                symbols.clear();
                bytes.compact();
            }
        }
        bytes.flip();
        return !decoder.decode(bytes, symbols, true).isError();
    }

    /** Reads the file; what is not of the encoding is refused with its name. */
    Reader reader(Path file) throws IOException {
        CharsetDecoder decoder = charset.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(charset.equals(WINDOWS) ? CodingErrorAction.REPLACE : CodingErrorAction.REPORT);
        return new BufferedReader(new InputStreamReader(Files.newInputStream(file), decoder), BUFFER);
    }

    /** Copies the file; the symbols count as those that {@link #reader} reads. */
    TextCopy copy(Path file, OutputStream to) throws IOException {
        if (charset.equals(WINDOWS))
            // Each byte is a symbol in both, and this one loses none.
            return new TextCopy(
                    Files.newBufferedReader(file, StandardCharsets.ISO_8859_1),
                    to,
                    StandardCharsets.ISO_8859_1,
                    WINDOWS);
        if (!charset.equals(StandardCharsets.UTF_16)) return new TextCopy(reader(file), to, charset, charset);
        InputStream in = Files.newInputStream(file);
        byte[] mark = in.readNBytes(2);
        boolean little = starts(mark, 0xFF, 0xFE);
        if (little || starts(mark, 0xFE, 0xFF)) to.write(mark);
        else {
            in.close();
            in = Files.newInputStream(file);
        }
        Charset plain = little ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE;
        return new TextCopy(new BufferedReader(new InputStreamReader(in, plain), BUFFER), to, plain, plain);
    }

    /** For a file that is not written as it was said. */
    UnreadableDocument wrong(IOException e) {
        return new UnreadableDocument("The file is not written in " + charset.name(), NAMES, e);
    }

    /** What a reader should know; empty where there is nothing to say. */
    Optional<String> note() {
        return guessed
                ? Optional.of("The file is not UTF-8 and was read as Windows-1252; name its encoding if that is wrong.")
                : charset.equals(StandardCharsets.UTF_8)
                        ? Optional.empty()
                        : Optional.of("The file was read as " + charset.name() + ".");
    }
}
