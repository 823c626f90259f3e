package org.youngtally.documents.part;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.documents.UnreadableDocument;

/**
 * Reads the clear text encoding of ISO 10303-21: instances of the entities that are asked for, and where their values
 * are. All others go by without becoming anything.
 */
final class StepReader {
    private static final byte[] BEGIN = ascii("ISO-10303-21;");
    private static final byte[] END = ascii("END-ISO-10303-21;");
    private static final int DEEPEST = 64;
    private static final int MOST_INSTANCES = 2_000_000;
    private static final String ACCEPTED = "a file of ISO 10303-21 (STEP), as a drawing program writes it";

    private final byte[] bytes;
    private final String name;
    /** The entities that are asked for, by the length of their names. */
    private final Map<Integer, List<byte[]>> wanted = new HashMap<>();

    private final Map<String, List<Instance>> found = new HashMap<>();
    private final List<String> schemas = new ArrayList<>();
    private int at;
    private int instances;
    private boolean signed;

    /** A value of an instance. */
    sealed interface Value {
        /** A string, its apostrophes included. */
        record Text(int from, int to) implements Value {}

        /** Another instance. */
        record Reference(long instance) implements Value {}

        record Several(List<Value> values) implements Value {}

        /** Anything else: a number, an enumeration, nothing. */
        record Other(int from, int to) implements Value {}
    }

    /** An instance of an entity. */
    record Instance(long id, String entity, List<Value> values) {
        Optional<Value> value(int place) {
            return place < values.size() ? Optional.of(values.get(place)) : Optional.empty();
        }

        Optional<Long> reference(int place) {
            return value(place).filter(Value.Reference.class::isInstance).map(each -> ((Value.Reference) each)
                    .instance());
        }

        /** Those that a list names. */
        List<Long> references(int place) {
            return value(place).filter(Value.Several.class::isInstance).stream()
                    .flatMap(each -> ((Value.Several) each).values().stream())
                    .filter(Value.Reference.class::isInstance)
                    .map(each -> ((Value.Reference) each).instance())
                    .toList();
        }
    }

    /** @param name of the file, for messages */
    StepReader(byte[] bytes, String name, Set<String> entities) throws UnreadableDocument {
        this.bytes = bytes;
        this.name = name;
        for (String entity : entities)
            wanted.computeIfAbsent(entity.length(), length -> new ArrayList<>()).add(ascii(entity));
        read();
    }

    private static byte[] ascii(String text) {
        return text.getBytes(StandardCharsets.US_ASCII);
    }

    /** In their order in the file. */
    List<Instance> instances(String entity) {
        return found.getOrDefault(entity, List.of());
    }

    /** The names of the schemas that the file says. */
    List<String> schemas() {
        return schemas;
    }

    /** Whether the bytes are signed, so that no other bytes are what was signed. */
    boolean isSigned() {
        return signed;
    }

    /** @throws UnreadableDocument that names the instance, where it is wrongly encoded */
    String text(Value value, long instance) throws UnreadableDocument {
        if (!(value instanceof Value.Text text)) return "";
        try {
            return StepText.read(bytes, text.from() + 1, text.to() - 1);
        } catch (IllegalArgumentException e) {
            throw new UnreadableDocument(
                    "‘" + name + "’: a string of #" + instance + " is wrongly encoded: " + e.getMessage(),
                    "strings as ISO 10303-21 encodes them",
                    e);
        }
    }

    private void read() throws UnreadableDocument {
        blanks();
        if (!starts(BEGIN)) throw new UnreadableDocument("‘" + name + "’ does not begin as a STEP file", ACCEPTED);
        at += BEGIN.length;
        while (true) {
            blanks();
            if (starts(END)) break;
            int from = at;
            if (at >= bytes.length)
                throw new UnreadableDocument(
                        "‘" + name + "’ ends before END-ISO-10303-21: it is not whole", "the whole file");
            if (bytes[at] == '#') instance();
            else {
                end();
                if (word(from, "FILE_SCHEMA")) schema(from);
            }
        }
        at += END.length;
        blanks();
        signed = word(at, "SIGNATURE");
    }

    private boolean starts(byte[] with) {
        return matches(at, with);
    }

    private boolean matches(int from, byte[] with) {
        if (from + with.length > bytes.length) return false;
        for (int i = 0; i < with.length; i++) if (bytes[from + i] != with[i]) return false;
        return true;
    }

    private boolean word(int from, String word) {
        return matches(from, ascii(word));
    }

    /** Goes behind blanks, breaks of lines and comments. */
    private void blanks() throws UnreadableDocument {
        while (at < bytes.length) {
            if (bytes[at] == '/' && at + 1 < bytes.length && bytes[at + 1] == '*') comment();
            else if (bytes[at] > ' ') return;
            else if (bytes[at] < 0) throw broken("is no symbol of a STEP file");
            else at++;
        }
    }

