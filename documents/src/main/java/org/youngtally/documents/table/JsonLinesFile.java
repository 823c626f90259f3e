package org.youngtally.documents.table;

import com.google.gson.stream.JsonReader;
import com.google.gson.stream.JsonToken;
import com.google.gson.stream.MalformedJsonException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Reader;
import java.io.StringReader;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.documents.UnreadableDocument;

/** A JSON object a line; every name that occurs is a column, and only texts, figures, true and false are cells. */
record JsonLinesFile(Path file, TextEncoding encoding, List<String> columns) implements TableFile {
    private static final int LONGEST_LINE = 1_000_000;

    /** Gets the objects. */
    private interface ObjectReader {
        boolean object(long line, Map<String, String> values) throws UnreadableDocument;
    }

    static JsonLinesFile open(Path file, TextEncoding encoding) throws IOException, UnreadableDocument {
        var places = new LinkedHashMap<String, Integer>();
        each(file, encoding, (line, values) -> {
            for (String name : values.keySet()) places.putIfAbsent(name, places.size());
            TableBounds.column(places.size() - 1, (int) line);
            return true;
        });
        if (places.isEmpty())
            throw new UnreadableDocument("The file has no objects", "a JSON object a line, with names and values");
        return new JsonLinesFile(file, encoding, List.copyOf(places.keySet()));
    }

    private static void each(Path file, TextEncoding encoding, ObjectReader objects)
            throws IOException, UnreadableDocument {
        TableBounds bounds = TableBounds.streamed();
        try (Reader reader = encoding.reader(file);
                var lines = new BufferedReader(reader)) {
            long at = 0;
            for (String line = line(lines, 1); line != null; line = line(lines, at + 1)) {
                at++;
                bounds.line(1);
                if (at == 1 && line.startsWith("\uFEFF")) line = line.substring(1);
                if (!line.isBlank() && !objects.object(at, object(line, at))) return;
            }
        } catch (CharacterCodingException e) {
            throw encoding.wrong(e);
        }
    }

    /** The next line; null behind the last. */
    private static String line(BufferedReader lines, long number) throws IOException, UnreadableDocument {
        var line = new StringBuilder();
        int symbol = lines.read();
        if (symbol < 0) return null;
        for (; symbol >= 0 && symbol != '\n'; symbol = lines.read()) {
            if (line.length() >= LONGEST_LINE)
                throw new UnreadableDocument(
                        "Line %,d has more than %,d symbols".formatted(number, LONGEST_LINE),
                        "a JSON object a line, of up to %,d symbols".formatted(LONGEST_LINE));
            line.append((char) symbol);
        }
        return line.toString();
    }

    private static Map<String, String> object(String line, long number) throws IOException, UnreadableDocument {
        var values = new LinkedHashMap<String, String>();
        try (var json = new JsonReader(new StringReader(line))) {
            json.beginObject();
            while (json.hasNext()) {
                String name = json.nextName();
                String value = value(json);
                TableBounds.cell(value.length(), (int) number);
                values.put(name, value.strip());
            }
            json.endObject();
            if (json.peek() != JsonToken.END_DOCUMENT) throw new MalformedJsonException("text behind the object");
        } catch (MalformedJsonException | IllegalStateException | java.io.EOFException e) {
            throw new UnreadableDocument("Line %,d is no JSON object".formatted(number), "a JSON object a line", e);
        }
        return values;
    }

    private static String value(JsonReader json) throws IOException {
        return switch (json.peek()) {
            case STRING, NUMBER -> json.nextString();
            case BOOLEAN -> Boolean.toString(json.nextBoolean());
            case NULL -> {
                json.nextNull();
                yield "";
            }
            default -> {
                json.skipValue();
                yield "";
            }
        };
    }

    @Override
    public List<String> notes() {
        return encoding.note().stream().toList();
    }

    @Override
    public void rewrite(Rewriting rewriting, OutputStream to) throws IOException, UnreadableDocument {
        String name = columns.get(rewriting.column());
        try (Reader reader = encoding.reader(file);
                var lines = new BufferedReader(reader);
                TextCopy copy = encoding.copy(file, to)) {
            long start = 0;
            long at = 0;
            for (String line = line(lines, 1); line != null; line = line(lines, at + 1)) {
                at++;
                Optional<String> text = line.isBlank() || line.equals("\uFEFF")
                        ? Optional.empty()
                        : rewriting.texts().apply(at);
                if (text.isPresent()) {
                    var member = JsonMember.find(line, name);
                    copy.copyTo(start + member.from());
                    copy.put(member.with(name, text.get()));
                    copy.skipTo(start + member.to());
                    if (rewriting.oldColumn().isPresent()) {
                        copy.copyTo(start + JsonMember.end(line));
                        copy.put(JsonMember.further(rewriting.oldColumn().get(), Formulas.harmless(member.text())));
                    }
                }
                start += line.length() + 1;
            }
            copy.copyRest();
        } catch (CharacterCodingException e) {
            throw encoding.wrong(e);
        }
    }

    @Override
    public void read(RowReader rows) throws IOException, UnreadableDocument {
        var cells = new ArrayList<>(Collections.nCopies(columns.size(), ""));
        each(file, encoding, (line, values) -> {
            for (int i = 0; i < columns.size(); i++) cells.set(i, values.getOrDefault(columns.get(i), ""));
            return cells.stream().allMatch(String::isEmpty) || rows.row(line, cells);
        });
    }
}
