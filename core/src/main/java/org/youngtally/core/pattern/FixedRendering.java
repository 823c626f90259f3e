package org.youngtally.core.pattern;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.youngtally.core.check.WeightedModulus;
import org.youngtally.core.pattern.Part.CountField;

/**
 * Writes the identifiers of one length that a pattern has for one set of particulars, all of them ASCII: text, a count
 * of fixed width, text, and check symbols behind all of it. What stays the same is written and read by the check scheme
 * once. For one thread at a time.
 */
final class FixedRendering {
    private static final int DECIMAL = 10;

    private final int countFrom;
    private final int countTo;
    private final byte[] text;
    private final byte[] symbols;
    /** Null where the pattern has none. */
    private final Checker checker;
    /** What the check scheme makes of each symbol before the check, and of each symbol of the count. */
    private final byte[] values;

    private final byte[] symbolValues;
    /** How many values are in front of the count. */
    private final int valuesFrom;
    /** The scheme, where its check is that of a weighted sum. */
    private final WeightedModulus weighted;
    /** What each place of the count adds to that sum, by its symbol, and the texts. */
    private final int[] products;

    private final int sumOfTexts;

    private FixedRendering(String front, CountField count, String back, Optional<Checker> check) {
        String alphabet = count.alphabet().symbols();
        String constant = front + alphabet.substring(0, 1).repeat(count.width()) + back;
        this.countFrom = front.length();
        this.countTo = countFrom + count.width();
        this.symbols = alphabet.getBytes(StandardCharsets.US_ASCII);
        this.text = (constant + "?".repeat(check.map(Checker::length).orElse(0))).getBytes(StandardCharsets.US_ASCII);
        this.checker = check.orElse(null);
        this.values = check.map(each -> each.values(constant)).orElse(new byte[0]);
        this.valuesFrom = check.map(each -> each.values(front).length).orElse(0);
        this.symbolValues = check.map(each -> each.values(alphabet)).orElse(new byte[0]);
        this.weighted = check.flatMap(Checker::weighted).orElse(null);
        this.products = new int[count.width() * symbols.length];
        this.sumOfTexts = weighted == null ? 0 : weigh();
    }

    /** @return what the texts add to the sum */
    private int weigh() {
        int sum = 0;
        for (int i = 0; i < values.length; i++) {
            int weight = weighted.weight(values.length - 1 - i);
            int place = i - valuesFrom;
            if (place < 0 || place >= countTo - countFrom) sum += values[i] * weight;
            else
                for (int symbol = 0; symbol < symbols.length; symbol++)
                    products[place * symbols.length + symbol] = symbolValues[symbol] * weight;
        }
        return sum;
    }

    /**
     * @param pieces texts, the count and checkers, in order
     * @return absent for a pattern that has another form
     */
    static Optional<FixedRendering> of(Object[] pieces) {
        String front = "";
        String back = "";
        CountField count = null;
        Optional<Checker> checker = Optional.empty();
        for (Object piece : pieces) {
            if (checker.isPresent()) return Optional.empty();
            if (piece instanceof CountField field) count = field;
            else if (piece instanceof Checker check) checker = Optional.of(check);
            else if (count == null) front = (String) piece;
            else back = (String) piece;
        }
        if (count == null || count.width() == 0 || count.grows()) return Optional.empty();
        String alphabet = count.alphabet().symbols();
        if (!isAscii(front + alphabet + back)) return Optional.empty();
        // A scheme that passes over some symbols of the count would find those behind it in other places.
        if (checker.filter(check ->
                        check.ofCount() || check.inFront() || check.values(alphabet).length < alphabet.length())
                .isPresent()) return Optional.empty();
        return Optional.of(new FixedRendering(front, count, back, checker));
    }

    private static boolean isAscii(String text) {
        return text.chars().allMatch(symbol -> symbol < 128);
    }

    /** The identifier of a value; null for one that is wider than the count. */
    String of(long value) {
        int size = symbols.length;
        int at = countTo;
        int sum = sumOfTexts;
        long rest = value;
        for (; rest > Integer.MAX_VALUE && at > countFrom; rest /= size) sum += put(--at, (int) (rest % size));
        if (rest > Integer.MAX_VALUE) return null;
        // Division is what takes the time, and is faster on small numbers and by a constant.
        int small = (int) rest;
        if (size == DECIMAL) for (; at > countFrom; small /= DECIMAL) sum += put(--at, small % DECIMAL);
        else for (; at > countFrom; small /= size) sum += put(--at, small % size);
        if (small > 0) return null;
        if (checker != null) {
            int check = weighted == null ? checker.check(values, values.length) : weighted.checkOf(sum);
            checker.write(check, text, text.length - checker.length());
        }
        return new String(text, StandardCharsets.ISO_8859_1);
    }

    /** @return what it adds to the weighted sum */
    private int put(int at, int symbol) {
        text[at] = symbols[symbol];
        int place = at - countFrom;
        if (weighted != null) return products[place * symbols.length + symbol];
        if (checker != null) values[valuesFrom + place] = symbolValues[symbol];
        return 0;
    }
}