    private void comment() throws UnreadableDocument {
        int from = at;
        at += 2;
        while (at + 1 < bytes.length && (bytes[at] != '*' || bytes[at + 1] != '/')) at++;
        if (at + 1 >= bytes.length) {
            at = from;
            throw broken("begins a comment that does not end");
        }
        at += 2;
    }

    private void string() throws UnreadableDocument {
        int from = at++;
        while (at < bytes.length && bytes[at] != '\'') at++;
        if (at >= bytes.length) {
            at = from;
            throw broken("begins a string that does not end");
        }
        at++;
    }

    /** Goes behind the end of a statement. */
    private void end() throws UnreadableDocument {
        byte[] all = bytes;
        while (at < all.length) {
            byte symbol = all[at];
            if (symbol == '\'') string();
            else if (symbol == '/' && at + 1 < all.length && all[at + 1] == '*') comment();
            else {
                at++;
                if (symbol == ';') return;
            }
        }
    }

    private UnreadableDocument broken(String what) {
        long line = 1;
        for (int i = 0; i < at; i++) if (bytes[i] == '\n') line++;
        String here = at < bytes.length
                ? "‘"
                        + new String(bytes, at, Math.min(20, bytes.length - at), StandardCharsets.ISO_8859_1)
                                .replaceAll("[^ -~].*", "")
                : "its end ";
        return new UnreadableDocument(
                "‘" + name + "’, line " + line + ": " + here + (at < bytes.length ? "’ " : "") + what, ACCEPTED);
    }

    private void instance() throws UnreadableDocument {
        at++;
        long id = digits();
        blanks();
        if (at >= bytes.length || bytes[at] != '=') throw broken("is behind #" + id + ", where = is expected");
        at++;
        blanks();
        int from = at;
        while (at < bytes.length && isKeyword(bytes[at])) at++;
        Optional<byte[]> entity = wanted(from, at - from);
        blanks();
        if (entity.isPresent()) {
            if (++instances > MOST_INSTANCES)
                throw new UnreadableDocument(
                        "‘" + name + "’ has more than %,d products, properties and uses".formatted(MOST_INSTANCES),
                        "a smaller file");
            String called = new String(entity.get(), StandardCharsets.US_ASCII);
            found.computeIfAbsent(called, first -> new ArrayList<>())
                    .add(new Instance(id, called, several(0).values()));
            blanks();
            if (at >= bytes.length || bytes[at] != ';') throw broken("is behind #" + id + ", where ; is expected");
        }
        end();
    }

    private static boolean isKeyword(byte symbol) {
        return symbol >= 'A' && symbol <= 'Z' || symbol == '_' || symbol >= '0' && symbol <= '9';
    }

    private Optional<byte[]> wanted(int from, int length) {
        List<byte[]> names = wanted.get(length);
        if (names == null) return Optional.empty();
        for (byte[] each : names) if (matches(from, each)) return Optional.of(each);
        return Optional.empty();
    }

    private long digits() throws UnreadableDocument {
        long number = 0;
        int from = at;
        while (at < bytes.length && bytes[at] >= '0' && bytes[at] <= '9' && at - from < 18)
            number = number * 10 + bytes[at++] - '0';
        if (at == from) throw broken("is behind #, where digits are expected");
        return number;
    }

    private Value.Several several(int depth) throws UnreadableDocument {
        if (depth > DEEPEST) throw broken("begins a list too deep in others");
        if (at >= bytes.length || bytes[at] != '(') throw broken("is where ( is expected");
        at++;
        var values = new ArrayList<Value>();
        while (true) {
            blanks();
            if (at >= bytes.length) throw broken("is in a list that does not end");
            if (bytes[at] == ')') {
                at++;
                return new Value.Several(values);
            }
            if (bytes[at] == ',') at++;
            else values.add(value(depth));
        }
    }

    private Value value(int depth) throws UnreadableDocument {
        int from = at;
        switch (bytes[at]) {
            case '\'' -> {
                string();
                // A doubled apostrophe stands for one.
                while (at < bytes.length && bytes[at] == '\'') string();
                return new Value.Text(from, at);
            }
            case '#' -> {
                at++;
                return new Value.Reference(digits());
            }
            case '(' -> {
                return several(depth + 1);
            }
            default -> {
                while (at < bytes.length && ",();'#".indexOf(bytes[at]) < 0) at++;
                int to = at;
                // A value with its type, such as LABEL('red').
                if (at < bytes.length && bytes[at] == '(') {
                    List<Value> typed = several(depth + 1).values();
                    if (typed.size() == 1) return typed.getFirst();
                }
                if (at == from) throw broken("is where a value is expected");
                while (to > from && bytes[to - 1] <= ' ') to--;
                return new Value.Other(from, to);
            }
        }
    }

    /** The names in a header such as {@code FILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 3 1 1 }'));} */
    private void schema(int from) throws UnreadableDocument {
        int end = at;
        at = from + "FILE_SCHEMA".length();
        blanks();
        for (Value each : several(0).values())
            if (each instanceof Value.Several several)
                for (Value one : several.values())
                    schemas.add(text(one, 0).strip().split("[ {]", 2)[0]);
        at = end;
    }
}
