package org.youngtally.core.pattern;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;

/** Reads the options of a field of the record: its name, and what is done to its text. */
final class TextFieldParser {
    private static final List<String> TRANSFORMS =
            List.of("first", "initials", "upper", "lower", "unaccented", "pad", "pad-front");
    private static final String SHAPES =
            "write some of first 3, initials, upper, lower, unaccented, pad 4 X (at the end) or pad-front 4 0, in the order in which they are to be done";

    private final int column;
    private final Deque<String> words;

    private TextFieldParser(String options, int column) {
        this.column = column;
        this.words = new ArrayDeque<>(List.of(options.split(" +")));
        if (options.isEmpty()) words.clear();
    }

    static TextField field(String option, int column) {
        var parser = new TextFieldParser(option, column);
        if (parser.words.isEmpty())
            throw new PatternException(
                    column, "the field names no field of the record", "add its name, such as {field group}");
        String name = parser.words.poll();
        if (!name.matches(Particulars.FIELD_NAME))
            throw new PatternException(
                    column,
                    "‘" + name + "’ is not the name of a field",
                    "use 1 to 32 small letters, digits and hyphens, a letter first");
        if (name.equals(Particulars.UNIT))
            throw new PatternException(column, "the unit has a field of its own", "write {unit}");
        return new TextField(name, parser.transforms());
    }

    static TextField unit(String option, int column) {
        return new TextField(Particulars.UNIT, new TextFieldParser(option, column).transforms());
    }

    private List<Transform> transforms() {
        var transforms = new ArrayList<Transform>();
        while (!words.isEmpty()) {
            String word = words.poll();
            transforms.add(
                    switch (word) {
                        case "first" -> new Transform.First(length(word));
                        case "initials" -> new Transform.Initials();
                        case "upper" -> new Transform.Upper();
                        case "lower" -> new Transform.Lower();
                        case "unaccented" -> new Transform.Unaccented();
                        case "pad" -> new Transform.Pad(length(word), symbol('X'), false);
                        case "pad-front" -> new Transform.Pad(length(word), symbol('0'), true);
                        default ->
                            throw new PatternException(
                                    column,
                                    "‘" + word + "’ is nothing that can be done to a field",
                                    NearestName.to(word, TRANSFORMS)
                                                    .map(near -> "did you mean " + near + "? ")
                                                    .orElse("")
                                            + SHAPES);
                    });
        }
        return transforms;
    }

    private int length(String of) {
        String word = words.isEmpty() ? "" : words.poll();
        if (!word.matches("[0-9]{1,2}") || Integer.parseInt(word) < 1 || Integer.parseInt(word) > Transform.LONGEST)
            throw new PatternException(
                    column,
                    "‘" + of + (word.isEmpty() ? "" : " " + word) + "’ has no length",
                    "write a number from 1 to " + Transform.LONGEST + " after it, such as " + of + " 3");
        return Integer.parseInt(word);
    }

    private char symbol(char usual) {
        if (words.isEmpty() || words.peek().length() != 1) return usual;
        char symbol = words.poll().charAt(0);
        if (Comparison.FIRST.fold(String.valueOf(symbol)).length() != 1)
            throw new PatternException(
                    column, "‘" + symbol + "’ cannot be compared as a single symbol", "pad with a letter or a digit");
        return symbol;
    }
}
