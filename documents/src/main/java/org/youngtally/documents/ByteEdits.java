package org.youngtally.documents;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Other bytes in some places of a file; every other byte stays. */
public final class ByteEdits {
    private final byte[] bytes;
    private final List<Edit> edits = new ArrayList<>();

    public ByteEdits(byte[] bytes) {
        this.bytes = bytes;
    }

    private record Edit(int from, int to, byte[] with) {}

    /** @param to behind the last byte that is replaced */
    public void replace(int from, int to, byte[] with) {
        edits.add(new Edit(from, to, with));
    }

    public void write(OutputStream out) throws IOException {
        edits.sort(Comparator.comparingInt(Edit::from));
        int at = 0;
        for (Edit edit : edits) {
            out.write(bytes, at, edit.from() - at);
            out.write(edit.with());
            at = edit.to();
        }
        out.write(bytes, at, bytes.length - at);
    }
}
