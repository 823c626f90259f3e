package org.youngtally.core.pattern;

import java.text.Normalizer;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.check.CheckSchemes;
import org.youngtally.core.check.WeightedModulus;
import org.youngtally.core.pattern.Part.CheckField;
import org.youngtally.core.pattern.Part.CountField;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.Literal;
import org.youngtally.core.text.BlankSymbols;
import org.youngtally.core.text.HalfSymbols;
import org.youngtally.core.text.NearestName;

/** Reads the text of a pattern: literal text, {@code {{} and {@code }}} for braces, and fields in braces. */
final class PatternParser {
    private static final List<String> FIELDS =
            List.of("count", "date", "fiscal", "fiscal-end", "field", "unit", "check");
    private static final String FIELD_SHAPES =
            "write {count 5}, {date yyyy}, {fiscal yy}, {field NAME}, {unit} or {check gs1}; a literal brace is doubled: {{ or }}";
    private static final String COUNT_SHAPES = "write a width from 1 to " + CountField.MAX_WIDTH
            + ", or nothing for no padding; then an alphabet: " + String.join(", ", Alphabet.names())
            + ", or of and its symbols; then grow, if it may become wider";

    private final String text;
    private final DateStyle style;
    private final List<Part> parts = new ArrayList<>();
    private final StringBuilder literal = new StringBuilder();
    private final PatternEdition edition;
    private boolean editionMatters;

    PatternParser(String text, DateStyle style, PatternEdition edition) {
        this.text = text;
        this.style = style;
        this.edition = edition;
    }

    /** Whether it holds something that means another thing in another edition. */
    boolean editionMatters() {
        return editionMatters;
    }

    List<Part> parse() {
        if (text.isEmpty())
            throw new PatternException(
                    1, "the pattern is empty", "write one with a count, such as LW{date yy}-{count 5}");
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
        refuseEmptyChecks();
        refuseChecksOverChecks();
        refuseBlankCountAtTheEdge();
        if (counts == 0)
            throw new PatternException(text.length() + 1, "the pattern has no count", "add one, such as {count 5}");
        return parts;
    }

    private void refuseBlankCountAtTheEdge() {
        for (Part edge : List.of(parts.getFirst(), parts.getLast()))
            if (edge instanceof CountField count
                    && count.alphabet().symbols().chars().anyMatch(c -> isBlank((char) c)))
                throw new PatternException(
                        1,
                        "the count is at the start or end, and one of its symbols is invisible",
                        "add a visible symbol around it, or remove that symbol from its alphabet");
    }

    private void refuseEmptyChecks() {
        for (int i = 0; i < parts.size(); i++) {
            if (!(parts.get(i) instanceof CheckField check) || check.ofCount()) continue;
            boolean inFront = check.scheme().inFront();
            List<Part> covered = inFront ? parts.subList(i + 1, parts.size()) : parts.subList(0, i);
            if (covered.stream().noneMatch(CountField.class::isInstance))
                throw new PatternException(
                        text.length(),
                        "the count is not " + (inFront ? "after" : "before") + " its check field, {check "
                                + check.scheme().name() + "}",
                        "put the check field " + (inFront ? "before the count" : "after the count"));
        }
    }

    /** Which of two covers the other would have to be said; nobody has asked for both yet. */
    private void refuseChecksOverChecks() {
        boolean inFront = false;
        for (Part part : parts) {
            if (!(part instanceof CheckField check)) continue;
            if (inFront && !check.ofCount())
                throw new PatternException(
                        text.length(),
                        "a check field after one that comes before what it covers",
                        "keep one of them, or let the last be of count");
            inFront |= check.scheme().inFront();
        }
    }

    private void refuseOddSymbols() {
        if (isBlank(text.charAt(0)))
            throw new PatternException(
                    1, "the pattern starts with white space", "start with a symbol that can be seen");
        if (isBlank(text.charAt(text.length() - 1)))
            throw new PatternException(
                    text.length(), "the pattern ends with white space", "end with a symbol that can be seen");
        for (int at = 0; at < text.length(); at++) {
            char c = text.charAt(at);
            if (Character.isISOControl(c) || Character.getType(c) == Character.FORMAT)
                throw new PatternException(
                        at + 1, "a control symbol (code " + (int) c + ") is not allowed in an identifier", "remove it");
            if (HalfSymbols.isAt(text, at))
                throw new PatternException(at + 1, "half a symbol", "write the whole symbol");
            int type = Character.getType(c);
            if (type == Character.NON_SPACING_MARK
                    || type == Character.ENCLOSING_MARK
                    || type == Character.COMBINING_SPACING_MARK)
                throw new PatternException(
                        at + 1,
                        "a combining mark is not allowed by itself",
                        "write the letter with its mark as one symbol");
        }
        if (!Normalizer.isNormalized(text, Normalizer.Form.NFC))
            throw new PatternException(
                    1,
                    "the pattern is not in Unicode's composed form (NFC)",
                    "retype its accented letters as single symbols");
    }

