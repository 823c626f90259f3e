package org.youngtally.service.label;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVPrinter;
import org.apache.commons.csv.CSVRecord;
import org.springframework.stereotype.Component;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.Layout;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Formulas;
import org.youngtally.documents.table.Table;
import org.youngtally.ledger.Ledger;

/**
 * Keeps the tables that labels are printed for among the files of the ledger, each as CSV (RFC 4180, UTF-8) whatever it
 * was sent as; a job names the one that it was printed for by its digest.
 */
@Component
public final class FieldTables {
    /** The first line of a file that is such a table: no other file of the ledger is read as one. */
    private static final List<String> MARK = List.of("table of labels");

    private static final int MOST_COLUMNS = 200;
    /** So many are held in memory. */
    private static final int HELD = 4;

    /** The most rows of a table. */
    public static final int MOST_ROWS = 10_000;

    private final Ledger ledger;
    private final Cache<String, FieldTable> held =
            Caffeine.newBuilder().maximumSize(HELD).build();

    FieldTables(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * Reads a table.
     *
     * @throws UnreadableDocument where it is none, or has no rows, or more than are printed at once
     */
    public static FieldTable read(Table.Format format, byte[] bytes) throws UnreadableDocument {
        Table table = Table.read(format, bytes);
        if (table.rows().isEmpty()) throw new UnreadableDocument("The table has no rows", "a row for each label");
        if (table.rows().size() > MOST_ROWS)
            throw new UnreadableDocument(
                    "The table has %,d rows".formatted(table.rows().size()), "up to %,d rows".formatted(MOST_ROWS));
        if (table.columns().size() > MOST_COLUMNS)
            throw new UnreadableDocument(
                    "The table has %,d columns".formatted(table.columns().size()),
                    "up to %,d columns".formatted(MOST_COLUMNS));
        var rows = new ArrayList<List<String>>();
        for (Table.Row row : table.rows()) {
            var cells = new ArrayList<String>();
            for (int at = 0; at < table.columns().size(); at++) cells.add(Formulas.unmarked(row.cell(at)));
            rows.add(cells);
        }
        return new FieldTable(table.columns(), rows);
    }

    /** @return by what it is known */
    public String keep(FieldTable table) throws IOException {
        String digest = ledger.files()
                .keep(new ByteArrayInputStream(written(table)), Long.MAX_VALUE)
                .digest();
        held.put(digest, table);
        return digest;
    }

    private static byte[] written(FieldTable table) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var out = new OutputStreamWriter(bytes, StandardCharsets.UTF_8);
                var csv = new CSVPrinter(out, CSVFormat.RFC4180)) {
            csv.printRecord(MARK);
            csv.printRecord(table.columns());
            for (List<String> row : table.rows()) csv.printRecord(row);
        }
        return bytes.toByteArray();
    }

    /** A table by its digest; absent where none is kept under it. */
    public Optional<FieldTable> at(String digest) {
        if (!digest.matches("[0-9a-f]{64}")) return Optional.empty();
        return Optional.ofNullable(held.get(digest, this::readAgain));
    }

    /**
     * The rows that the labels of a job are for.
     *
     * @param layout of the job
     */
    public Optional<FieldRows> rows(LabelJob job, Layout layout) {
        return job.table().map(digest -> {
            FieldTable table = at(digest)
                    .orElseThrow(() -> new IllegalStateException("the table of a label job is gone: " + digest));
            var titles = new HashMap<String, String>();
            for (Layout.Asked asked : layout.asked()) titles.put(asked.name(), asked.title());
            var names = new HashSet<>(layout.fields());
            names.addAll(titles.keySet());
            return new FieldRows(
                    table,
                    table.columns(names, titles),
                    job.labels() / table.rows().size());
        });
    }

    private FieldTable readAgain(String digest) {
        try {
            Optional<byte[]> bytes = ledger.files().read(digest);
            return bytes.filter(FieldTables::isMarked).isPresent() ? parsed(bytes.get()) : null;
        } catch (IOException e) {
            throw new UncheckedIOException("a table of labels could not be read", e);
        }
    }

    private static boolean isMarked(byte[] bytes) {
        byte[] mark = (MARK.getFirst() + "\r\n").getBytes(StandardCharsets.UTF_8);
        return Arrays.equals(mark, Arrays.copyOf(bytes, mark.length));
    }

    private static FieldTable parsed(byte[] bytes) throws IOException {
        try (Reader in = new InputStreamReader(new ByteArrayInputStream(bytes), StandardCharsets.UTF_8);
                CSVParser csv = CSVFormat.RFC4180.parse(in)) {
            List<List<String>> all = csv.stream().map(CSVRecord::toList).toList();
            return new FieldTable(all.get(1), all.subList(2, all.size()));
        }
    }
}
