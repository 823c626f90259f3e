package org.youngtally.core.label;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.pattern.DateFormat;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.core.pattern.PatternException;
import org.youngtally.core.text.NearestName;

/** A text of a layout with places in braces, filled anew for each label; literal braces are doubled. */
public final class Template {
    private static final String ACCEPTED = "write {identifier}, {field NAME}, {date dd.MM.yyyy} or "
            + Stream.of(Name.values()).skip(1).map(Name::written).collect(Collectors.joining(", "))
            + "; a literal brace is doubled";

    private final String text;
    private final List<Piece> pieces;

    private Template(String text, List<Piece> pieces) {
        this.text = text;
        this.pieces = List.copyOf(pieces);
    }

    private sealed interface Piece {
        record Literal(String text) implements Piece {}

        record Field(String name) implements Piece {}

        record Date(DateField field) implements Piece {}

        record Named(Name name) implements Piece {}
    }

    /** What a place says by its name alone. */
    private enum Name {
        IDENTIFIER(LabelContent::identifier),
        UNIT(content -> content.unit().orElse("")),
        JOB(LabelContent::job),
        NUMBER(content -> String.valueOf(content.number())),
        QUANTITY(content -> String.valueOf(content.quantity())),
        COPY(content -> String.valueOf(content.copy())),
        COPIES(content -> String.valueOf(content.copies())),
        REPRINT(content -> content.reprint() ? "reprint" : "");

        private final Function<LabelContent, String> value;

        Name(Function<LabelContent, String> value) {
            this.value = value;
        }

        private String word() {
            return name().toLowerCase(Locale.ROOT);
        }

        private String written() {
            return "{" + word() + "}";
        }
    }

    /** @throws PatternException with the column of what is wrong */
    public static Template parse(String text) {
        var pieces = new ArrayList<Piece>();
        var literal = new StringBuilder();
        for (int at = 0; at < text.length(); ) {
            char c = text.charAt(at);
            if ((c == '{' || c == '}') && at + 1 < text.length() && text.charAt(at + 1) == c) {
                literal.append(c);
                at += 2;
            } else if (c == '{') {
                int end = text.indexOf('}', at);
                if (end < 0) throw new PatternException(at + 1, "the brace is not closed", ACCEPTED);
                if (!literal.isEmpty()) pieces.add(new Piece.Literal(literal.toString()));
                literal.setLength(0);
                pieces.add(place(text.substring(at + 1, end), at + 1));
                at = end + 1;
            } else if (c == '}') {
                throw new PatternException(at + 1, "this brace closes nothing", ACCEPTED);
            } else {
                literal.append(c);
                at++;
            }
        }
        if (!literal.isEmpty()) pieces.add(new Piece.Literal(literal.toString()));
        return new Template(text, pieces);
    }

    /** @param column of the opening brace, from 1 */
    private static Piece place(String written, int column) {
        String[] words = written.split(" ", 2);
        if (words[0].equals("field") && words.length == 2) {
            if (!words[1].matches(Particulars.FIELD_NAME))
                throw new PatternException(
                        column + 7,
                        "‘" + words[1] + "’ is not the name of a field",
                        "write small letters, digits and hyphens, such as {field stop}");
            return new Piece.Field(words[1]);
        }
        if (words[0].equals("date") && words.length == 2)
            return new Piece.Date(new DateField(DateFormat.of(words[1], column + 6)));
        List<String> names = Stream.concat(
                        Stream.of("field", "date"), Stream.of(Name.values()).map(Name::word))
                .toList();
        for (Name name : Name.values()) if (name.word().equals(written)) return new Piece.Named(name);
        throw new PatternException(
                column,
                "‘{" + written + "}’ is not a place that is known",
                NearestName.to(words[0], names)
                                .map(near -> "did you mean " + near + "? ")
                                .orElse("")
                        + ACCEPTED);
    }

    /** The fields that it shows. */
    public Set<String> fields() {
        return pieces.stream()
                .filter(Piece.Field.class::isInstance)
                .map(piece -> ((Piece.Field) piece).name())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    /** Whether it has a place for the identifier. */
    public boolean namesIdentifier() {
        return pieces.contains(new Piece.Named(Name.IDENTIFIER));
    }

    /** The text of a label; a field without a value leaves its place empty. */
    public String of(LabelContent content) {
        var written = new StringBuilder();
        for (Piece piece : pieces)
            written.append(
                    switch (piece) {
                        case Piece.Literal literal -> literal.text();
                        case Piece.Field field -> content.fields().getOrDefault(field.name(), "");
                        case Piece.Date date -> Pattern.render(date.field(), content.date());
                        case Piece.Named named -> named.name().value.apply(content);
                    });
        return written.toString();
    }

    @Override
    public String toString() {
        return text;
    }
}
