package org.youngtally.core.repair;

import java.util.Optional;
import org.youngtally.core.pattern.Particulars;

/**
 * What is done about a row whose number is not simply kept and recorded.
 *
 * @param line of the file, from 1
 * @param number the number that it has from now on; of one that is allocated the number that is expected, absent where
 *     that cannot be told
 * @param wanted what a number is allocated for
 * @param other the line of another row that has the same number; 0 for none
 */
public record Change(
        long line, Kind kind, Optional<String> number, Optional<Particulars> wanted, Optional<Why> why, long other) {

    /** The kinds of change. */
    public enum Kind {
        /** A blank row gets a number. */
        ALLOCATE("allocate"),
        /** A row whose number another row keeps gets another one. */
        RENUMBER("renumber"),
        /** The number is written as the series writes it. */
        CORRECT("correct"),
        /** The number is in the ledger already, and stays. */
        KNOWN("known"),
        /** The row stays as it is, and its number is not recorded. */
        LEAVE("leave");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        /** The word in plans. */
        public String word() {
            return word;
        }

        /** Whether the row gets a number that is allocated. */
        public boolean allocates() {
            return this == ALLOCATE || this == RENUMBER;
        }
    }

    /** Why a row is left as it is. */
    public enum Why {
        /** The text is no number of the series, and what was meant cannot be told. */
        NO_NUMBER("no-number"),
        /** The text can be read as several numbers. */
        AMBIGUOUS("ambiguous"),
        /** The cell has a formula, which is not written over. */
        FORMULA("formula"),
        /** The number lies outside the ranges of the series. */
        OUTSIDE("outside"),
        /** The number is void in the ledger. */
        VOID("void"),
        /** A field that the series needs is missing, or holds what it cannot take. */
        FIELD("field"),
        /** No range serves the date, or the date is in a closed period. */
        DATE("date"),
        /** The series is chronological, and its newest number has a later date. */
        CHRONOLOGICAL("chronological"),
        /** No number is left. */
        EXHAUSTED("exhausted");

        private final String word;

        Why(String word) {
            this.word = word;
        }

        /** The word in plans. */
        public String word() {
            return word;
        }
    }

    static Change leave(long line, Why why) {
        return new Change(line, Kind.LEAVE, Optional.empty(), Optional.empty(), Optional.of(why), 0);
    }

    static Change correct(long line, String number) {
        return new Change(line, Kind.CORRECT, Optional.of(number), Optional.empty(), Optional.empty(), 0);
    }

    static Change known(long line) {
        return new Change(line, Kind.KNOWN, Optional.empty(), Optional.empty(), Optional.empty(), 0);
    }
}
