package org.youngtally.documents.part;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Locale;

/** Strings as ISO 10303-21, 6.4.3, writes them. */
final class StepText {
    private static final String WIDE = "\\X2\\";
    private static final String WIDEST = "\\X4\\";
    private static final String END = "\\X0\\";

    private final String written;
    private final StringBuilder text = new StringBuilder();
    /** The alphabet of {@code \S\}: a part of ISO 8859. */
    private Charset alphabet = StandardCharsets.ISO_8859_1;

    private StepText(String written) {
        this.written = written;
    }

    /**
     * @param from behind the apostrophe that begins it
     * @param to in front of the one that ends it
     * @throws IllegalArgumentException that says what is wrong with it
     */
    static String read(byte[] bytes, int from, int to) {
        boolean plain = true;
        for (int i = from; i < to && plain; i++) plain = bytes[i] >= ' ' && bytes[i] != '\\' && bytes[i] != '\'';
        if (plain) return new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
        return new StepText(decoded(bytes, from, to)).read();
    }

    /** Newer files are in UTF-8; older ones are in ASCII, or in what their writer had. */
    private static String decoded(byte[] bytes, int from, int to) {
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes, from, to - from))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(bytes, from, to - from, StandardCharsets.ISO_8859_1);
        }
    }

    private String read() {
        int at = 0;
        while (at < written.length()) {
            char symbol = written.charAt(at);
            if (symbol == '\\') at = directive(at);
            else {
                // A line may be broken anywhere; an apostrophe is doubled.
                if (symbol >= ' ') text.append(symbol);
                at += symbol == '\'' ? 2 : 1;
            }
        }
        return text.toString();
    }

    /** @return behind it */
    private int directive(int at) {
        if (written.startsWith("\\\\", at)) {
            text.append('\\');
            return at + 2;
        }
        if (written.startsWith("\\S\\", at) && at + 3 < written.length()) {
            text.append(new String(new byte[] {(byte) (written.charAt(at + 3) | 0x80)}, alphabet));
            return at + 4;
        }
        if (written.startsWith("\\P", at) && at + 3 < written.length() && written.charAt(at + 3) == '\\') {
            alphabet = alphabet(written.charAt(at + 2));
            return at + 4;
        }
        if (written.startsWith("\\X\\", at)) {
            text.append((char) hexadecimal(at + 3, 2));
            return at + 5;
        }
        if (written.startsWith(WIDE, at)) return wide(at + WIDE.length(), 4);
        if (written.startsWith(WIDEST, at)) return wide(at + WIDEST.length(), 8);
        if (written.startsWith("\\N\\", at) || written.startsWith("\\F\\", at)) {
            text.append(' ');
            return at + 3;
        }
        throw new IllegalArgumentException("‘" + written.substring(at, Math.min(at + 4, written.length()))
                + "’ is no beginning of an encoded symbol");
    }

    private static Charset alphabet(char letter) {
        if (letter < 'A' || letter > 'I') throw new IllegalArgumentException("‘\\P" + letter + "\\’ names no alphabet");
        return Charset.forName("ISO-8859-" + (letter - 'A' + 1));
    }

    private int wide(int from, int digits) {
        int end = written.indexOf(END, from);
        if (end < 0 || (end - from) % digits != 0)
            throw new IllegalArgumentException(
                    "encoded symbols are not ended by ‘" + END + "’ behind " + digits + " digits for each");
        for (int at = from; at < end; at += digits) {
            int symbol = hexadecimal(at, digits);
            if (!Character.isValidCodePoint(symbol))
                throw new IllegalArgumentException("‘" + written.substring(at, at + digits) + "’ is no symbol");
            text.appendCodePoint(symbol);
        }
        return end + END.length();
    }

    private int hexadecimal(int from, int digits) {
        if (from + digits > written.length())
            throw new IllegalArgumentException("an encoded symbol ends before its " + digits + " digits");
        int value = 0;
        for (int i = from; i < from + digits; i++) {
            int digit = Character.digit(written.charAt(i), 16);
            if (digit < 0)
                throw new IllegalArgumentException(
                        "‘" + written.substring(from, from + digits) + "’ is not hexadecimal");
            value = value << 4 | digit;
        }
        return value;
    }

    /** A text with the apostrophes around it, in ASCII, as every edition reads it. */
    static byte[] written(String text) {
        var out = new StringBuilder("'");
        for (int at = 0; at < text.length(); ) {
            int symbol = text.codePointAt(at);
            if (isPlain(symbol)) {
                if (symbol == '\'' || symbol == '\\') out.append((char) symbol);
                out.append((char) symbol);
                at++;
                continue;
            }
            boolean wide = Character.isBmpCodePoint(symbol);
            out.append(wide ? WIDE : WIDEST);
            while (at < text.length()
                    && !isPlain(text.codePointAt(at))
                    && Character.isBmpCodePoint(text.codePointAt(at)) == wide) {
                out.append(String.format(Locale.ROOT, wide ? "%04X" : "%08X", text.codePointAt(at)));
                at += Character.charCount(text.codePointAt(at));
            }
            out.append(END);
        }
        return out.append('\'').toString().getBytes(StandardCharsets.US_ASCII);
    }

    private static boolean isPlain(int symbol) {
        return symbol >= ' ' && symbol <= '~';
    }
}
