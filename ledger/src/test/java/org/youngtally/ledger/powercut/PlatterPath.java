package org.youngtally.ledger.powercut;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.h2.store.fs.FileBase;
import org.h2.store.fs.FilePath;
import org.h2.store.fs.FilePathWrapper;

/**
 * H2's files on a machine whose power can go off, as a file system that H2 is told to use:
 * {@code platter:/folder/file}.
 */
public final class PlatterPath extends FilePathWrapper {
    private static final Map<String, Power> MACHINES = new ConcurrentHashMap<>();

    static {
        FilePath.register(new PlatterPath());
    }

    /** The files below a folder belong to a machine. */
    static void plug(String folder, Power power) {
        MACHINES.put(folder, power);
    }

    static void unplug(String folder) {
        MACHINES.remove(folder);
    }

    @Override
    public String getScheme() {
        return "platter";
    }

    @Override
    public FileChannel open(String mode) throws IOException {
        String path = getBase().toString();
        var machine = MACHINES.entrySet().stream()
                .filter(each -> path.startsWith(each.getKey()))
                .findFirst()
                .orElseThrow(() -> new IOException("no machine has " + path));
        return new PlatterChannel(
                getBase().open(mode), machine.getValue(), machine.getValue().file("tables/" + getName()));
    }

    private static final class PlatterChannel extends FileBase {
        private final FileChannel base;
        private final Power power;
        private final Platter platter;

        PlatterChannel(FileChannel base, Power power, Platter platter) {
            this.base = base;
            this.power = power;
            this.platter = platter;
        }

        @Override
        public long size() throws IOException {
            return base.size();
        }

        @Override
        public long position() throws IOException {
            return base.position();
        }

        @Override
        public FileChannel position(long position) throws IOException {
            base.position(position);
            return this;
        }

        @Override
        public int read(ByteBuffer bytes) throws IOException {
            return base.read(bytes);
        }

        @Override
        public int read(ByteBuffer bytes, long position) throws IOException {
            return base.read(bytes, position);
        }

        @Override
        public int write(ByteBuffer bytes) throws IOException {
            long position = base.position();
            int written = write(bytes, position);
            base.position(position + written);
            return written;
        }

        @Override
        public int write(ByteBuffer bytes, long position) throws IOException {
            power.operation(Power.Kind.TABLES, position + bytes.remaining() > base.size());
            platter.write(position, bytes.duplicate());
            return base.write(bytes, position);
        }

        @Override
        public FileChannel truncate(long size) throws IOException {
            power.operation(Power.Kind.TABLES);
            platter.truncate(size);
            base.truncate(size);
            return this;
        }

        @Override
        public void force(boolean metaData) throws IOException {
            power.operation(Power.Kind.TABLES);
            power.force(platter);
        }

        @Override
        public FileLock tryLock(long position, long size, boolean shared) throws IOException {
            return base.tryLock(position, size, shared);
        }

        @Override
        protected void implCloseChannel() throws IOException {
            base.close();
        }
    }
}
