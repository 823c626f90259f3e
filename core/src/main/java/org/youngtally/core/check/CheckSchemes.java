package org.youngtally.core.check;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The schemes there are, by name. */
public final class CheckSchemes {
    private static final String WEIGHTED = "weighted:";
    private static final String MOD97_10 = "mod97-10";
    private static final List<CheckScheme> ALL = List.of(
            WeightedModulus.gs1(),
            Luhn.digits(),
            Luhn.digitsAndLetters(),
            PureSystem.of(11, 2),
            PureSystem.of(37, 2),
            PureSystem.of(97, 10),
            PureSystem.of(661, 26),
            PureSystem.of(1271, 36),
            HybridSystem.over(Symbols.DIGITS),
            HybridSystem.over(Symbols.LETTERS),
            HybridSystem.over(Symbols.BOTH),
            new Verhoeff(),
            new Damm(),
            new CreditorReference());

    /** How a weighted modulus is written, for messages. */
    public static final String WEIGHTED_SHAPE =
            "weighted:7-3-1/10 (weights from the right, not all of them multiples of the modulus; modulus), with =X after modulus 11 for a ten written as X";

    private CheckSchemes() {}

    /** All that have a name of their own; a weighted modulus is made by {@link #of}. */
    public static List<CheckScheme> all() {
        return ALL;
    }

    public static String names() {
        return ALL.stream().map(CheckScheme::name).collect(Collectors.joining(", ")) + ", or " + WEIGHTED_SHAPE;
    }

    /**
     * The scheme of a name, such as {@code gs1}, {@code mod97-10} or {@code weighted:2-3-4-5-6-7/11=X}; empty where
     * there is none.
     */
    public static Optional<CheckScheme> of(String name) {
        if (name.startsWith(WEIGHTED)) return weighted(name);
        return ALL.stream().filter(scheme -> scheme.name().equals(name)).findFirst();
    }

    /** The same as the first patterns meant it, whose numbers are out. */
    public static Optional<CheckScheme> ofFirstEdition(String name) {
        return name.equals(MOD97_10) ? Optional.of(PureSystem.fromZero(97, 10)) : of(name);
    }

    private static Optional<CheckScheme> weighted(String name) {
        if (!name.matches("weighted:[0-9]{1,3}(-[0-9]{1,3}){0,39}/([2-9]|10|11(=[A-Z*])?)")) return Optional.empty();
        String[] halves = name.substring(WEIGHTED.length()).split("[/=]");
        List<Integer> weights =
                Stream.of(halves[0].split("-")).map(Integer::valueOf).toList();
        Optional<Character> ten = halves.length > 2 ? Optional.of(halves[2].charAt(0)) : Optional.empty();
        int modulus = Integer.parseInt(halves[1]);
        // With nothing but multiples of the modulus it would pass every number.
        if (weights.stream().allMatch(weight -> weight % modulus == 0)) return Optional.empty();
        String title = "Weights " + halves[0] + " from the right, modulus " + modulus
                + (modulus < 11
                        ? ""
                        : ten.map(x -> ", ten written " + x)
                                .orElse(", numbers whose check digit would be ten are not used"));
        return Optional.of(new WeightedModulus(name, title, weights, modulus, ten));
    }
}
