package org.youngtally.ledger.powercut;

import java.io.IOException;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/**
 * The power of one simulated machine: it goes off at a given disk operation, and nothing reaches any disk from then on.
 */
final class Power {
    private final Random random;
    private final boolean forcingWorks;
    private final Map<String, Platter> files = new TreeMap<>();
    private long operationsLeft;

    Power(long seed, long operations, boolean forcingWorks) {
        this.random = new Random(seed);
        this.operationsLeft = operations;
        this.forcingWorks = forcingWorks;
    }

    /** What a disk is asked to do. */
    enum Kind {
        JOURNAL_WRITE,
        JOURNAL_FORCE,
        TABLES
    }

    private Kind failing;
    private Kind cutting;
    private boolean full;
    private boolean readOnly;

    /** The next operation of this kind fails, once. */
    synchronized void failNext(Kind kind) {
        failing = kind;
    }

    /** Whether nothing is left to fail. */
    synchronized boolean hasFailed() {
        return failing == null;
    }

    /** A disk operation is about to happen, or the power goes off instead. */
    void operation(Kind kind) throws IOException {
        operation(kind, false);
    }

    /** @param needsRoom whether it makes a file longer */
    synchronized void operation(Kind kind, boolean needsRoom) throws IOException {
        if (kind == cutting) cut();
        if (operationsLeft <= 0) throw new IOException("the power is off");
        if (kind == failing) {
            failing = null;
            throw new IOException("the disk failed");
        }
        if (readOnly) throw new IOException("Read-only file system");
        if (full && needsRoom) throw new IOException("No space left on device");
        operationsLeft--;
        if (random.nextInt(20) == 0) files.values().forEach(file -> file.writeBack(random, random.nextDouble()));
    }

    /** Whether nothing more fits on any disk. */
    synchronized void fill(boolean now) {
        full = now;
    }

    /** Whether nothing is written at all. */
    synchronized void freeze(boolean now) {
        readOnly = now;
    }

    /** The bytes that are left. */
    synchronized long room() {
        return full ? 0 : 1L << 40;
    }

    synchronized boolean isOff() {
        return operationsLeft <= 0;
    }

    synchronized void cut() {
        operationsLeft = 0;
    }

    /** The power goes off at the next operation of this kind. */
    synchronized void cutAtNext(Kind kind) {
        cutting = kind;
    }

    synchronized Platter file(String name) {
        return files.computeIfAbsent(name, each -> new Platter());
    }

    synchronized void remove(String name) {
        files.remove(name);
    }

    synchronized Map<String, Platter> files() {
        return new TreeMap<>(files);
    }

    void force(Platter file) {
        if (forcingWorks) file.force();
    }

    Random random() {
        return random;
    }
}
