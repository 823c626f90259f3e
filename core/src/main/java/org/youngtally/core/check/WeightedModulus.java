package org.youngtally.core.check;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * A weighted sum brought up to a multiple of a modulus. The weights are taken from the right, again from the first when
 * they run out: 3-1 modulo 10 is the check digit of the GS1 General Specifications, section 7.9, for identifiers of
 * every length.
 */
public final class WeightedModulus implements CheckScheme {
    private final String name;
    private final String title;
    private final int[] weights;
    private final int modulus;
    private final Optional<Character> ten;

    /**
     * @param modulus 2 to 11
     * @param ten how a check value of 10 is written under modulus 11; absent where such values are not used
     */
    WeightedModulus(String name, String title, List<Integer> weights, int modulus, Optional<Character> ten) {
        if (weights.isEmpty()) throw new IllegalArgumentException("no weights");
        if (modulus < 2 || modulus > 11)
            throw new IllegalArgumentException("the modulus is " + modulus + ", it can be 2 to 11");
        this.name = name;
        this.title = title;
        this.weights = weights.stream().mapToInt(Integer::intValue).toArray();
        this.modulus = modulus;
        this.ten = ten;
    }

    static WeightedModulus gs1() {
        return new WeightedModulus(
                "gs1",
                "Modulus 10 with weights 3-1, GS1 General Specifications 7.9",
                List.of(3, 1),
                10,
                Optional.empty());
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public String title() {
        return title;
    }

    /** Whether there is a check for every number: a ten can be written, or never arises. */
    public boolean isTotal() {
        return modulus < 11 || ten.isPresent();
    }

    @Override
    public String reads() {
        return Symbols.DIGITS;
    }

    @Override
    public String writes() {
        return Symbols.DIGITS.substring(0, Math.min(modulus, 10))
                + ten.map(String::valueOf).orElse("");
    }

    @Override
    public int length() {
        return 1;
    }

    /** Worked out from the weights: a slip passes when its weight times the difference is a multiple of the modulus. */
    @Override
    public String misses() {
        var missed = new StringBuilder();
        for (int weight : Arrays.stream(weights).distinct().sorted().toArray())
            for (int difference = 1; difference <= 9; difference++)
                if (weight * difference % modulus == 0)
                    missed.append(missed.isEmpty() ? "" : "; ")
                            .append("a wrong digit off by ")
                            .append(difference)
                            .append(" where the weight is ")
                            .append(weight);
        var swaps = new StringBuilder();
        // The check digit itself stands at the right end with weight 1.
        for (int i = -1; i < weights.length; i++) {
            int right = i < 0 ? 1 : weights[i];
            int left = weights[(i + 1) % weights.length];
            for (int difference = 1; difference <= 9; difference++)
                if ((left - right) * difference % modulus == 0 && swaps.indexOf(" " + difference) < 0)
                    swaps.append(swaps.isEmpty() ? "" : ",").append(" ").append(difference);
        }
        if (!swaps.isEmpty())
            missed.append(missed.isEmpty() ? "" : "; ")
                    .append("a swap of neighbours that differ by")
                    .append(swaps);
        return missed.isEmpty() ? "neither a wrong digit nor a swap of neighbours" : missed.toString();
    }

    @Override
    public int check(byte[] values, int count) {
        int sum = 0;
        int at = 0;
        for (int i = count - 1; i >= 0; i--) {
            sum += values[i] * weights[at];
            if (++at == weights.length) at = 0;
        }
        return checkOf(sum);
    }

    /** The weight of the value that has so many values behind it. */
    public int weight(int behind) {
        return weights[behind % weights.length];
    }

    /**
     * The check of values by their weighted sum, as {@link #check(byte[], int)} says it.
     *
     * @param sum of each value times its weight
     */
    public int checkOf(int sum) {
        int check = Math.floorMod(-sum, modulus);
        return check < 10 || ten.isPresent() ? check : -1;
    }
}
