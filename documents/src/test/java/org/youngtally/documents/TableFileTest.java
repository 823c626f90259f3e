package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.documents.table.TableFile;

/** Tables are read row by row, whatever they are written in. */
class TableFileTest {
    @TempDir
    private Path folder;

    private TableFile open(String name, byte[] bytes, String encoding) throws IOException, UnreadableDocument {
        return TableFile.open(Files.write(folder.resolve("table"), bytes), name, Optional.ofNullable(encoding));
    }

    /** The rows as {@code line:cell|cell}; or why the file was refused. */
    private List<String> rows(String name, byte[] bytes, String encoding) throws IOException {
        var rows = new ArrayList<String>();
        try {
            open(name, bytes, encoding).read((line, cells) -> rows.add(line + ":" + String.join("|", cells)));
        } catch (UnreadableDocument e) {
            return List.of(e.getMessage());
        }
        return rows;
    }

    private List<String> csv(String text) throws IOException {
        return rows("a.csv", text.getBytes(StandardCharsets.UTF_8), null);
    }

    @Test
    void rowsAreReadWithTheirLinesAndEmptyOnesAreNot() throws IOException {
        assertThat(csv("number,name\nP-1, Pallet \n,\n\nP-2,\"Slider, \"\"low\"\"\"\n"))
                .containsExactly("2:P-1|Pallet", "5:P-2|Slider, \"low\"");
    }

    @ParameterizedTest
    @ValueSource(strings = {"\n", "\r\n", "\r"})
    void aLineEndsWithEitherSymbolOrBoth(String end) throws IOException {
        assertThat(csv("a;b" + end + "1;2" + end + "3;4")).hasSize(2).endsWith("3:3|4");
    }

    @Test
    void aCellThatLiesAcrossTwoBuffersIsReadWhole() throws IOException {
        var text = new StringBuilder("number,name\n");
        for (int i = 0; i < 20_000; i++) text.append("P-").append(i).append(",\"Slider \"\"x\"\"\"\r\n");
        List<String> rows = csv(text.toString());
        for (int i = 0; i < 20_000; i++) assertThat(rows.get(i)).isEqualTo((i + 2) + ":P-" + i + "|Slider \"x\"");
    }

    @Test
    void readingEndsWhereNoMoreRowsAreWanted() throws Exception {
        var read = new ArrayList<Long>();
        open("a.csv", "a\n1\n2\n3\n".getBytes(StandardCharsets.UTF_8), null).read((line, cells) -> {
            read.add(line);
            return line < 3;
        });
        assertThat(read).containsExactly(2L, 3L);
    }

    @ParameterizedTest
    @CsvSource({
        "UTF-8, , 0",
        "windows-1252, , 1",
        "windows-1252, windows-1252, 1",
        "UTF-16, , 1",
        "UTF-16LE, utf-16le, 1"
    })
    void theEncodingIsFoundOutOrNamed(String written, String named, int notes) throws Exception {
        byte[] bytes = "name\nGedackt für Köln\n".getBytes(Charset.forName(written));
        assertThat(rows("a.csv", bytes, named)).containsExactly("2:Gedackt für Köln");
        if (named == null) assertThat(open("a.csv", bytes, null).notes()).hasSize(notes);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "utf-8     | windows-1252 | The file is not written in UTF-8",
                "klingon   | UTF-8        | ‘klingon’ is no encoding",
                "          | UTF-16LE     | The file is no text in UTF-8 or Windows-1252: it has bytes that are zero"
            })
    void anEncodingThatIsWrongIsTold(String named, String written, String why) throws IOException {
        byte[] bytes = "name\nGedackt für Köln\n".getBytes(Charset.forName(written));
        assertThat(rows("a.csv", bytes, named)).containsExactly(why);
    }

    @Test
    void aQuotationMarkThatIsNeverClosedIsToldWithItsLine() throws IOException {
        assertThat(csv("a,b\n1,2\n3,\"4\n5,6\n")).containsExactly("A quotation mark of line 3 is never closed");
    }

    @Test
    void tenThousandColumnsAreRefused() throws IOException {
        assertThat(csv("a" + ",a".repeat(10_000) + "\n")).containsExactly("Line 1 has a cell in column 1,001");
    }

    @Test
    void aCellOfAMegabyteIsRefused() throws IOException {
        assertThat(csv("a\n\"" + "x".repeat(1_000_000) + "\"\n"))
                .containsExactly("A cell of line 2 has more than 32,767 symbols");
    }

    @Test
    void objectsAreRowsAndEveryNameIsAColumn() throws Exception {
        byte[] lines = "{\"number\":\"P-1\",\"weight\":1.50}\n\n{\"name\":\"Slider\",\"number\":null}\n{\"more\":[1]}\n"
                .getBytes(StandardCharsets.UTF_8);
        assertThat(open("a.jsonl", lines, null).columns()).containsExactly("number", "weight", "name", "more");
        assertThat(rows("a.jsonl", lines, null)).containsExactly("1:P-1|1.50||", "3:||Slider|");
    }

    @ParameterizedTest
    @ValueSource(strings = {"[1]", "{\"a\":1", "{\"a\":1} x", "text"})
    void aLineThatIsNoObjectIsTold(String line) throws IOException {
        assertThat(rows("a.jsonl", ("{\"a\":1}\n" + line + "\n").getBytes(StandardCharsets.UTF_8), null))
                .containsExactly("Line 2 is no JSON object");
    }

    private static byte[] workbook() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("Parts");
            sheet.value(0, 0, "number");
            sheet.value(1, 0, "P-1");
            sheet.formula(2, 0, "A2*1");
            sheet.range(3, 0, 3, 1).merge();
            workbook.newWorksheet("Notes").value(0, 0, "stays");
        }
        return out.toByteArray();
    }

    @Test
    void whatOfAWorkbookIsNotReadIsTold() throws Exception {
        assertThat(open("a.xlsx", workbook(), null).notes())
                .containsExactly(
                        "The workbook has 2 sheets; the first is read.",
                        "1 cell has a formula; the values that were saved with them are read.",
                        "1 area is merged; only the first cell of each has a value.");
    }

    @Test
    void aWorkbookWithAPasswordIsRefused() throws IOException {
        byte[] protectedOne = {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0, 0, 0};
        assertThat(rows("a.xlsx", protectedOne, null))
                .containsExactly("The workbook is protected by a password, or of the format before .xlsx");
    }

    @Test
    void aFileOfAnotherKindIsRefused() throws IOException {
        assertThat(rows("a.ods", new byte[0], null)).containsExactly("‘a.ods’ is no table that can be read");
    }
}