    /** Versions of the first edition may have a symbol at their edge that only looks blank; they stay as they are. */
    private boolean isBlank(char symbol) {
        return edition == PatternEdition.FIRST ? Character.isWhitespace(symbol) : BlankSymbols.isBlank(symbol);
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
        if (name.equals("count") && parts.stream().anyMatch(CountField.class::isInstance))
            throw new PatternException(open + 1, "a second count", "a pattern has exactly one");
        parts.add(
                switch (name) {
                    case "count" -> count(option, column);
                    case "date" -> date(option, column, DateFormat.Calendar.CIVIL);
                    case "fiscal" -> date(option, column, DateFormat.Calendar.FISCAL_BY_START);
                    case "fiscal-end" -> date(option, column, DateFormat.Calendar.FISCAL_BY_END);
                    case "field" -> TextFieldParser.field(option, column);
                    case "unit" -> TextFieldParser.unit(option, column);
                    case "check" -> check(option, column);
                    default ->
                        throw new PatternException(
                                open + 2 + nameStart,
                                name.isEmpty() ? "the field has no name" : "‘" + name + "’ is not a field",
                                NearestName.to(name, FIELDS)
                                                .filter(near -> !name.isEmpty())
                                                .map(near -> "did you mean {" + near + "}? ")
                                                .orElse("")
                                        + FIELD_SHAPES);
                });
        return close + 1;
    }

    private DateField date(String option, int column, DateFormat.Calendar calendar) {
        editionMatters |= DateFormat.hasQuoteInQuotes(option);
        return new DateField(DateFormat.parse(option, column, calendar, style, edition));
    }

    private static int skipSpaces(String inside, int at) {
        while (at < inside.length() && inside.charAt(at) == ' ') at++;
        return at;
    }

    private static CountField count(String option, int column) {
        int width = 0;
        Alphabet alphabet = Alphabet.DIGITS;
        boolean grows = false;
        var words = new ArrayDeque<>(List.of(option.split(" +")));
        if (option.isEmpty()) words.clear();
        if (!words.isEmpty() && words.peek().matches("[0-9]{1,3}")) {
            width = Integer.parseInt(words.poll());
            if (width < 1 || width > CountField.MAX_WIDTH)
                throw new PatternException(column, "‘" + width + "’ is not a width of the count", COUNT_SHAPES);
        }
        if (!words.isEmpty() && !words.peek().equals("grow")) alphabet = alphabet(words, column);
        if (!words.isEmpty() && words.peek().equals("grow")) {
            grows = words.poll() != null;
            if (width == 0)
                throw new PatternException(
                        column,
                        "a count without a width grows by itself",
                        "remove grow, or add the width to start with");
        }
        if (!words.isEmpty())
            throw new PatternException(column, "‘" + words.peek() + "’ is not an option of the count", COUNT_SHAPES);
        return new CountField(width, alphabet, grows);
    }

    private static Alphabet alphabet(Deque<String> words, int column) {
        String word = words.poll();
        if (word.equals("of")) {
            if (words.isEmpty())
                throw new PatternException(
                        column, "‘of’ names no symbols", "add them, the lowest first, such as of ABCDEF");
            try {
                return Alphabet.of(words.poll());
            } catch (IllegalArgumentException e) {
                throw new PatternException(column, e.getMessage(), "write each symbol once, the lowest first");
            }
        }
        Alphabet named = Alphabet.named(word);
        if (named == null)
            throw new PatternException(
                    column,
                    "‘" + word + "’ is neither a width nor an alphabet of the count",
                    NearestName.to(word, Alphabet.names())
                                    .map(near -> "did you mean " + near + "? ")
                                    .orElse("")
                            + COUNT_SHAPES);
        return named;
    }

    private CheckField check(String option, int column) {
        boolean ofCount = option.endsWith(" of count");
        String name = ofCount
                ? option.substring(0, option.length() - " of count".length()).strip()
                : option;
        if (name.isEmpty())
            throw new PatternException(
                    column, "the check field names no scheme", "write one of " + CheckSchemes.names());
        CheckScheme newest = CheckSchemes.of(name)
                .orElseThrow(() -> new PatternException(
                        column,
                        "‘" + name + "’ is not a check digit scheme",
                        NearestName.to(
                                                name,
                                                CheckSchemes.all().stream()
                                                        .map(CheckScheme::name)
                                                        .toList())
                                        .map(near -> "did you mean " + near + "? ")
                                        .orElse("")
                                + "write one of " + CheckSchemes.names()
                                + "; then of count, if it is to cover the count alone"));
        CheckScheme first = CheckSchemes.ofFirstEdition(name).orElseThrow();
        editionMatters |= !first.equals(newest);
        CheckScheme scheme = edition == PatternEdition.FIRST ? first : newest;
        if (scheme instanceof WeightedModulus weighted && !weighted.isTotal())
            throw new PatternException(
                    column,
                    "some numbers have no check digit under ‘" + name + "’",
                    "say how ten is written, such as " + name + "=X");
        return new CheckField(scheme, ofCount);
    }

    private void endLiteral() {
        if (literal.isEmpty()) return;
        parts.add(new Literal(literal.toString()));
        literal.setLength(0);
    }
}
