package org.youngtally.documents.program;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.RuleDraft.MarkDraft;
import org.youngtally.documents.Content;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/**
 * A program of a machine as text, in which marks are replaced by numbers and values. Its items are the pieces that it
 * makes: their attributes are the values, the columns of their row in the table, {@code piece}, {@code line} in which
 * each begins, and the running numbers of the sections that it is in. The file goes by, and is never in memory as a
 * whole.
 */
public final class MarkedProgram implements NumberedFile {
    private static final int MOST_MARKS = 500_000;
    /** A value is this long at the most, and all that is written together. */
    private static final int LONGEST_VALUE = 2_000;

    private static final long MOST_WRITTEN = 50_000_000;
    /** So much of a line is shown on either side of a mark. */
    private static final int SHOWN = 200;

    private final Content content;
    private final String name;
    private final int number;
    private final Reading reading;
    private final List<Mark> marks;
    private final Charset charset;
    private final List<Occurrence> occurrences = new ArrayList<>();
    private final List<Piece> pieces = new ArrayList<>();
    private final List<Map<String, String>> known = new ArrayList<>();
    private final List<Item> items = new ArrayList<>();
    /** The values of each occurrence that is no number, in their order; null for one that stays. */
    private final List<String> values = new ArrayList<>();

    private int filled;
    /** How many bytes the values are together. */
    private long written;

    /**
     * A piece that the program makes.
     *
     * @param line in which it begins
     * @param sections the running numbers of those that it is in
     */
    private record Piece(long line, Map<String, String> sections, Set<String> marks) {}

    private MarkedProgram(Content content, String name, int number, Reading reading)
            throws IOException, UnreadableDocument {
        this.content = content;
        this.name = name;
        this.number = number;
        this.reading = reading;
        this.marks = reading.marks();
        this.charset = ProgramEncoding.of(content, name);
    }

    /** @throws UnreadableDocument for marks that overlap or do not occur, and for what nothing is said of */
    public static MarkedProgram read(Content content, String name, int number, Reading reading)
            throws IOException, UnreadableDocument {
        var program = new MarkedProgram(content, name, number, reading);
        program.scan();
        program.fill();
        return program;
    }

    private UnreadableDocument unreadable(long line, String problem, String accepted) {
        return new UnreadableDocument("‘" + name + "’, line " + line + ": " + problem, accepted);
    }

    private void scan() throws IOException, UnreadableDocument {
        boolean begun = marks.stream().anyMatch(MarkedProgram::beginsPiece);
        var sections = new Sections();
        try {
            new MarkScanner(marks, charset, (at, mark, line, lineAt) -> {
                        if (occurrences.size() == MOST_MARKS)
                            throw new UnreadableDocument(
                                    "There are more than %,d marks".formatted(MOST_MARKS), "fewer marks");
                        sections.met(marks.get(mark), line, begun);
                        occurrences.add(new Occurrence(at, mark, line, lineAt, sections.piece));
                    })
                    .scan(content);
        } catch (UnreadableDocument e) {
            throw new UnreadableDocument("‘" + name + "’: " + e.getMessage(), e.accepted(), e);
        }
        var met = new HashSet<Integer>();
        for (Occurrence each : occurrences) met.add(each.mark());
        for (int mark = 0; mark < marks.size(); mark++)
            if (!met.contains(mark))
                throw new UnreadableDocument(
                        "The mark ‘" + marks.get(mark).text() + "’ does not occur in ‘" + name + "’",
                        "marks that are in the file; a file in which they were replaced is not numbered again");
    }

    private static boolean beginsPiece(Mark mark) {
        return mark.begins().filter(MarkDraft.PIECE::equals).isPresent();
    }

    private static boolean isNumber(Mark mark) {
        return mark.replacedBy().filter(MarkDraft.NUMBER::equals).isPresent();
    }

    /** Where in the program the scanner is. */
    private final class Sections {
        private final Map<String, String> numbers = new TreeMap<>();
        private int piece;

