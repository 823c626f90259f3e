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

    /** The next operation of this kind fails, once. */
    synchronized void failNext(Kind kind) {
        failing = kind;
    }

    /** A disk operation is about to happen, or the power goes off instead. */
    synchronized void operation(Kind kind) throws IOException {
        if (operationsLeft <= 0) throw new IOException("the power is off");
        if (kind == failing) {
            failing = null;
            throw new IOException("the disk failed");
        }
        operationsLeft--;
        if (random.nextInt(20) == 0) files.values().forEach(file -> file.writeBack(random, random.nextDouble()));
    }

    synchronized boolean isOff() {
        return operationsLeft <= 0;
    }

    synchronized void cut() {
        operationsLeft = 0;
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
