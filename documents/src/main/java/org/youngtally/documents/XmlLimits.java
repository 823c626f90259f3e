package org.youngtally.documents;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Counts what is in XML while its bytes pass, before a parser sees them: what a parser needs grows with the square of
 * the namespaces, attributes and levels of a file. Markup is told from text by the grammar of XML 1.0; where a file
 * does not keep to that, a parser ends as well.
 */
public final class XmlLimits {
    private static final int DEEPEST = 256;
    private static final int MOST_ATTRIBUTES = 1_000;
    private static final int MOST_PREFIXES = 256;
    private static final int MOST_NAMES = 10_000;
    private static final int LONGEST_NAME = 1_000;
    private static final int LONGEST_TYPE = 64_000;
    private static final int FIRST = 4;
    /** A symbol that is none of ASCII, which is all that is to be known of it. */
    private static final int OTHER_SYMBOL = 0x80;
    /** How files begin whose encoding is not written in bytes of ASCII: UTF-32, EBCDIC; by appendix F. */
    private static final List<byte[]> OTHER_ENCODINGS = List.of(
            bytes(0x00, 0x00, 0xFE, 0xFF),
            bytes(0xFF, 0xFE, 0x00, 0x00),
            bytes('<', 0x00, 0x00, 0x00),
            bytes(0x00, 0x00, 0x00, '<'),
            bytes(0x4C, 0x6F, 0xA7, 0x94));

    private static final Pattern ENCODING = Pattern.compile("^xml\\s.*encoding\\s*=\\s*[\"']([^\"']*)", Pattern.DOTALL);
    private static final Pattern UTF8 = Pattern.compile("utf-8|us-ascii", Pattern.CASE_INSENSITIVE);
    /** In which every symbol of markup is the one that is counted here. */
    private static final Pattern OF_A_PART = Pattern.compile(
            "utf-?8|utf-?16(be|le)?|(us-)?ascii|iso-8859-[0-9]+|windows-125[0-9]", Pattern.CASE_INSENSITIVE);

    private enum In {
        /** White space, or the mark of UTF-8. */
        FRONT,
        TEXT,
        /** Until it is known what an angle bracket opens. */
        MARKUP,
        COMMENT,
        CDATA,
        INSTRUCTION,
        /** The declaration of a document's type. */
        TYPE,
        TYPE_TEXT,
        NAME,
        TAG,
        ATTRIBUTE,
        VALUE,
        END_TAG,
        NO_XML
    }

    private final String called;
    private final byte[] first = new byte[FIRST];
    private final StringBuilder word = new StringBuilder();
    private final Set<String> prefixes = new HashSet<>();
    private final Set<String> names = new HashSet<>();
    private In in = In.FRONT;
    /** Where a comment or an instruction goes back to. */
    private In around = In.TEXT;

    /** Whether it is one of many in a packed file, of which some are read by nobody. */
    private final boolean part;

    /** Whether two bytes are a symbol, and of these whether the lower one comes first. */
    private boolean paired;

    private boolean lowerFirst;
    private long passed;
    /** The last four symbols. */
    private int tail;

    private int before;
    private int quote;
    private int brackets;
    private int typeLength;
    private int depth;
    private int attributes;

    private XmlLimits(String called, boolean part) {
        this.called = called;
        this.part = part;
    }

    /** Of a part of a packed file, which may be in UTF-16 as well. */
    static XmlLimits ofPart(String called) {
        return new XmlLimits(called, true);
    }

    /**
     * @param called what the file is called at the beginning of a sentence
     * @throws UnreadableDocument where it has more than a limit
     */
    public static void check(byte[] bytes, String called) throws UnreadableDocument {
        new XmlLimits(called, false).pass(bytes, bytes.length);
    }

    /** The next bytes of a file; one that is no XML is not looked at. */
    void pass(byte[] bytes, int length) throws UnreadableDocument {
        for (int i = 0; i < length && (in != In.NO_XML || passed < FIRST); i++) {
            if (passed < FIRST) first[(int) passed] = bytes[i];
            passed++;
            if (passed == 2) lookForPairs();
            if (passed == FIRST && OTHER_ENCODINGS.stream().anyMatch(each -> Arrays.equals(each, first)))
                throw writtenIn("another encoding than UTF-8");
            if (!paired) symbol(bytes[i] & 0xFF);
            else if (passed % 2 == 0) symbol(pair(before, bytes[i] & 0xFF));
            before = bytes[i] & 0xFF;
        }
    }

    private void symbol(int c) throws UnreadableDocument {
        tail = tail << 8 | c;
        in = next(c);
    }

    /** UTF-16 is known by its mark, or by the first angle bracket. */
    private void lookForPairs() throws UnreadableDocument {
        int beginning = (first[0] & 0xFF) << 8 | first[1] & 0xFF;
        lowerFirst = beginning == 0xFFFE || beginning == '<' << 8;
        paired = lowerFirst || beginning == 0xFEFF || beginning == '<';
        if (!paired) return;
        if (!part) throw writtenIn("another encoding than UTF-8");
        in = In.FRONT;
    }

    private int pair(int one, int other) {
        return Math.min(OTHER_SYMBOL, lowerFirst ? other << 8 | one : one << 8 | other);
    }

