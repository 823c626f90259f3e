package org.youngtally.core.series;

import java.util.Optional;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.scatter.Scatter;

/**
 * In which order a lane gives the values of its range.
 *
 * @param scatter the secret that spreads them; absent unless they are scattered, and in a definition that was not taken
 *     yet
 */
public record Order(Kind kind, Optional<Scatter> scatter) {
    public static final Order IN_TURN = new Order(Kind.IN_TURN, Optional.empty());

    /** One value after the other; spread so that none can be foretold; or from the first again after the last. */
    public enum Kind {
        IN_TURN("in-turn"),
        SCATTERED("scattered"),
        REPEATING("repeating");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        /** The word in definitions. */
        public String word() {
            return word;
        }

        public static Optional<Kind> of(String word) {
            for (Kind kind : values()) if (kind.word.equals(word)) return Optional.of(kind);
            return Optional.empty();
        }
    }

    public boolean scatters() {
        return kind == Kind.SCATTERED;
    }

    public boolean repeats() {
        return kind == Kind.REPEATING;
    }

    /** Whether its secret is not at hand, so that no value can be told. */
    public boolean isSealed() {
        return scatter.map(Scatter::isSealed).orElse(false);
    }

    /** How many positions a lane of the range has. */
    public long positions(Range range) {
        return repeats() ? CountField.LARGEST / range.size() * range.size() : range.size();
    }

    /** The round that a position belongs to, from 1. */
    public long round(Range range, long position) {
        return position / range.size() + 1;
    }

    /** The value at a position of a lane. */
    public long valueAt(Range range, LaneKey lane, long position) {
        return switch (kind) {
            case IN_TURN -> range.valueAt(position);
            case SCATTERED ->
                range.valueAt(secret().of(name(lane), range.size()).forward(position));
            case REPEATING -> range.valueAt(position % range.size());
        };
    }

    /** The position of a value, in the first round; -1 where the range does not hold it. */
    public long positionOf(Range range, LaneKey lane, long value) {
        long position = range.positionOf(value);
        return position < 0 || !scatters()
                ? position
                : secret().of(name(lane), range.size()).back(position);
    }

    private Scatter secret() {
        return scatter.orElseThrow(() -> new IllegalStateException("the secret of a scattered series is not at hand"));
    }

    private static String name(LaneKey lane) {
        return lane.range() + "/" + lane.period();
    }
}