        /** @param begun whether marks say where pieces begin */
        void met(Mark mark, long line, boolean begun) {
            if (mark.begins().isPresent() && !beginsPiece(mark)) {
                numbers.merge(mark.begins().get(), "1", (before, one) -> String.valueOf(Integer.parseInt(before) + 1));
                piece = 0;
            }
            if (begun ? beginsPiece(mark) : isNumber(mark)) {
                pieces.add(new Piece(line, Map.copyOf(numbers), new HashSet<>()));
                piece = pieces.size();
            }
            if (piece > 0) pieces.get(piece - 1).marks().add(mark.text());
        }
    }

    /** Finds what replaces every mark. */
    private void fill() throws UnreadableDocument {
        Optional<Mark> numberMark =
                marks.stream().filter(MarkedProgram::isNumber).findFirst();
        if (pieces.isEmpty() && reading.rows().isPresent())
            throw new UnreadableDocument(
                    "The table has a row for each piece, and no piece begins in ‘" + name + "’",
                    "a mark with begins: piece");
        if (reading.rows().isPresent() && reading.rows().get().size() < pieces.size())
            throw unreadable(
                    pieces.get(reading.rows().get().size()).line(),
                    "the table has no row for the piece that begins here: it has "
                            + reading.rows().get().size() + " for " + pieces.size() + " pieces",
                    "a row for each piece");
        var bounds = new ItemBounds();
        for (int i = 0; i < pieces.size(); i++) {
            Piece piece = pieces.get(i);
            known.add(known(i + 1));
            bounds.add(known.getLast().size());
            boolean bears = marks.stream()
                    .anyMatch(mark -> isNumber(mark) && piece.marks().contains(mark.text()));
            if (numberMark.isEmpty()) continue;
            if (!bears)
                throw unreadable(
                        piece.line(),
                        "the piece " + (i + 1) + " has no mark for its number",
                        "‘" + numberMark.get().text() + "’ in each piece");
            items.add(new Item(
                    number + ":piece " + (i + 1),
                    number,
                    numberMark.get().text(),
                    Optional.empty(),
                    known.getLast(),
                    Optional.empty()));
        }
        for (Occurrence each : occurrences) values.add(value(each));
    }

    /** What is known of a piece. */
    private Map<String, String> known(int piece) {
        var one = new TreeMap<>(reading.values());
        reading.rows().ifPresent(rows -> one.putAll(rows.get(piece - 1)));
        one.putAll(pieces.get(piece - 1).sections());
        one.put("piece", String.valueOf(piece));
        one.put("line", String.valueOf(pieces.get(piece - 1).line()));
        return one;
    }

    private String value(Occurrence each) throws UnreadableDocument {
        Mark mark = marks.get(each.mark());
        if (mark.replacedBy().isEmpty()) return null;
        if (isNumber(mark)) {
            if (each.piece() == 0)
                throw unreadable(
                        each.line(), "the mark ‘" + mark.text() + "’ is in no piece", "marks of numbers within pieces");
            return null;
        }
        String name = mark.replacedBy().get();
        String value = (each.piece() == 0 ? reading.values() : known.get(each.piece() - 1)).getOrDefault(name, "");
        if (value.isEmpty())
            throw unreadable(
                    each.line(),
                    "the mark ‘" + mark.text() + "’ is replaced by " + name + ", which has no value",
                    "a value " + name + (each.piece() == 0 ? "" : ", or a table with a column " + name));
        if (value.length() > LONGEST_VALUE)
            throw unreadable(
                    each.line(),
                    "the value for ‘" + mark.text() + "’ has more than %,d symbols".formatted(LONGEST_VALUE),
                    "shorter values");
        if (value.chars().anyMatch(Character::isISOControl))
            throw unreadable(
                    each.line(), "the value for ‘" + mark.text() + "’ has a break of line in it", "values of one line");
        written += encoded(value, each.line()).length;
        if (written > MOST_WRITTEN)
            throw unreadable(each.line(), "the values up to here are larger than 50 MB together", "shorter values");
        filled++;
        return value;
    }

    private byte[] encoded(String text, long line) throws UnreadableDocument {
        try {
            var bytes = charset.newEncoder().encode(CharBuffer.wrap(text));
            var exact = new byte[bytes.remaining()];
            bytes.get(exact);
            return exact;
        } catch (CharacterCodingException e) {
            throw new UnreadableDocument(
                    "‘" + name + "’, line " + line + ": ‘" + text + "’ cannot be written in " + charset.name()
                            + ", which the file is written in",
                    "symbols of " + charset.name() + ", or the file saved in UTF-8",
                    e);
        }
    }

