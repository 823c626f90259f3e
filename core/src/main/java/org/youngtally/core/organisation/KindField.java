package org.youngtally.core.organisation;

import java.util.Arrays;
import java.util.Optional;

/**
 * A field of a kind of record.
 *
 * @param codebook of a choice: whose choices it takes
 * @param within of a choice: the field whose choice narrows it
 * @param nameOf the choice whose full name goes into it when the number is given
 * @param codeOf the choice whose code goes into it when the number is given
 */
public record KindField(
        String name,
        String title,
        Type type,
        Optional<String> codebook,
        Optional<String> within,
        boolean required,
        Optional<String> nameOf,
        Optional<String> codeOf) {

    /** The choice that fills it; absent for a field that people fill. */
    public Optional<String> copied() {
        return nameOf.or(() -> codeOf);
    }

    /** What a field holds. */
    public enum Type {
        TEXT("text"),
        NUMBER("number"),
        DATE("date"),
        CHOICE("choice"),
        YES_NO("yes-no");

        private final String word;

        Type(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        static Optional<Type> of(String word) {
            return Arrays.stream(values())
                    .filter(type -> type.word.equals(word))
                    .findFirst();
        }
    }
}