    private In next(int c) throws UnreadableDocument {
        if (around == In.TYPE && ++typeLength > LONGEST_TYPE)
            throw tooMuch("a declaration of its type of more than %,d bytes", LONGEST_TYPE, "a file without it");
        return switch (in) {
            case FRONT -> c == '<' ? markup() : isWhite(c) || isMark(c) ? In.FRONT : In.NO_XML;
            case TEXT -> c == '<' ? markup() : In.TEXT;
            case MARKUP -> opened(c);
            case COMMENT -> ends("-->") ? around : In.COMMENT;
            case CDATA -> ends("]]>") ? In.TEXT : In.CDATA;
            case INSTRUCTION -> instruction(c);
            case TYPE -> type(c);
            case TYPE_TEXT -> c == quote ? In.TYPE : In.TYPE_TEXT;
            case NAME -> isName(c) ? add(c, In.NAME) : tag(named(c));
            case TAG -> tag(c);
            case ATTRIBUTE -> isName(c) ? add(c, In.ATTRIBUTE) : tag(attribute(c));
            case VALUE -> c == quote ? In.TAG : In.VALUE;
            case END_TAG -> c == '>' ? closed() : In.END_TAG;
            case NO_XML -> In.NO_XML;
        };
    }

    private In markup() {
        word.setLength(0);
        return In.MARKUP;
    }

    private In opened(int c) throws UnreadableDocument {
        word.append((char) c);
        String begun = word.toString();
        if (begun.equals("!--")) return comment();
        if (begun.equals("![CDATA[")) return In.CDATA;
        if ("!--".startsWith(begun) || "![CDATA[".startsWith(begun)) return In.MARKUP;
        word.setLength(0);
        if (c == '?' && begun.length() == 1) return In.INSTRUCTION;
        if (c == '/' && begun.length() == 1) return In.END_TAG;
        if (begun.charAt(0) != '!') return isName(c) ? add(c, In.NAME) : In.TEXT;
        around = In.TYPE;
        return type(c);
    }

    /** What opened it is no part of its end. */
    private In comment() {
        tail = 0;
        return In.COMMENT;
    }

    private In instruction(int c) throws UnreadableDocument {
        if (!ends("?>")) {
            if (word.length() < LONGEST_NAME) word.append((char) c);
            return In.INSTRUCTION;
        }
        Matcher declared = ENCODING.matcher(word);
        if (declared.find()
                && !(part ? OF_A_PART : UTF8).matcher(declared.group(1)).matches()) throw writtenIn(declared.group(1));
        return around;
    }

    private In type(int c) {
        if (c == '"' || c == '\'') {
            quote = c;
            return In.TYPE_TEXT;
        }
        if (ends("<!--")) return comment();
        if (ends("<?")) {
            word.setLength(0);
            tail = 0;
            return In.INSTRUCTION;
        }
        if (c == '[') brackets++;
        if (c == ']') brackets--;
        if (c != '>' || brackets > 0) return In.TYPE;
        around = In.TEXT;
        return In.TEXT;
    }

    /** Behind the name of an element. */
    private int named(int c) throws UnreadableDocument {
        known();
        attributes = 0;
        if (++depth > DEEPEST)
            throw tooMuch("more than %,d elements within each other", DEEPEST, "fewer elements within elements");
        return c;
    }

    private In tag(int c) throws UnreadableDocument {
        if (c == '>') return (tail >> 8 & 0xFF) == '/' ? closed() : In.TEXT;
        if (c == '"' || c == '\'') {
            quote = c;
            return In.VALUE;
        }
        if (!isName(c)) return In.TAG;
        if (++attributes > MOST_ATTRIBUTES)
            throw tooMuch("more than %,d attributes at one element", MOST_ATTRIBUTES, "fewer attributes");
        word.setLength(0);
        return add(c, In.ATTRIBUTE);
    }

    /** Behind the name of an attribute. */
    private int attribute(int c) throws UnreadableDocument {
        known();
        if (word.indexOf("xmlns") == 0 && prefixes.add(word.toString()) && prefixes.size() > MOST_PREFIXES)
            throw tooMuch("more than %,d prefixes of namespaces", MOST_PREFIXES, "fewer namespaces");
        return c;
    }

    private void known() throws UnreadableDocument {
        if (names.add(word.toString()) && names.size() > MOST_NAMES)
            throw tooMuch("more than %,d different names", MOST_NAMES, "fewer names of elements and attributes");
    }

    private In closed() {
        depth--;
        return In.TEXT;
    }

    private In add(int c, In then) throws UnreadableDocument {
        if (word.length() == LONGEST_NAME)
            throw tooMuch("a name of more than %,d bytes", LONGEST_NAME, "shorter names");
        word.append((char) c);
        return then;
    }

    private static boolean isName(int c) {
        return !isWhite(c) && "/>=\"'".indexOf(c) < 0;
    }

    private boolean isMark(int c) {
        return paired ? c == OTHER_SYMBOL && passed == 2 : c == 0xEF || c == 0xBB || c == 0xBF;
    }

    private static boolean isWhite(int c) {
        return c == ' ' || c == '\t' || c == '\r' || c == '\n';
    }

    private boolean ends(String with) {
        for (int i = 0; i < with.length(); i++)
            if ((tail >> 8 * i & 0xFF) != with.charAt(with.length() - 1 - i)) return false;
        return true;
    }

    private UnreadableDocument tooMuch(String what, int limit, String accepted) {
        return new UnreadableDocument(called + " has " + what.formatted(limit), accepted);
    }

    private UnreadableDocument writtenIn(String encoding) {
        return new UnreadableDocument(called + " is written in " + encoding, "the same file saved in UTF-8");
    }

    private static byte[] bytes(int... values) {
        var bytes = new byte[values.length];
        for (int i = 0; i < values.length; i++) bytes[i] = (byte) values[i];
        return bytes;
    }
}
