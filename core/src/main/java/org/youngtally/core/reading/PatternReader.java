package org.youngtally.core.reading;

import java.util.Collection;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Set;
import org.youngtally.core.pattern.Pattern;

/**
 * Reads identifiers of a pattern of which nothing else is known: neither the date nor what the record gives. It is the
 * inverse of rendering, for texts that were written before there was a ledger.
 */
final class PatternReader {
    /** What a text may differ in at the most, and still count as a slip of the pen. */
    private static final int MOST_DEVIATIONS = 2;
    /** Longer texts are no identifiers, and would take long to try. */
    private static final int LONGEST = 200;

    private final Pattern pattern;
    private final List<PartTexts> texts;

    /** @param texts what each part of the pattern can write, in order */
    PatternReader(Pattern pattern, List<PartTexts> texts) {
        this.pattern = pattern;
        this.texts = List.copyOf(texts);
    }

    /** Everything that the text says by the pattern; case, and blanks at its ends, make no difference. */
    List<Reading> read(String text) {
        if (text.length() > LONGEST) return List.of();
        return match(text, 0, false).stream()
                .map(reading -> spelled(reading, text))
                .toList();
    }

    private Collection<Reading> match(String text, int allowed, boolean withoutBlanks) {
        var found = new LinkedHashMap<List<String>, Reading>();
        new Match(pattern, texts, text, allowed, withoutBlanks, found).run();
        return found.values();
    }

    /** The readings of a text that {@link #read} finds none for: those that differ from it in the least. */
    List<Reading> nearest(String text) {
        if (text.length() > LONGEST) return List.of();
        Set<Deviation> cleaning = EnumSet.noneOf(Deviation.class);
        String clean = cleaned(text.strip(), cleaning);
        for (int allowed = 1; allowed <= MOST_DEVIATIONS; allowed++) {
            var found = new LinkedHashMap<String, Reading>();
            if (!cleaning.isEmpty() && cleaning.size() <= allowed)
                match(clean, allowed - cleaning.size(), cleaning.contains(Deviation.BLANK))
                        .forEach(reading -> found.putIfAbsent(reading.identifier(), with(reading, cleaning)));
            match(text, allowed, false).forEach(reading -> found.putIfAbsent(reading.identifier(), reading));
            if (!found.isEmpty()) return List.copyOf(found.values());
        }
        return List.of();
    }

    private static String cleaned(String text, Set<Deviation> cleaning) {
        String plain = LookAlikes.plainForms(text);
        // Blanks of another width are blanks.
        if (!LookAlikes.withoutBlanks(plain).equals(LookAlikes.withoutBlanks(text))) cleaning.add(Deviation.LOOK_ALIKE);
        String dashed = LookAlikes.plainDashes(plain);
        if (!dashed.equals(plain)) cleaning.add(Deviation.DASH);
        String clean = LookAlikes.withoutBlanks(dashed);
        if (!clean.equals(dashed)) cleaning.add(Deviation.BLANK);
        return clean;
    }

    private static Reading with(Reading reading, Set<Deviation> more) {
        Set<Deviation> all = EnumSet.copyOf(more);
        all.addAll(reading.deviations());
        return new Reading(reading.identifier(), reading.value(), reading.texts(), all);
    }

    private static Reading spelled(Reading reading, String text) {
        if (reading.identifier().equals(text)) return reading;
        Set<Deviation> spelling = EnumSet.noneOf(Deviation.class);
        if (!text.strip().equals(text)) spelling.add(Deviation.BLANK);
        if (!text.strip().equals(reading.identifier())) spelling.add(Deviation.CASE);
        return with(reading, spelling);
    }
}
