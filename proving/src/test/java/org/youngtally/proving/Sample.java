package org.youngtally.proving;

/** Of which each of its methods is run by another test. */
final class Sample {
    private Sample() {}

    static int one(int value) {
        return value + 1;
    }

    static int two(int value) {
        return value + 2;
    }
}
