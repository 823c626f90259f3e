package org.youngtally.service.web;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;

/** Addresses with bytes behind percent signs, by RFC 3986. */
final class PercentCoding {
    private static final int HEX = 16;

    private PercentCoding() {}

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
            if (i + 2 >= text.length()) return false;
            int high = Character.digit(text.charAt(i + 1), HEX);
            int low = Character.digit(text.charAt(i + 2), HEX);
            if (high < 0 || low < 0) return false;
            bytes.put((byte) (high * HEX + low));
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
