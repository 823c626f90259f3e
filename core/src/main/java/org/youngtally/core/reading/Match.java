package org.youngtally.core.reading;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import org.youngtally.core.pattern.Alphabet;
import org.youngtally.core.pattern.Part;
import org.youngtally.core.pattern.Part.CheckField;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.Transform;

/** One text laid along the parts of a pattern, in every way that fits with so many deviations. */
final class Match {
    /** Ways that are tried for one text: what takes more is no typing error. */
    private static final int MOST_STEPS = 20_000;

    private static final int MOST_READINGS = 16;

    private final Pattern pattern;
    private final List<Part> parts;
    private final List<PartTexts> texts;
    private final String key;
    private final String spelled;
    private final boolean withoutBlanks;
    private final Map<List<String>, Reading> found;
    private final String[] pieces;
    private final List<Deviation> deviations = new ArrayList<>();
    private int left;
    private int steps;
    private long value;

    /**
     * @param allowed how many deviations it may have
     * @param withoutBlanks whether the blanks were taken out of the text, so that those of the pattern do not count
     * @param found gets the readings by what each part of them wrote
     */
    Match(
            Pattern pattern,
            List<PartTexts> texts,
            String text,
            int allowed,
            boolean withoutBlanks,
            Map<List<String>, Reading> found) {
        this.pattern = pattern;
        this.parts = pattern.parts();
        this.texts = texts;
        this.key = pattern.comparison().key(text);
        String plain = (isAscii(text) ? text : Normalizer.normalize(text, Normalizer.Form.NFC)).strip();
        this.spelled = plain.length() == key.length() ? plain : key.toUpperCase(Locale.ROOT);
        this.withoutBlanks = withoutBlanks;
        this.found = found;
        this.pieces = new String[parts.size()];
        this.left = allowed;
    }

    private static boolean isAscii(String text) {
        for (int i = 0; i < text.length(); i++) if (text.charAt(i) > '~') return false;
        return true;
    }

    void run() {
        part(0, 0);
    }

    private void part(int index, int at) {
        if (++steps > MOST_STEPS || found.size() >= MOST_READINGS) return;
        if (index == parts.size()) {
            if (at == key.length()) complete();
            return;
        }
        switch (parts.get(index)) {
            case Literal literal -> literal(literal, index, at);
            case CountField count -> count(count, index, at);
            case CheckField check -> check(check, index, at);
            case DateField date -> listed((PartTexts.Listed) texts.get(index), index, at);
            case TextField field -> field(field, index, at);
        }
        if (left > 0 && at < key.length() && isSeparator(key.charAt(at)))
            deviating(Deviation.SEPARATOR, 1, () -> part(index, at + 1));
    }

    private static boolean isSeparator(char symbol) {
        return !Character.isLetterOrDigit(symbol);
    }

    private void deviating(Deviation deviation, int times, Runnable then) {
        if (times > left) return;
        left -= times;
        for (int i = 0; i < times; i++) deviations.add(deviation);
        then.run();
        for (int i = 0; i < times; i++) deviations.removeLast();
        left += times;
    }

    private void literal(Literal literal, int index, int at) {
        pieces[index] = literal.text();
        String folded = pattern.comparison().fold(literal.text());
        if (withoutBlanks) folded = LookAlikes.withoutBlanks(folded);
        if (key.startsWith(folded, at)) part(index + 1, at + folded.length());
        else if (left > 0) nearLiteral(folded, index, at);
    }

    private void nearLiteral(String folded, int index, int at) {
        int alike = 0;
        int missing = 0;
        int end = at;
        for (int i = 0; i < folded.length(); i++) {
            char wanted = folded.charAt(i);
            char there = end < key.length() ? key.charAt(end) : '\0';
            if (there == wanted) end++;
            else if (isSeparator(wanted)) {
                missing++;
                // One separator for another.
                if (there != '\0' && isSeparator(there)) end++;
            } else if (LookAlikes.alike(there, wanted)) {
                alike++;
                end++;
            } else return;
        }
        int behind = end;
        int looks = alike;
        deviating(
                Deviation.SEPARATOR,
                missing,
                () -> deviating(Deviation.LOOK_ALIKE, looks, () -> part(index + 1, behind)));
    }

    private void field(TextField field, int index, int at) {
        switch (texts.get(index)) {
            case PartTexts.Listed listed -> listed(listed, index, at);
            case PartTexts.Free free -> free(field, free, index, at);
            case PartTexts.None none -> throw new IllegalStateException("a field writes some text");
        }
    }

    private void listed(PartTexts.Listed listed, int index, int at) {
        for (int length : listed.lengths()) {
            if (at + length > key.length()) break;
            String there = key.substring(at, at + length);
            Set<String> written = listed.written().get(there);
            if (written != null) {
                String asSpelled = spelled.substring(at, at + length);
                pieces[index] = written.contains(asSpelled)
                        ? asSpelled
                        : written.iterator().next();
                part(index + 1, at + length);
            } else if (left > 0) {
                nearListed(listed, there, digits(there), index, at + length);
                nearListed(listed, there, letters(there), index, at + length);
            }
        }
    }

    private void nearListed(PartTexts.Listed listed, String there, String meant, int index, int end) {
        Set<String> written = meant.equals(there) ? null : listed.written().get(meant);
        if (written == null) return;
        pieces[index] = written.iterator().next();
        deviating(Deviation.LOOK_ALIKE, differing(there, meant), () -> part(index + 1, end));
    }

