package org.youngtally.core.gs1;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Optional;

/** Texts in the path and the query of a link: all but the unreserved symbols escaped (RFC 3986, section 2). */
final class PercentCode {
    private static final String UNRESERVED = "-._~";
    private static final HexFormat HEX = HexFormat.of().withUpperCase();

    private PercentCode() {}

    static String escaped(String text) {
        var escaped = new StringBuilder();
        for (byte each : text.getBytes(StandardCharsets.UTF_8)) {
            char symbol = (char) (each & 0xff);
            boolean plain = symbol < 0x80 && (Character.isLetterOrDigit(symbol) || UNRESERVED.indexOf(symbol) >= 0);
            if (plain) escaped.append(symbol);
            else escaped.append('%').append(HEX.toHexDigits(each));
        }
        return escaped.toString();
    }

    /** Empty where a percent sign has no two hexadecimal digits behind it. */
    static Optional<String> read(String escaped) {
        byte[] from = escaped.getBytes(StandardCharsets.UTF_8);
        byte[] bytes = new byte[from.length];
        int length = 0;
        for (int at = 0; at < from.length; at++) {
            if (from[at] != '%') {
                bytes[length++] = from[at];
                continue;
            }
            if (at + 2 >= from.length || !HexFormat.isHexDigit(from[at + 1]) || !HexFormat.isHexDigit(from[at + 2]))
                return Optional.empty();
            bytes[length++] = (byte) (HexFormat.fromHexDigit(from[at + 1]) << 4 | HexFormat.fromHexDigit(from[at + 2]));
            at += 2;
        }
        return Optional.of(new String(bytes, 0, length, StandardCharsets.UTF_8));
    }
}
