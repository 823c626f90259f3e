package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.documents.table.Table;

/** Tables are filled where they are blank, and given back otherwise as they were. */
class TableTest {
    private static byte[] bytes(String text) {
        return text.replace("\\n", "\n")
                .replace("\\r", "\r")
                .replace("\\t", "\t")
                .replace("'", "\"")
                .getBytes(StandardCharsets.UTF_8);
    }

    private static Table csv(String text) throws UnreadableDocument {
        return Table.read(Table.Format.CSV, bytes(text));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "number,name\\n,Pallet\\nP-7,Slider\\n      | number,name\\nX,Pallet\\nP-7,Slider\\n",
                "name;number\\r\\nPallet;\\r\\n             | name;number\\r\\nPallet;X\\r\\n",
                "name\\tnumber\\nPallet                     | name\\tnumber\\nPallet\\tX",
                "name,number\\n'Pallet, ''low''','' \\n   | name,number\\n'Pallet, ''low''',X\\n",
                "'a\\nb',number\\nPallet,''\\n              | 'a\\nb',number\\nPallet,X\\n",
                "\uFEFFname,number,more\\nPallet,,  kept  \\n | \uFEFFname,number,more\\nPallet,X,  kept  \\n"
            })
    void blankCellsAreFilledAndTheRestStaysLetterByLetter(String before, String after) throws UnreadableDocument {
        Table table = csv(before);
        int column = table.columns().indexOf("number");
        Map<Integer, String> texts = new HashMap<>();
        for (Table.Row row : table.rows()) if (row.cell(column).isEmpty()) texts.put(row.line(), "X");
        assertThat(new String(table.filled(column, texts), StandardCharsets.UTF_8))
                .isEqualTo(new String(bytes(after), StandardCharsets.UTF_8));
    }

    @Test
    void aCellThatNeedsQuotesGetsThem() throws UnreadableDocument {
        assertThat(new String(csv("a,b\\n1,\\n").filled(1, Map.of(2, "x,\"y\"")), StandardCharsets.UTF_8))
                .isEqualTo("a,b\n1,\"x,\"\"y\"\"\"\n");
    }

    @Test
    void latinTextComesBackByteByByte() throws UnreadableDocument {
        byte[] latin = "name,number\nGedackt für Köln,\n".getBytes(StandardCharsets.ISO_8859_1);
        Table table = Table.read(Table.Format.CSV, latin);
        assertThat(table.rows().getFirst().cell(0)).isEqualTo("Gedackt für Köln");
        assertThat(table.filled(1, Map.of(2, "X")))
                .isEqualTo("name,number\nGedackt für Köln,X\n".getBytes(StandardCharsets.ISO_8859_1));
        assertThatThrownBy(() -> table.filled(1, Map.of(2, "Ω1")))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("Latin-1");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {"~~ | empty", "a,b\\n'1,2 | never closed"})
    void whatIsNoTableIsRefused(String text, String why) {
        assertThatThrownBy(() -> csv(text == null ? "" : text))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining(why);
    }

    private static byte[] workbook() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("Parts");
            List.of("Name", "Number", "Made on", "Weight")
                    .forEach(title -> sheet.value(
                            0, List.of("Name", "Number", "Made on", "Weight").indexOf(title), title));
            sheet.value(1, 0, "Pallet");
            sheet.value(1, 2, LocalDate.of(2026, 3, 2));
            sheet.style(1, 2).format("yyyy-mm-dd").set();
            sheet.value(1, 3, 12.5);
            sheet.style(1, 1).bold().set();
            sheet.value(2, 0, "Slider");
            sheet.value(2, 1, "P-7");
            sheet.value(4, 0, "Behind a gap");
            sheet.formula(4, 3, "SUM(D2:D3)");
            workbook.newWorksheet("Notes").value(0, 0, "stays");
        }
        return out.toByteArray();
    }

    @Test
    void aWorkbookIsReadWithItsDaysAndNumbers() throws Exception {
        Table table = Table.read(Table.Format.XLSX, workbook());
        assertThat(table.columns()).containsExactly("Name", "Number", "Made on", "Weight");
        assertThat(table.rows()).extracting(Table.Row::line).containsExactly(2, 3, 5);
        assertThat(table.rows().getFirst().cells()).containsExactly("Pallet", "", "2026-03-02", "12.5");
    }

    @Test
    void aWorkbookIsFilledAndEveryOtherPartOfItStays() throws Exception {
        byte[] before = workbook();
        byte[] after = Table.read(Table.Format.XLSX, before).filled(1, Map.of(2, "P-100 <&>", 5, "P-110"));
        Table again = Table.read(Table.Format.XLSX, after);
        assertThat(again.rows()).extracting(row -> row.cell(1)).containsExactly("P-100 <&>", "P-7", "P-110");
        assertThat(again.rows()).extracting(row -> row.cell(0)).containsExactly("Pallet", "Slider", "Behind a gap");
        Map<String, String> parts = parts(before);
        parts(after).forEach((name, text) -> {
            if (!name.equals("xl/worksheets/sheet1.xml"))
                assertThat(text).as(name).isEqualTo(parts.get(name));
        });
        assertThat(parts(after).get("xl/worksheets/sheet1.xml"))
                .contains("SUM(D2:D3)")
                .containsPattern("<c r=\"B2\" s=\"\\d+\" t=\"inlineStr\">");
        try (var workbook = new ReadableWorkbook(new ByteArrayInputStream(after))) {
            assertThat(workbook.getSheets()).hasSize(2);
        }
    }

    private static Map<String, String> parts(byte[] workbook) throws IOException {
        var parts = new HashMap<String, String>();
        try (ZipFile zip = ZipFile.builder().setByteArray(workbook).get()) {
            for (ZipArchiveEntry entry : Collections.list(zip.getEntries()))
                parts.put(
                        entry.getName(), new String(zip.getInputStream(entry).readAllBytes(), StandardCharsets.UTF_8));
        }
        return parts;
    }

    @Test
    void whatIsNoWorkbookIsRefused() {
        assertThatThrownBy(() -> Table.read(Table.Format.XLSX, bytes("name,number")))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("no workbook");
        assertThatThrownBy(() -> Table.Format.of("parts.ods")).isInstanceOf(UnreadableDocument.class);
    }

    /** A workbook as a program that means harm writes one: the parts that there must be, and the rows given. */
    private static byte[] workbook(String rows) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(out)) {
            part(
                    zip,
                    "[Content_Types].xml",
                    "<Types xmlns='http://schemas.openxmlformats.org/package/2006/content-types'/>");
            part(
                    zip,
                    "xl/_rels/workbook.xml.rels",
                    "<Relationships xmlns='http://schemas.openxmlformats.org/package/2006/relationships'><Relationship Id='r1' Type='http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet' Target='worksheets/sheet1.xml'/></Relationships>");
            part(
                    zip,
                    "xl/workbook.xml",
                    "<workbook xmlns='http://schemas.openxmlformats.org/spreadsheetml/2006/main' xmlns:r='http://schemas.openxmlformats.org/officeDocument/2006/relationships'><sheets><sheet name='a' sheetId='1' r:id='r1'/></sheets></workbook>");
            part(
                    zip,
                    "xl/worksheets/sheet1.xml",
                    "<worksheet xmlns='http://schemas.openxmlformats.org/spreadsheetml/2006/main'><sheetData>" + rows
                            + "</sheetData></worksheet>");
        }
        return out.toByteArray();
    }

    private static void part(ZipOutputStream zip, String name, String text) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    private static String cell(String column, int row) {
        return "<row r='" + row + "'><c r='" + column + row + "'><v>1</v></c></row>";
    }

    private static String refusal(Table.Format format, byte[] bytes) {
        try {
            Table.read(format, bytes);
            return "read";
        } catch (UnreadableDocument e) {
            return e.getMessage();
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"XFD", "ALM", "ZZZZZZ", "ZZZZZZZZZZZZZZ"})
    void aCellFarAwayIsRefusedBeforeAnythingIsMadeOfIt(String column) throws IOException {
        assertThat(refusal(Table.Format.XLSX, workbook(cell("A", 1) + cell(column, 2))))
                .contains("Line 2 has a cell in column");
    }

    @Test
    void aWorkbookWhoseSheetIsNoXmlIsRefused() throws IOException {
        assertThat(refusal(Table.Format.XLSX, workbook("<row r='1'><c r='A1'><v>1 & 1</v></c></row>")))
                .contains("no workbook that can be read");
    }

    @Test
    void manyRowsWithOneCellInTheLastColumnAreTooMuch() throws IOException {
        var rows = new StringBuilder(cell("A", 1));
        for (int row = 2; row < 20_000; row++) rows.append(cell("ALL", row));
        assertThat(refusal(Table.Format.XLSX, workbook(rows.toString()))).contains("more than 5,000,000 cells");
    }

    @Test
    void aSparseWorkbookOfUsualSizeIsRead() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("a");
            sheet.value(0, 0, "name");
            sheet.value(1, 999, "far away");
        }
        assertThat(refusal(Table.Format.XLSX, out.toByteArray())).isEqualTo("read");
    }

    @Test
    void millionsOfEmptyLinesAreRefused() {
        assertThat(refusal(Table.Format.CSV, "\n".repeat(5_000_000).getBytes(StandardCharsets.UTF_8)))
                .contains("more than 1,100,000 lines");
    }

    @Test
    void aLineOfSeparatorsAloneIsRefused() {
        assertThat(refusal(Table.Format.CSV, ("a" + ",".repeat(1_000)).getBytes(StandardCharsets.UTF_8)))
                .contains("column 1,001");
    }

    @Test
    void aCellWithoutEndIsRefused() {
        assertThat(refusal(Table.Format.CSV, ("a\n" + "b".repeat(40_000)).getBytes(StandardCharsets.UTF_8)))
                .contains("more than 32,767 symbols");
    }
}
