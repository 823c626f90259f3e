package org.youngtally.documents.table;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Set;
import org.youngtally.documents.UnreadableDocument;

/** The first sheet of a workbook; a workbook is packed, and its first sheet is held in memory. */
record XlsxFile(XlsxTable table, List<String> notes) implements TableFile {
    private static final long MOST_BYTES = 50_000_000;
    /** With these bytes begin workbooks that are encrypted, and those of the old format. */
    private static final int[] COMPOUND = {0xD0, 0xCF, 0x11, 0xE0};

    static XlsxFile open(Path file) throws IOException, UnreadableDocument {
        if (Files.size(file) > MOST_BYTES)
            throw new UnreadableDocument(
                    "The workbook is larger than %,d MB".formatted(MOST_BYTES / 1_000_000),
                    "a workbook of up to %,d MB, or the sheet as .csv".formatted(MOST_BYTES / 1_000_000));
        byte[] bytes = Files.readAllBytes(file);
        boolean compound = bytes.length > COMPOUND.length;
        for (int i = 0; compound && i < COMPOUND.length; i++) compound = (bytes[i] & 0xFF) == COMPOUND[i];
        if (compound)
            throw new UnreadableDocument(
                    "The workbook is protected by a password, or of the format before .xlsx",
                    "a workbook that was saved as .xlsx without a password");
        return new XlsxFile(XlsxTable.of(bytes), XlsxNotes.of(bytes));
    }

    @Override
    public List<String> columns() {
        return table.columns();
    }

    @Override
    public Set<Long> formulas(int column) {
        return table.formulas(column);
    }

    @Override
    public void rewrite(Rewriting rewriting, OutputStream to) throws IOException, UnreadableDocument {
        var texts = new HashMap<Integer, String>();
        var old = new HashMap<Integer, String>();
        rewriting.oldColumn().ifPresent(name -> old.put(table.head(), name));
        for (Table.Row row : table.rows())
            rewriting.texts().apply(row.line()).ifPresent(text -> {
                texts.put(row.line(), text);
                old.put(row.line(), Formulas.harmless(row.cell(rewriting.column())));
            });
        byte[] filled = table.filled(rewriting.column(), texts);
        to.write(
                rewriting.oldColumn().isEmpty()
                        ? filled
                        : Table.read(Table.Format.XLSX, filled)
                                .filled(table.columns().size(), old));
    }

    @Override
    public void read(RowReader reader) {
        for (Table.Row row : table.rows()) if (!reader.row(row.line(), row.cells())) return;
    }
}