    @Override
    public Sheet sheet() {
        return new Sheet(name, 0, 0);
    }

    @Override
    public List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public int filled() {
        return filled;
    }

    @Override
    public int rows() {
        return reading.rows().isPresent() ? pieces.size() : 0;
    }

    @Override
    public byte[] with(Map<String, String> changed) throws UnreadableDocument {
        return with(new Texts(changed, Map.of()));
    }

    /** A mark and what replaces it. */
    private record Change(Occurrence place, int length, byte[] with) {}

    /** In their order. Values of pieces that get no number stay as they are. */
    private List<Change> changes(Map<String, String> changed) throws UnreadableDocument {
        boolean numbered = marks.stream().anyMatch(MarkedProgram::isNumber);
        var changes = new ArrayList<Change>();
        if (numbered && changed.isEmpty()) return changes;
        for (int i = 0; i < occurrences.size(); i++) {
            Occurrence each = occurrences.get(i);
            Mark mark = marks.get(each.mark());
            String text = changed.get(number + ":piece " + each.piece());
            if (numbered && each.piece() > 0 && text == null) continue;
            String with = isNumber(mark) ? text : values.get(i);
            if (with != null)
                changes.add(new Change(each, mark.text().getBytes(charset).length, encoded(with, each.line())));
        }
        return changes;
    }

    @Override
    public void write(Texts texts, OutputStream to) throws IOException, UnreadableDocument {
        if (!texts.also().isEmpty())
            throw new UnreadableDocument("A program has no further properties", "no also: in the rule");
        var block = new byte[1 << 18];
        long at = 0;
        try (InputStream in = content.open()) {
            for (Change change : changes(texts.changed())) {
                copy(in, to, change.place().at() - at, block);
                in.skipNBytes(change.length());
                to.write(change.with());
                at = change.place().at() + change.length();
            }
            copy(in, to, Long.MAX_VALUE, block);
        }
    }

    private static void copy(InputStream in, OutputStream to, long count, byte[] block) throws IOException {
        for (long left = count; left > 0; ) {
            int read = in.read(block, 0, (int) Math.min(block.length, left));
            if (read < 0) return;
            to.write(block, 0, read);
            left -= read;
        }
    }

    @Override
    public List<Line> lines(Map<String, String> changed) throws IOException, UnreadableDocument {
        var lines = new ArrayList<Line>();
        List<Change> changes = changes(changed);
        long at = 0;
        try (InputStream in = new BufferedInputStream(content.open())) {
            for (int i = 0; i < changes.size(); ) {
                int next = i + 1;
                while (next < changes.size()
                        && changes.get(next).place().line()
                                == changes.get(i).place().line()) next++;
                at = line(in, at, changes.subList(i, next), lines);
                i = next;
            }
        }
        return lines;
    }

    /**
     * @param at how far the file was read
     * @return how far it is read now
     */
    private long line(InputStream in, long at, List<Change> changes, List<Line> lines) throws IOException {
        Occurrence first = changes.getFirst().place();
        long from = Math.max(Math.max(first.lineAt(), first.at() - SHOWN), at);
        in.skipNBytes(from - at);
        var before = new ByteArrayOutputStream();
        var after = new ByteArrayOutputStream();
        long now = from;
        int change = 0;
        while (true) {
            if (change < changes.size() && now == changes.get(change).place().at()) {
                before.write(in.readNBytes(changes.get(change).length()));
                after.write(changes.get(change).with());
                now += changes.get(change).length();
                change++;
                continue;
            }
            // Of a very long line its beginning is shown.
            if (before.size() > 5 * SHOWN
                    || change == changes.size()
                            && now > changes.getLast().place().at() + 2 * SHOWN) break;
            int symbol = in.read();
            if (symbol < 0) break;
            now++;
            if (symbol == '\n') break;
            before.write(symbol);
            after.write(symbol);
        }
        lines.add(new Line(first.line(), shown(before), shown(after)));
        return now;
    }

    private String shown(ByteArrayOutputStream bytes) {
        return bytes.toString(charset).replace("\r", "");
    }
}
