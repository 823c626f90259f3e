package org.youngtally.core.numbering;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.youngtally.core.pattern.PatternException;

/**
 * How a number is written: the text that was there as {@code {old}}, the number as {@code {new}}, attributes by their
 * names in braces; literal braces are doubled. Each but an attribute occurs once at the most, and the number once.
 */
public final class Writing {
    private static final String ACCEPTED =
            "write {new} once, {old} once at the most, attributes in braces; a literal brace is doubled";
    /** Longer than anything that people write. */
    private static final int LONGEST = 2_000;

    /** Longer than any identifier. */
    private static final int LONGEST_NUMBER = 500;

    private static final String OLD = "old";
    private static final String NEW = "new";

    /** The number alone. */
    public static final Writing NUMBER = parse("{new}");

    private final String text;
    private final List<Piece> pieces;

    private Writing(String text, List<Piece> pieces) {
        this.text = text;
        this.pieces = List.copyOf(pieces);
    }

    /** @param literal whether the text stands for itself; else it is what the braces name */
    private record Piece(boolean literal, String text) {
        boolean isOld() {
            return !literal && text.equals(OLD);
        }

        boolean isNew() {
            return !literal && text.equals(NEW);
        }
    }

    /** @throws PatternException with the column of what is wrong */
    public static Writing parse(String text) {
        Writing writing = text(text);
        if (!writing.hasNumber())
            throw new PatternException(text.length() + 1, "the number is written nowhere", ACCEPTED);
        return writing;
    }

    /** A text that may have no number in it. */
    public static Writing text(String text) {
        if (text.length() > LONGEST)
            throw new PatternException(LONGEST + 1, "it has more than %,d symbols".formatted(LONGEST), ACCEPTED);
        var pieces = new ArrayList<Piece>();
        var literal = new StringBuilder();
        for (int at = 0; at < text.length(); ) {
            char c = text.charAt(at);
            boolean brace = c == '{' || c == '}';
            if (brace && at + 1 < text.length() && text.charAt(at + 1) == c) {
                literal.append(c);
                at += 2;
            } else if (c == '{') {
                int end = text.indexOf('}', at);
                if (end < 0) throw new PatternException(at + 1, "the brace is not closed", ACCEPTED);
                String name = text.substring(at + 1, end).strip();
                if (name.isEmpty() || name.contains("{"))
                    throw new PatternException(at + 1, "the braces name nothing", ACCEPTED);
                if ((name.equals(OLD) || name.equals(NEW)) && pieces.contains(new Piece(false, name)))
                    throw new PatternException(at + 1, "{" + name + "} occurs twice", ACCEPTED);
                if (!literal.isEmpty()) pieces.add(new Piece(true, literal.toString()));
                literal.setLength(0);
                pieces.add(new Piece(false, name));
                at = end + 1;
            } else if (c == '}') {
                throw new PatternException(at + 1, "a brace is closed that was not opened", ACCEPTED);
            } else {
                literal.append(c);
                at++;
            }
        }
        if (!literal.isEmpty()) pieces.add(new Piece(true, literal.toString()));
        return new Writing(text, pieces);
    }

    /** The names of the attributes that it writes. */
    public Set<String> attributes() {
        var names = new TreeSet<String>();
        for (Piece piece : pieces) if (!piece.literal() && !piece.isOld() && !piece.isNew()) names.add(piece.text());
        return names;
    }

    /** Whether the number is part of it. */
    public boolean hasNumber() {
        return pieces.stream().anyMatch(Piece::isNew);
    }

    /** Whether the text that was there is part of it. */
    public boolean keepsOld() {
        return pieces.stream().anyMatch(Piece::isOld);
    }

    /** What is written; an attribute that is missing is written as nothing. */
    public String of(String old, String number, Map<String, String> attributes) {
        var written = new StringBuilder();
        for (Piece piece : pieces) written.append(written(piece, old, number, attributes));
        return written.toString();
    }

    private static String written(Piece piece, String old, String number, Map<String, String> attributes) {
        if (piece.literal()) return piece.text();
        if (piece.isOld()) return old;
        return piece.isNew() ? number : attributes.getOrDefault(piece.text(), "");
    }

    /**
     * What was there before a number was written so: absent where the text was not written so, and where nothing is
     * known of what was there.
     */
    public Optional<String> old(String written, String number, Map<String, String> attributes) {
        if (!keepsOld()) return Optional.empty();
        var before = new StringBuilder();
        var after = new StringBuilder();
        StringBuilder to = before;
        for (Piece piece : pieces)
            if (piece.isOld()) to = after;
            else to.append(written(piece, "", number, attributes));
        boolean so = written.length() >= before.length() + after.length()
                && written.startsWith(before.toString())
                && written.endsWith(after.toString());
        return so
                ? Optional.of(written.substring(before.length(), written.length() - after.length()))
                : Optional.empty();
    }

    /**
     * The number that was written so: of several that it may be, the longest.
     *
     * @param isNumber whether a text is a number
     */
    public Optional<String> number(String written, Map<String, String> attributes, Predicate<String> isNumber) {
        var around = new ArrayList<>(List.of(new StringBuilder()));
        for (Piece piece : pieces)
            if (piece.isOld() || piece.isNew()) around.add(new StringBuilder());
            else around.getLast().append(written(piece, "", "", attributes));
        String before = around.getFirst().toString();
        String after = around.getLast().toString();
        if (written.length() < before.length() + after.length()
                || !written.startsWith(before)
                || !written.endsWith(after)) return Optional.empty();
        String within = written.substring(before.length(), written.length() - after.length());
        return keepsOld()
                ? beside(within, around.get(1).toString(), isNumber)
                : Optional.of(within).filter(isNumber);
    }

    /** @param separator between the text that was there and the number */
    private Optional<String> beside(String within, String separator, Predicate<String> isNumber) {
        boolean behind = pieces.indexOf(new Piece(false, NEW)) > pieces.indexOf(new Piece(false, OLD));
        List<String> possible = new ArrayList<>();
        int at = within.indexOf(separator);
        while (at >= 0) {
            int length = behind ? within.length() - at - separator.length() : at;
            if (length <= LONGEST_NUMBER)
                possible.add(behind ? within.substring(within.length() - length) : within.substring(0, length));
            at = at < within.length() ? within.indexOf(separator, at + 1) : -1;
        }
        return (behind ? possible : possible.reversed())
                .stream().filter(isNumber).findFirst();
    }

    @Override
    public String toString() {
        return text;
    }
}
