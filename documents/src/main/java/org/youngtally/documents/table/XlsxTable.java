package org.youngtally.documents.table;

import com.fasterxml.aalto.UncheckedStreamException;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ExcelReaderException;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Sheet;
import org.youngtally.documents.PackedFile;
import org.youngtally.documents.UnreadableDocument;

/**
 * The first sheet of a workbook of spreadsheets, by ECMA-376. Only the cells that are filled are written anew; every
 * other part of the file is passed on.
 */
final class XlsxTable implements Table {
    /** A file this small that holds more is made to do harm. */
    private static final long MOST_BYTES = 400_000_000L;

    private final byte[] bytes;
    private final String sheet;
    private final List<String> columns;
    private final int head;
    private final Map<Integer, Set<Long>> formulas;
    private final List<Row> rows;

    private XlsxTable(byte[] bytes, String sheet, List<Row> read, Map<Integer, Set<Long>> formulas)
            throws UnreadableDocument {
        this.formulas = formulas;
        this.bytes = bytes;
        this.sheet = sheet;
        if (read.isEmpty())
            throw new UnreadableDocument("The first sheet is empty", "a first row with the names of the columns");
        this.columns = read.getFirst().cells().stream().map(String::strip).toList();
        this.head = read.getFirst().line();
        this.rows = read.subList(1, read.size());
    }

    static XlsxTable of(byte[] bytes) throws UnreadableDocument {
        try {
            PackedFile.bounded(bytes, MOST_BYTES, "The workbook");
            String sheet = SheetPart.first(bytes);
            SheetPart.bounded(bytes, sheet);
            var formulas = new HashMap<Integer, Set<Long>>();
            return new XlsxTable(bytes, sheet, read(bytes, formulas), formulas);
        } catch (IOException | ExcelReaderException | IllegalArgumentException | UncheckedStreamException e) {
            throw new UnreadableDocument(
                    "The file is no workbook that can be read (" + e.getMessage() + ")",
                    "a workbook that was saved as .xlsx",
                    e);
        }
    }

    /** @param formulas gets the lines with a formula, by column */
    private static List<Row> read(byte[] bytes, Map<Integer, Set<Long>> formulas) throws IOException {
        try (var workbook = new ReadableWorkbook(new ByteArrayInputStream(bytes), new ReadingOptions(true, false))) {
            Sheet first = workbook.getFirstSheet();
            try (Stream<org.dhatim.fastexcel.reader.Row> rows = first.openStream()) {
                var read = new ArrayList<Row>();
                rows.forEach(row -> {
                    row.forEach(cell -> {
                        if (cell != null && cell.getType() == CellType.FORMULA)
                            formulas.computeIfAbsent(cell.getColumnIndex(), added -> new HashSet<>())
                                    .add((long) row.getRowNum());
                    });
                    List<String> cells = IntStream.range(0, row.getCellCount())
                            .mapToObj(i ->
                                    row.getOptionalCell(i).map(XlsxTable::text).orElse(""))
                            .toList();
                    if (read.isEmpty() || cells.stream().anyMatch(cell -> !cell.isBlank()))
                        read.add(new Row(row.getRowNum(), cells));
                });
                return read;
            }
        }
    }

    private static String text(Cell cell) {
        if (cell.getType() == CellType.EMPTY || cell.getType() == CellType.ERROR) return "";
        boolean number = cell.getType() == CellType.NUMBER
                || cell.getType() == CellType.FORMULA && cell.getValue() instanceof BigDecimal;
        if (!number) return cell.getText().strip();
        String format = Optional.ofNullable(cell.getDataFormatString())
                .orElse("")
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\[[^]]*]|\"[^\"]*\"", "");
        // Days are kept as numbers, and told by how they are shown.
        if (format.contains("yy") || format.contains("d") && format.contains("m"))
            return cell.asDate().toLocalDate().toString();
        return new BigDecimal(cell.getText()).stripTrailingZeros().toPlainString();
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    /** The lines whose cell in a column has a formula. */
    Set<Long> formulas(int column) {
        return formulas.getOrDefault(column, Set.of());
    }

    /** The line of the file that has the names of the columns. */
    int head() {
        return head;
    }

    @Override
    public List<Row> rows() {
        return rows;
    }

    @Override
    public byte[] filled(int column, Map<Integer, String> texts) throws UnreadableDocument {
        try {
            return PackedFile.with(bytes, sheet, (in, to) -> new SheetPart(column, texts).copy(in, to));
        } catch (IOException e) {
            throw new UnreadableDocument(
                    "The workbook cannot be written (" + e.getMessage() + ")", "a workbook that was saved as .xlsx", e);
        }
    }
}