    private void free(TextField field, PartTexts.Free free, int index, int at) {
        int most = Math.min(free.longest(), key.length() - at);
        for (int length = 0; length <= most; length++) {
            if (length > 0 && free.symbols().indexOf(key.charAt(at + length - 1)) < 0) return;
            if (length < free.shortest()) continue;
            pieces[index] = cased(field, spelled.substring(at, at + length));
            part(index + 1, at + length);
        }
    }

    /** A text as the field writes it, as far as its letters are capitals or small ones. */
    private static String cased(TextField field, String text) {
        String cased = text;
        for (Transform transform : field.transforms())
            if (transform instanceof Transform.Upper || transform instanceof Transform.Lower)
                cased = transform.apply(cased);
        return cased;
    }

    private void count(CountField count, int index, int at) {
        int shortest = left > 0 || count.width() == 0 ? 1 : count.width();
        int longest = count.width() == 0 || count.grows() || left > 0 ? key.length() - at : count.width();
        for (int length = Math.min(longest, key.length() - at); length >= shortest; length--) {
            String there = key.substring(at, at + length);
            counted(count, there, index, at + length, 0);
            if (left == 0) continue;
            Set<String> alike =
                    new LinkedHashSet<>(List.of(ofAlphabet(count.alphabet(), there), digits(there), letters(there)));
            alike.remove(there);
            for (String meant : alike) counted(count, meant, index, at + length, differing(there, meant));
        }
    }

    private void counted(CountField count, String there, int index, int end, int alike) {
        OptionalLong read = count.read(there);
        boolean zeros = false;
        if (read.isEmpty() && left > alike && count.width() > 0) {
            read = count.read(zeros(count, there));
            zeros = true;
        }
        if (read.isEmpty() || read.getAsLong() > count.largest() || read.getAsLong() < count.least()) return;
        value = read.getAsLong();
        String written = count.written(value);
        pieces[index] = written;
        Deviation deviation = there.length() < written.length() ? Deviation.LOST_ZERO : Deviation.EXTRA_ZERO;
        if (alike == 0 && !zeros) {
            part(index + 1, end);
            return;
        }
        int lost = zeros ? 1 : 0;
        deviating(Deviation.LOOK_ALIKE, alike, () -> deviating(deviation, lost, () -> part(index + 1, end)));
    }

    /** A count with so many noughts in front that it has its width. */
    private static String zeros(CountField count, String there) {
        String nought = count.alphabet().folded().substring(0, 1);
        if (there.length() < count.width()) return nought.repeat(count.width() - there.length()) + there;
        int from = 0;
        while (there.length() - from > count.width() && there.startsWith(nought, from)) from++;
        return there.substring(from);
    }

    private void check(CheckField check, int index, int at) {
        String written = pattern.comparison().fold(check.scheme().writes());
        int length = check.scheme().length();
        pieces[index] = null;
        boolean symbols = at + length <= key.length();
        for (int i = at; symbols && i < at + length; i++) symbols = written.indexOf(key.charAt(i)) >= 0;
        if (symbols) {
            pieces[index] = key.substring(at, at + length);
            part(index + 1, at + length);
        }
        // Left out.
        pieces[index] = "";
        if (left > 0) deviating(Deviation.CHECK, 1, () -> part(index + 1, at));
    }

    private void complete() {
        String[] right = pieces.clone();
        int wrong = new CheckSymbols(parts, right).fill(pattern.comparison());
        long missing = deviations.stream().filter(Deviation.CHECK::equals).count();
        if (wrong - missing > left) return;
        Set<Deviation> all = Set.of();
        if (wrong > 0 || !deviations.isEmpty()) {
            all = EnumSet.noneOf(Deviation.class);
            all.addAll(deviations);
            if (wrong > 0) all.add(Deviation.CHECK);
        }
        String identifier = String.join("", right);
        found.putIfAbsent(List.of(right), new Reading(identifier, value, List.of(right), all));
    }

    private static String ofAlphabet(Alphabet alphabet, String there) {
        var meant = new StringBuilder(there);
        for (int i = 0; i < there.length(); i++) {
            if (alphabet.folded().indexOf(there.charAt(i)) >= 0) continue;
            char digit = LookAlikes.digit(there.charAt(i));
            char letter = LookAlikes.letter(there.charAt(i));
            if (alphabet.folded().indexOf(digit) >= 0) meant.setCharAt(i, digit);
            else if (alphabet.folded().indexOf(letter) >= 0) meant.setCharAt(i, letter);
        }
        return meant.toString();
    }

    private static String digits(String text) {
        var meant = new StringBuilder(text);
        for (int i = 0; i < text.length(); i++) meant.setCharAt(i, LookAlikes.digit(text.charAt(i)));
        return meant.toString();
    }

    private static String letters(String text) {
        var meant = new StringBuilder(text);
        for (int i = 0; i < text.length(); i++) meant.setCharAt(i, LookAlikes.letter(text.charAt(i)));
        return meant.toString();
    }

    private static int differing(String one, String other) {
        int differing = 0;
        for (int i = 0; i < one.length(); i++) if (one.charAt(i) != other.charAt(i)) differing++;
        return differing;
    }
}
