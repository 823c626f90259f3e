package org.youngtally.core.act;

/**
 * What an act is answered with, by which its type says so; what is in an answer comes from the ledger that performs it.
 * None of these is ever made.
 */
public sealed interface Answer {
    /** Allocated numbers. */
    final class Numbers implements Answer {
        private Numbers() {}
    }

    /** What became of numbers that were given, or of a period. */
    final class Settlement implements Answer {
        private Settlement() {}
    }

    /** Definitions that were taken. */
    final class Definitions implements Answer {
        private Definitions() {}
    }

    /** An account as it is from now on. */
    final class AccountState implements Answer {
        private AccountState() {}
    }

    /** A record as it is kept. */
    final class Record implements Answer {
        private Record() {}
    }

    /** A job of labels, as the act left it. */
    final class Labels implements Answer {
        private Labels() {}
    }

    /** The numbers of a table's rows. */
    final class Table implements Answer {
        private Table() {}
    }
}
