package org.youngtally.ledger.powercut;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.List;
import org.youngtally.ledger.journal.Disk;

/** The journal's disk on a machine whose power can go off. */
record PlatterDisk(Power power) implements Disk {
    private static final String FOLDER = "journal/";

    @Override
    public List<String> names() {
        return power.files().keySet().stream()
                .filter(name -> name.startsWith(FOLDER))
                .map(name -> name.substring(FOLDER.length()))
                .toList();
    }

    @Override
    public InputStream read(String name) {
        return new ByteArrayInputStream(power.file(FOLDER + name).content());
    }

    @Override
    public long size(String name) {
        return power.file(FOLDER + name).size();
    }

    @Override
    public AppendFile append(String name) throws IOException {
        power.operation(Power.Kind.JOURNAL_WRITE);
        return new PlatterFile(power, power.file(FOLDER + name));
    }

    @Override
    public void remove(String name) throws IOException {
        power.operation(Power.Kind.JOURNAL_WRITE);
        power.remove(FOLDER + name);
    }

    @Override
    public void tryWriting() throws IOException {
        power.operation(Power.Kind.JOURNAL_WRITE);
    }

    private record PlatterFile(Power power, Platter platter) implements AppendFile {
        @Override
        public long size() {
            return platter.size();
        }

        /** Written in two strokes, so that the power can go off between them. */
        @Override
        public void append(byte[] bytes) throws IOException {
            power.operation(Power.Kind.JOURNAL_WRITE, true);
            int half = bytes.length / 2;
            platter.write(platter.size(), ByteBuffer.wrap(bytes, 0, half));
            power.operation(Power.Kind.JOURNAL_WRITE, true);
            platter.write(platter.size(), ByteBuffer.wrap(bytes, half, bytes.length - half));
        }

        @Override
        public void force() throws IOException {
            power.operation(Power.Kind.JOURNAL_FORCE);
            power.force(platter);
        }

        @Override
        public void truncate(long size) throws IOException {
            power.operation(Power.Kind.JOURNAL_WRITE);
            platter.truncate(size);
            power.force(platter);
        }

        @Override
        public void close() {}
    }
}
