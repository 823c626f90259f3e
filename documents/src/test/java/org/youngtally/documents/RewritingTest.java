package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipFile;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.documents.table.Rewriting;
import org.youngtally.documents.table.TableFile;

/** Some cells of a table are written anew, and every other byte stays. */
class RewritingTest {
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    @TempDir
    private Path folder;

    private byte[] rewritten(String name, byte[] bytes, Map<Long, String> texts, String oldColumn) throws Exception {
        Path file = Files.write(folder.resolve("table"), bytes);
        TableFile table = TableFile.open(file, name, Optional.empty());
        var out = new ByteArrayOutputStream();
        table.rewrite(
                new Rewriting(
                        table.columns().indexOf("No"),
                        line -> Optional.ofNullable(texts.get(line)),
                        Optional.ofNullable(oldColumn)),
                out);
        return out.toByteArray();
    }

    private String csv(String text, Map<Long, String> texts, String oldColumn) throws Exception {
        return new String(
                rewritten("a.csv", text.getBytes(StandardCharsets.UTF_8), texts, oldColumn), StandardCharsets.UTF_8);
    }

    @Test
    void onlyTheCellsThatChangeAreWrittenAnew() throws Exception {
        assertThat(csv("Name , No ,x\r\n\"A \"\"b\"\"\", 1 ,\n\n c,\"2\",z", Map.of(4L, "P-2"), null))
                .isEqualTo("Name , No ,x\r\n\"A \"\"b\"\"\", 1 ,\n\n c,P-2,z");
    }

    @Test
    void aTextWithTheSeparatorIsPutInQuotationMarks() throws Exception {
        assertThat(csv("No;x\n1;y\n", Map.of(2L, "P;2"), null)).isEqualTo("No;x\n\"P;2\";y\n");
    }

    @Test
    void aRowThatEndsEarlyGetsTheCellsBetween() throws Exception {
        assertThat(csv("a,b,No\n1\n", Map.of(2L, "P"), null)).isEqualTo("a,b,No\n1,,P\n");
    }

    @Test
    void theOldTextIsInAColumnBehindTheLast() throws Exception {
        assertThat(csv("No,x\n1,y\n2\n\n3,z,\n", Map.of(2L, "P1", 3L, "P2"), "Was"))
                .isEqualTo("No,x,Was\nP1,y,1\nP2,,2\n\n3,z,\n");
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '`',
            value = {"=1+1, '=1+1", "+49, '+49", "@x, '@x", "-x, '-x", "-5, -5", "P-1, P-1"})
    void anOldTextIsNoFormulaForASpreadsheet(String old, String kept) throws Exception {
        assertThat(csv("No\n" + old + "\n", Map.of(2L, "P1"), "Was")).isEqualTo("No,Was\nP1," + kept + "\n");
    }

    @ParameterizedTest
    @ValueSource(strings = {"UTF-8", "UTF-16LE", "UTF-16BE"})
    void theMarkAtTheBeginningStays(String charset) throws Exception {
        byte[] bytes = "\uFEFFNo,x\n1,Größe\n".getBytes(charset);
        assertThat(rewritten("a.csv", bytes, Map.of(2L, "P1"), null))
                .isEqualTo("\uFEFFNo,x\nP1,Größe\n".getBytes(charset));
    }

    @Test
    void bytesThatAreNoSymbolsStay() throws Exception {
        byte[] bytes = {'N', 'o', ',', 'x', '\n', '1', ',', (byte) 0x81, (byte) 0xE4, '\n'};
        byte[] expected = {'N', 'o', ',', 'x', '\n', 'P', ',', (byte) 0x81, (byte) 0xE4, '\n'};
        assertThat(rewritten("a.csv", bytes, Map.of(2L, "P"), null)).isEqualTo(expected);
    }

    @Test
    void aTextThatTheEncodingCannotHoldIsRefused() {
        assertThatThrownBy(() -> rewritten("a.csv", "No\nä\n".getBytes(WINDOWS), Map.of(2L, "Ж1"), null))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("windows-1252, which cannot hold ‘Ж1’");
    }

    @Test
    void aLongFileIsCopiedAcrossItsBuffers() throws Exception {
        var text = new StringBuilder("No,x\n");
        for (int i = 0; i < 50_000; i++)
            text.append(i).append(",\"Größe, ").append(i).append("\"\n");
        String whole = text.toString();
        assertThat(csv(whole, Map.of(40_002L, "P"), null)).isEqualTo(whole.replace("\n40000,", "\nP,"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{\"x\": {\"No\": 1}, \"No\" : \"a\" }    | {\"x\": {\"No\": 1}, \"No\" : \"P\" }",
                "{\"No\":null,\"x\":\"}\"}              | {\"No\":\"P\",\"x\":\"}\"}",
                "{\"x\":[1,{\"No\":2}]}                 | {\"x\":[1,{\"No\":2}],\"No\":\"P\"}",
                "{\"N\\u006f\":\"a\\\"\"}               | {\"N\\u006f\":\"P\"}"
            })
    void theValueOfAnObjectIsReplaced(String line, String expected) throws Exception {
        byte[] bytes = ("{\"No\":\"1\"}\n" + line + "\r\n").getBytes(StandardCharsets.UTF_8);
        assertThat(new String(rewritten("a.jsonl", bytes, Map.of(2L, "P"), null), StandardCharsets.UTF_8))
                .isEqualTo("{\"No\":\"1\"}\n" + expected + "\r\n");
    }

    @Test
    void aFigureStaysAFigure() throws Exception {
        byte[] bytes = "{\"No\":12}\n".getBytes(StandardCharsets.UTF_8);
        assertThat(new String(rewritten("a.jsonl", bytes, Map.of(1L, "13"), "Was"), StandardCharsets.UTF_8))
                .isEqualTo("{\"No\":13,\"Was\":\"12\"}\n");
    }

    private static byte[] workbook() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var workbook = new Workbook(out, "test", "1.0")) {
            Worksheet first = workbook.newWorksheet("First");
            first.value(0, 0, "No");
            first.value(0, 1, "Sum");
            first.value(1, 0, "1");
            first.formula(1, 1, "1+1");
            workbook.newWorksheet("Second").value(0, 0, "untouched");
        }
        return out.toByteArray();
    }

    private byte[] part(byte[] workbook, String name) throws IOException {
        try (var zip = new ZipFile(
                Files.write(folder.resolve("workbook.zip"), workbook).toFile())) {
            return zip.getInputStream(zip.getEntry(name)).readAllBytes();
        }
    }

    @Test
    void ofAWorkbookOnlyTheSheetIsWrittenAnew() throws Exception {
        byte[] before = workbook();
        byte[] after = rewritten("a.xlsx", before, Map.of(2L, "P1"), "Was");
        assertThat(part(after, "xl/worksheets/sheet2.xml")).isEqualTo(part(before, "xl/worksheets/sheet2.xml"));
        assertThat(new String(part(after, "xl/worksheets/sheet1.xml"), StandardCharsets.UTF_8))
                .contains("<f>1+1</f>")
                .contains(">P1<")
                .contains(">Was<");
    }
}
