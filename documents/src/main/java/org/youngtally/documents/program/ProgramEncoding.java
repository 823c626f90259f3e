package org.youngtally.documents.program;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import org.youngtally.documents.Content;
import org.youngtally.documents.UnreadableDocument;

/** In what a program is written: UTF-8, or where it is not, each byte a symbol of Windows-1252. */
final class ProgramEncoding {
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    /** How many bytes are still to come of a symbol. */
    private int open;

    private boolean wide = true;

    private ProgramEncoding() {}

    static Charset of(Content content, String name) throws IOException, UnreadableDocument {
        var encoding = new ProgramEncoding();
        var block = new byte[1 << 18];
        boolean first = true;
        try (InputStream in = content.open()) {
            for (int count = in.readNBytes(block, 0, block.length);
                    count > 0 && encoding.wide;
                    count = in.readNBytes(block, 0, block.length)) {
                if (first && count > 1 && isMark(block))
                    throw new UnreadableDocument(
                            "‘" + name + "’ is written in UTF-16", "the same program saved in UTF-8");
                first = false;
                encoding.look(block, count);
            }
        }
        return encoding.wide && encoding.open == 0 ? StandardCharsets.UTF_8 : WINDOWS;
    }

    private static boolean isMark(byte[] block) {
        int begin = (block[0] & 0xFF) << 8 | block[1] & 0xFF;
        return begin == 0xFFFE || begin == 0xFEFF;
    }

    private void look(byte[] block, int count) {
        for (int i = 0; i < count; i++) {
            byte each = block[i];
            if (each >= 0 && open == 0) continue;
            if (open > 0) {
                if ((each & 0xC0) != 0x80) wide = false;
                open--;
            } else {
                int lead = each & 0xFF;
                open = lead >= 0xF0 && lead <= 0xF4 ? 3 : lead >= 0xE0 ? 2 : lead >= 0xC2 ? 1 : 0;
                if (open == 0 || lead > 0xF4) wide = false;
            }
            if (!wide) return;
        }
    }
}
