package org.youngtally.core.pattern;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.text.NearestName;

/** Reads the text of a pattern: literal text, {@code {{} and {@code }}} for braces, and fields in braces. */
final class PatternParser {
    private static final List<String> FIELDS = List.of("count", "date");
    private static final String FIELD_SHAPES = "write {count 5} or {date yyyy}; a literal brace is doubled: {{ or }}";

    private final String text;
    private final List<Part> parts = new ArrayList<>();
    private final StringBuilder literal = new StringBuilder();

    PatternParser(String text) {
        this.text = text;
    }

    List<Part> parse() {
        if (text.isEmpty()) throw new PatternException(1, "the pattern is empty", "write one with a count, such as LW{date yy}-{count 5}");
        refuseOddSymbols();
        for (int at = 0; at < text.length(); ) {
            char c = text.charAt(at);
            boolean doubled = at + 1 < text.length() && text.charAt(at + 1) == c;
            if ((c == '{' || c == '}') && doubled) {
                literal.append(c);
                at += 2;
            } else if (c == '{') {
                at = field(at);
            } else if (c == '}') {
                throw new PatternException(at + 1, "this brace closes nothing", FIELD_SHAPES);
            } else {
                literal.append(c);
                at++;
            }
        }
        endLiteral();
        long counts = parts.stream().filter(CountField.class::isInstance).count();
        if (counts == 0) throw new PatternException(text.length() + 1, "the pattern has no count", "add one, such as {count 5}");
        return parts;
    }

    private void refuseOddSymbols() {
        if (Character.isWhitespace(text.charAt(0))) throw new PatternException(1, "the pattern starts with white space", "start with a symbol that can be seen");
        if (Character.isWhitespace(text.charAt(text.length() - 1))) throw new PatternException(text.length(), "the pattern ends with white space", "end with a symbol that can be seen");
        for (int at = 0; at < text.length(); at++) {
            char c = text.charAt(at);
            if (Character.isISOControl(c) || Character.getType(c) == Character.FORMAT)
                throw new PatternException(at + 1, "a control symbol (code " + (int) c + ") cannot stand in an identifier", "take it out");
            if (Character.isSurrogate(c) && !isPaired(at)) throw new PatternException(at + 1, "half a symbol", "write the whole symbol");
            int type = Character.getType(c);
            if (type == Character.NON_SPACING_MARK || type == Character.ENCLOSING_MARK || type == Character.COMBINING_SPACING_MARK)
                throw new PatternException(at + 1, "a combining mark cannot stand by itself", "write the letter with its mark as one symbol");
        }
        if (!Normalizer.isNormalized(text, Normalizer.Form.NFC)) throw new PatternException(1, "the pattern is not in Unicode's composed form (NFC)", "retype its accented letters as single symbols");
    }

    private boolean isPaired(int at) {
        char c = text.charAt(at);
        return Character.isHighSurrogate(c)
                ? at + 1 < text.length() && Character.isLowSurrogate(text.charAt(at + 1))
                : at > 0 && Character.isHighSurrogate(text.charAt(at - 1));
    }

    private int field(int open) {
        int close = text.indexOf('}', open);
        if (close < 0) throw new PatternException(open + 1, "this brace is not closed", FIELD_SHAPES);
        endLiteral();
        String inside = text.substring(open + 1, close);
        int nameStart = skipSpaces(inside, 0);
        int nameEnd = nameStart;
        while (nameEnd < inside.length() && inside.charAt(nameEnd) != ' ') nameEnd++;
        String name = inside.substring(nameStart, nameEnd);
        int optionStart = skipSpaces(inside, nameEnd);
        String option = inside.substring(optionStart).stripTrailing();
        int column = open + 2 + optionStart;
        if (name.equals("count") && parts.stream().anyMatch(CountField.class::isInstance)) throw new PatternException(open + 1, "a second count", "a pattern has exactly one");
        parts.add(switch (name) {
            case "count" -> count(option, column);
            case "date" -> date(option, column);
            default -> throw new PatternException(open + 2 + nameStart, name.isEmpty() ? "the field has no name" : "‘" + name + "’ is not a field",
                    NearestName.to(name, FIELDS).filter(near -> !name.isEmpty()).map(near -> "did you mean {" + near + "}? ").orElse("") + FIELD_SHAPES);
        });
        return close + 1;
    }

    private static int skipSpaces(String inside, int at) {
        while (at < inside.length() && inside.charAt(at) == ' ') at++;
        return at;
    }

    private static CountField count(String option, int column) {
        if (option.isEmpty()) return new CountField(0);
        if (!option.matches("[0-9]{1,3}") || Integer.parseInt(option) < 1 || Integer.parseInt(option) > CountField.MAX_WIDTH)
            throw new PatternException(column, "‘" + option + "’ is not a width of the count", "write a number from 1 to " + CountField.MAX_WIDTH + ", or nothing for no padding");
        return new CountField(Integer.parseInt(option));
    }

    private static DateField date(String option, int column) {
        return new DateField(DateFormat.parse(option, column));
    }

    private void endLiteral() {
        if (literal.isEmpty()) return;
        parts.add(new Literal(literal.toString()));
        literal.setLength(0);
    }
}
