package org.youngtally.ledger.simulation;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.youngtally.ledger.journal.Disk;

/** The journal's disk of a simulated machine, which dies at a given step: before or after what it was asked to do. */
public final class MemoryDisk implements Disk {

    /** The process or the machine dies here; nobody catches it to go on. */
    public static final class Crash extends Error {
        private static final long serialVersionUID = 1L;

        public Crash() {
            super("a simulated crash", null, false, false);
        }
    }

    private static final class Content {
        private byte[] bytes = new byte[1 << 12];
        private int size;
        private int forced;
    }

    private final Map<String, Content> files = new TreeMap<>();
    private final Random random;
    private final boolean forcing;
    private int stepsLeft = Integer.MAX_VALUE;
    private int stepsToCopy = Integer.MAX_VALUE;
    private MemoryDisk taken;

    /** @param forcing whether what is forced is kept, as it should be */
    public MemoryDisk(Random random, boolean forcing) {
        this.random = random;
        this.forcing = forcing;
    }

    /** Dies after so many steps more. */
    public void dieAfter(int steps) {
        stepsLeft = steps;
    }

    public void live() {
        stepsLeft = Integer.MAX_VALUE;
    }

    /** Is copied after so many steps more, with whatever is written by then. */
    public void copyAfter(int steps) {
        stepsToCopy = steps;
    }

    /** The copy that was to be taken; absent where none was. */
    public Optional<MemoryDisk> taken() {
        Optional<MemoryDisk> now = Optional.ofNullable(taken);
        taken = null;
        return now;
    }

    /** No copy is taken after all. */
    public void forgetCopy() {
        stepsToCopy = Integer.MAX_VALUE;
        taken = null;
    }

    private MemoryDisk copied() {
        var copy = new MemoryDisk(random, forcing);
        files.forEach((name, content) -> {
            var same = new Content();
            same.bytes = content.bytes.clone();
            same.size = content.size;
            same.forced = content.size;
            copy.files.put(name, same);
        });
        return copy;
    }

    /** Whether it has died, and lives no more. */
    public boolean isDead() {
        return stepsLeft < 0;
    }

    /** A step at which the machine can die, on a disk or elsewhere. */
    public void step() {
        if (stepsToCopy-- <= 0) {
            stepsToCopy = Integer.MAX_VALUE;
            taken = copied();
        }
        if (stepsLeft-- <= 0) {
            stepsLeft = -1;
            throw new Crash();
        }
    }

    /** The power goes off: of what was not forced some is there, some is not, and some is nothing but noughts. */
    public void cutPower() {
        for (Content file : files.values()) {
            int kept = file.forced + (file.size > file.forced ? random.nextInt(file.size - file.forced + 1) : 0);
            if (kept > file.forced && random.nextBoolean()) {
                int from = file.forced + random.nextInt(kept - file.forced);
                Arrays.fill(file.bytes, from, Math.min(kept, from + 1 + random.nextInt(512)), (byte) 0);
            }
            file.size = kept;
            file.forced = kept;
        }
    }

    @Override
    public List<String> names() {
        return List.copyOf(files.keySet());
    }

    @Override
    public InputStream read(String name) {
        return new ByteArrayInputStream(files.get(name).bytes, 0, files.get(name).size);
    }

    @Override
    public long size(String name) {
        return files.get(name).size;
    }

    @Override
    public AppendFile append(String name) {
        step();
        Content content = files.computeIfAbsent(name, added -> new Content());
        return new Appending(content);
    }

    @Override
    public void remove(String name) {
        step();
        files.remove(name);
    }

    @Override
    public void tryWriting() {}

    private final class Appending implements AppendFile {
        private final Content content;

        Appending(Content content) {
            this.content = content;
        }

        @Override
        public long size() {
            return content.size;
        }

        @Override
        public void append(byte[] bytes) {
            step();
            int half = bytes.length / 2;
            put(bytes, 0, half);
            step();
            put(bytes, half, bytes.length - half);
        }

        private void put(byte[] bytes, int from, int length) {
            if (content.bytes.length < content.size + length)
                content.bytes = Arrays.copyOf(content.bytes, Math.max(content.bytes.length * 2, content.size + length));
            System.arraycopy(bytes, from, content.bytes, content.size, length);
            content.size += length;
        }

        @Override
        public void force() {
            step();
            if (forcing) content.forced = content.size;
            step();
        }

        @Override
        public void truncate(long size) {
            step();
            content.size = (int) size;
            content.forced = Math.min(content.forced, content.size);
        }

        @Override
        public void close() {}
    }
}
