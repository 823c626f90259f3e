package org.youngtally.core.series;

import java.util.Arrays;
import java.util.Optional;

/**
 * What may become of the numbers of a series.
 *
 * @param gaps whether a number that is given back is void; else it is given next, so that the row stays without a gap
 * @param returns whether a number that was issued can be given back unused
 * @param chronological whether no number may be dated before the one given last in its lane; a number given back is
 *     void then
 * @param typed whether people may type a number themselves
 */
public record Policy(boolean gaps, boolean returns, boolean chronological, Typed typed) {
    public static final Policy USUAL = new Policy(false, true, false, Typed.REFUSED);

    /** Whether people may type a number themselves, or must. */
    public enum Typed {
        REFUSED("refused"),
        ALLOWED("allowed"),
        REQUIRED("required");

        private final String word;

        Typed(String word) {
            this.word = word;
        }

        /** The word in definitions. */
        public String word() {
            return word;
        }

        public static Optional<Typed> of(String word) {
            return Arrays.stream(values())
                    .filter(typed -> typed.word.equals(word))
                    .findFirst();
        }
    }

    /** As a draft says, as far as it can be read. */
    static Policy of(SeriesDraft draft) {
        return new Policy(
                SeriesProperties.ALLOWED.equals(draft.orUsual(SeriesProperties.GAPS)),
                SeriesProperties.ALLOWED.equals(draft.orUsual(SeriesProperties.RETURNS)),
                Boolean.TRUE.equals(draft.get(SeriesProperties.CHRONOLOGICAL)),
                Typed.of(draft.orUsual(SeriesProperties.TYPED)).orElse(Typed.REFUSED));
    }

    /** Whether a number that is given back is given again. */
    public boolean givesAgain() {
        return !gaps && !chronological;
    }
}
