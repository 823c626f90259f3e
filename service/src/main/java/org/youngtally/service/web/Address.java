package org.youngtally.service.web;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Optional;

/**
 * Addresses as they may be written, by RFC 3986: in one way only, so that whoever looks at the text of one and whoever
 * decodes it see the same.
 */
final class Address {
    /** What needs no percent sign beside letters and digits. */
    private static final String UNRESERVED = "-._~";

    private Address() {}

    /**
     * What is wrong with the path of an address.
     *
     * @param path as it was sent
     * @return that the path has it, in the words behind "has"
     */
    static Optional<String> fault(String path) {
        // A server is asked about itself by a star.
        if (!path.startsWith("/")) return Optional.of("no ‘/’ at its beginning");
        for (String refused : new String[] {";", "\\", "//"})
            if (path.contains(refused)) return Optional.of("‘" + refused + "’");
        for (String segment : path.contains("/.") ? path.split("/") : new String[0])
            if (segment.equals(".") || segment.equals("..")) return Optional.of("a part ‘" + segment + "’");
        for (int i = path.indexOf('%'); i >= 0; i = path.indexOf('%', i + 1)) {
            int coded = coded(path, i);
            if (coded < 0) return Optional.of("a percent sign without a byte");
            if (coded == '/'
                    || coded == '\\'
                    || Character.isLetterOrDigit(coded) && coded < 0x80
                    || UNRESERVED.indexOf(coded) >= 0)
                return Optional.of("‘" + path.substring(i, i + 3) + "’ for ‘" + (char) coded + "’");
        }
        return Optional.empty();
    }

    /** The byte behind a percent sign, or -1. */
    private static int coded(String text, int at) {
        return at + 2 < text.length()
                        && HexFormat.isHexDigit(text.charAt(at + 1))
                        && HexFormat.isHexDigit(text.charAt(at + 2))
                ? HexFormat.fromHexDigits(text, at + 1, at + 3)
                : -1;
    }

    /** Whether all percent signs are followed by a byte, and the bytes are UTF-8; so is what is absent. */
    static boolean isReadable(String text) {
        if (text == null || text.indexOf('%') < 0 && isAscii(text)) return true;
        var bytes = ByteBuffer.allocate(text.length() * 3);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c != '%') {
                if (c >= 0x80) return false;
                bytes.put((byte) c);
                continue;
            }
            int coded = coded(text, i);
            if (coded < 0) return false;
            bytes.put((byte) coded);
            i += 2;
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(bytes.flip());
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    private static boolean isAscii(String text) {
        return text.chars().allMatch(symbol -> symbol < 0x80);
    }
}
