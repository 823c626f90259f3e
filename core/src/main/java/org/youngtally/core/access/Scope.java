package org.youngtally.core.access;

import java.util.Arrays;
import java.util.Optional;

/**
 * Where a grant holds.
 *
 * @param key of the unit, kind or series; empty for all
 */
public record Scope(Sort sort, String key) {
    public static final Scope ALL = new Scope(Sort.ALL, "");

    /** What a grant is bound to. A unit stands for those below it as well. */
    public enum Sort {
        ALL("all"),
        UNIT("unit"),
        KIND("kind"),
        SERIES("series");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public static Scope unit(String key) {
        return new Scope(Sort.UNIT, key);
    }

    public static Scope kind(String key) {
        return new Scope(Sort.KIND, key);
    }

    public static Scope series(String key) {
        return new Scope(Sort.SERIES, key);
    }

    /** Reads {@code all}, {@code unit KEY}, {@code kind KEY} or {@code series KEY}. */
    public static Optional<Scope> of(String text) {
        String[] words = text.strip().split("\\s+");
        if (words.length == 1) return words[0].equals(Sort.ALL.word) ? Optional.of(ALL) : Optional.empty();
        return words.length == 2
                ? Arrays.stream(Sort.values())
                        .filter(sort -> sort != Sort.ALL && sort.word.equals(words[0]))
                        .findFirst()
                        .map(sort -> new Scope(sort, words[1]))
                : Optional.empty();
    }

    @Override
    public String toString() {
        return sort == Sort.ALL ? sort.word : sort.word + " " + key;
    }
}
