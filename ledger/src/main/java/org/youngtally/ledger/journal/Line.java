package org.youngtally.ledger.journal;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * One line of the journal: a JSON object whose last property is {@code hash}, the SHA-256 of the line before's hash (as
 * its 64 digits) followed by the bytes of this line before {@code ,"hash":}. The last line of a batch says in
 * {@code batch} how many lines were forced to disk together.
 *
 * @param seq the entry's sequence number
 * @param batch how many lines the batch had that this line ends; 0 inside a batch
 * @param bytes the whole line without its line feed
 */
record Line(long seq, int batch, byte[] bytes) {
    private static final byte[] HASH = ",\"hash\":\"".getBytes(StandardCharsets.US_ASCII);
    private static final byte[] START = "{\"seq\":".getBytes(StandardCharsets.US_ASCII);
    private static final int DIGITS = 64;
    private static final int TAIL = HASH.length + DIGITS + 2;
    /** The most that {@code ,"batch":123456789} takes. */
    private static final int LONGEST_BATCH = 19;

    private static final Pattern BATCH = Pattern.compile(",\"batch\":([0-9]{1,9})$");

    /** Writes an entry as the line that follows {@code previous}, and returns its head. */
    static Head write(Entry entry, int batch, String previous, ByteArrayOutputStream to, MessageDigest sha256) {
        var body = new ByteArrayOutputStream(400);
        EntryJson.write(entry, body);
        byte[] object = body.toByteArray();
        byte[] end = batch == 0 ? new byte[0] : (",\"batch\":" + batch).getBytes(StandardCharsets.US_ASCII);
        sha256.update(previous.getBytes(StandardCharsets.US_ASCII));
        sha256.update(object, 0, object.length - 1);
        sha256.update(end);
        String hash = HexFormat.of().formatHex(sha256.digest());
        to.write(object, 0, object.length - 1);
        to.writeBytes(end);
        to.writeBytes(HASH);
        to.writeBytes(hash.getBytes(StandardCharsets.US_ASCII));
        to.write('"');
        to.write('}');
        to.write('\n');
        return new Head(entry.seq(), hash);
    }

    /** How the line of an entry begins. */
    static byte[] start(long seq) {
        return ("{\"seq\":" + seq + ",").getBytes(StandardCharsets.US_ASCII);
    }

    /** Takes the bytes for a line if they have a line's shape; what is in it is not looked at. */
    static Optional<Line> of(byte[] bytes) {
        int tail = bytes.length - TAIL;
        if (tail <= START.length
                || !startsWith(bytes, 0, START)
                || !startsWith(bytes, tail, HASH)
                || bytes[bytes.length - 2] != '"'
                || bytes[bytes.length - 1] != '}') return Optional.empty();
        long seq = 0;
        int at = START.length;
        for (; bytes[at] >= '0' && bytes[at] <= '9' && at < START.length + 18; at++) seq = seq * 10 + bytes[at] - '0';
        if (bytes[at] != ',') return Optional.empty();
        return Optional.of(new Line(seq, batch(bytes, tail), bytes));
    }

    private static int batch(byte[] bytes, int tail) {
        if (bytes[tail - 1] < '0' || bytes[tail - 1] > '9') return 0;
        int from = Math.max(0, tail - LONGEST_BATCH);
        Matcher matcher = BATCH.matcher(new String(bytes, from, tail - from, StandardCharsets.ISO_8859_1));
        return matcher.find() ? Integer.parseInt(matcher.group(1)) : 0;
    }

    private static boolean startsWith(byte[] bytes, int at, byte[] expected) {
        for (int i = 0; i < expected.length; i++) if (bytes[at + i] != expected[i]) return false;
        return true;
    }

    /** The hash that the line states. */
    String hash() {
        return new String(bytes, bytes.length - 2 - DIGITS, DIGITS, StandardCharsets.US_ASCII);
    }

    /** Whether the stated hash is the true one after a line with that hash. */
    boolean follows(String previous, MessageDigest sha256) {
        sha256.update(previous.getBytes(StandardCharsets.US_ASCII));
        sha256.update(bytes, 0, bytes.length - TAIL);
        return HexFormat.of().formatHex(sha256.digest()).equals(hash());
    }

    Head head() {
        return new Head(seq, hash());
    }

    Entry entry() {
        return EntryJson.read(bytes);
    }
}
