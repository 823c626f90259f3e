package org.youngtally.core.organisation;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * How records of a kind are kept.
 *
 * @param sticky the fields that the next record which somebody writes begins with
 * @param knownBy the fields by each of which a record is known again: no two records of the kind hold the same in one
 *     of them
 * @param agree the fields that are alike in all units in which a record stands
 * @param deleting what becomes of the number of a record that is deleted
 * @param datedBy the field that holds the business date; today where it is absent or empty
 * @param lineStep how far one line's number is from the next, 1 or more
 */
public record Keeping(
        List<String> sticky,
        List<String> knownBy,
        List<String> agree,
        Deleting deleting,
        Optional<String> datedBy,
        int lineStep) {
    public static final Keeping USUAL =
            new Keeping(List.of(), List.of(), List.of(), Deleting.VOID, Optional.empty(), 1);

    public Keeping {
        sticky = List.copyOf(sticky);
        knownBy = List.copyOf(knownBy);
        agree = List.copyOf(agree);
    }

    /** What becomes of the number of a record that is deleted. */
    public enum Deleting {
        /** It stands for nothing any more. */
        VOID("void"),
        /** It is given back where its series takes numbers back, and void elsewhere. */
        RETURN("return");

        private final String word;

        Deleting(String word) {
            this.word = word;
        }

        /** The word in definitions. */
        public String word() {
            return word;
        }

        static Optional<Deleting> of(String word) {
            return Arrays.stream(values())
                    .filter(deleting -> deleting.word.equals(word))
                    .findFirst();
        }
    }
}
