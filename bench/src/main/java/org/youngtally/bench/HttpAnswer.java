package org.youngtally.bench;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;

/** Where an HTTP/1.1 answer ends, by its length or by its chunks (RFC 9112, 6.3 and 7.1). */
final class HttpAnswer {
    private static final byte[] LENGTH = "content-length:".getBytes(StandardCharsets.US_ASCII);

    private HttpAnswer() {}

    /**
     * Whether the answer has come whole.
     *
     * @param answer what has come of it, from 0 to the position
     * @throws IOException where its status is not one of success
     */
    static boolean isWhole(ByteBuffer answer) throws IOException {
        byte[] bytes = answer.array();
        int end = answer.position();
        int line = lineEnd(bytes, 0, end);
        if (line < 0) return false;
        if (bytes[9] != '2') throw new IOException(new String(bytes, 0, end, StandardCharsets.UTF_8));
        int length = -1;
        while (true) {
            int from = line + 1;
            line = lineEnd(bytes, from, end);
            if (line < 0) return false;
            if (line == from + 1) break;
            if (isLength(bytes, from, line)) length = number(bytes, from + LENGTH.length, line, 10);
        }
        return length >= 0 ? end >= line + 1 + length : chunksAreWhole(bytes, line + 1, end);
    }

    private static boolean chunksAreWhole(byte[] bytes, int start, int end) {
        for (int from = start; ; ) {
            int line = lineEnd(bytes, from, end);
            if (line < 0) return false;
            int length = number(bytes, from, line, 16);
            from = line + 1 + length + 2;
            if (from > end) return false;
            if (length == 0) return true;
        }
    }

    private static int lineEnd(byte[] bytes, int from, int end) {
        for (int i = from; i < end; i++) if (bytes[i] == '\n') return i;
        return -1;
    }

    private static boolean isLength(byte[] bytes, int from, int end) {
        if (end - from < LENGTH.length) return false;
        for (int i = 0; i < LENGTH.length; i++) if ((bytes[from + i] | 0x20) != (LENGTH[i] | 0x20)) return false;
        return true;
    }

    private static int number(byte[] bytes, int from, int end, int radix) {
        int number = 0;
        for (int i = from; i < end; i++) {
            int digit = Character.digit(bytes[i], radix);
            if (digit >= 0) number = number * radix + digit;
        }
        return number;
    }
}
