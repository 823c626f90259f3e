package org.youngtally.documents.program;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.util.List;
import org.youngtally.documents.Content;
import org.youngtally.documents.NumberedFile.Mark;
import org.youngtally.documents.UnreadableDocument;

/** Finds marks in a file that goes by, in bytes. */
final class MarkScanner {
    private static final int BLOCK = 1 << 18;

    private final List<Mark> marks;
    private final byte[][] texts;
    /** For each first byte whether a mark begins with it. */
    private final boolean[] begins = new boolean[256];

    private final int longest;
    private final Found found;
    private long line = 1;
    private long lineAt;
    /** Where the last mark ended, and which it was. */
    private long behind;

    private int last = -1;

    /** Gets each mark that is found, in their order. */
    interface Found {
        void mark(long at, int mark, long line, long lineAt) throws UnreadableDocument;
    }

    MarkScanner(List<Mark> marks, Charset charset, Found found) {
        this.marks = marks;
        this.found = found;
        this.texts = marks.stream().map(mark -> mark.text().getBytes(charset)).toArray(byte[][]::new);
        int most = 1;
        for (byte[] text : texts) {
            begins[text[0] & 0xFF] = true;
            most = Math.max(most, text.length);
        }
        this.longest = most;
    }

    void scan(Content content) throws IOException, UnreadableDocument {
        // What may be the beginning of a mark at the end of a block is looked at again in front of the next one.
        var block = new byte[longest - 1 + BLOCK];
        int kept = 0;
        long at = 0;
        try (InputStream in = content.open()) {
            while (true) {
                int count = in.readNBytes(block, kept, block.length - kept);
                int length = kept + count;
                boolean end = length < block.length;
                int until = end ? length : length - longest + 1;
                block(block, length, until, at);
                if (end) return;
                kept = length - until;
                System.arraycopy(block, until, block, 0, kept);
                at += until;
            }
        }
    }

    private void block(byte[] block, int length, int until, long at) throws UnreadableDocument {
        for (int i = 0; i < until; i++) {
            byte symbol = block[i];
            if (symbol == '\n') {
                line++;
                lineAt = at + i + 1;
            }
            if (begins[symbol & 0xFF]) marks(block, length, i, at + i);
        }
    }

    private void marks(byte[] block, int length, int from, long at) throws UnreadableDocument {
        for (int mark = 0; mark < texts.length; mark++) {
            if (!isAt(texts[mark], block, length, from)) continue;
            if (at < behind)
                throw new UnreadableDocument(
                        "Line " + line + ": the mark ‘" + marks.get(mark).text() + "’ overlaps the mark ‘"
                                + marks.get(last).text() + "’",
                        "marks that have nothing of each other");
            behind = at + texts[mark].length;
            last = mark;
            found.mark(at, mark, line, lineAt);
        }
    }

    private static boolean isAt(byte[] text, byte[] block, int length, int from) {
        if (from + text.length > length) return false;
        for (int i = 0; i < text.length; i++) if (block[from + i] != text[i]) return false;
        return true;
    }
}
