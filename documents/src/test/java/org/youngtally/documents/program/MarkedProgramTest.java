package org.youngtally.documents.program;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.Content;
import org.youngtally.documents.DocumentFiles;
import org.youngtally.documents.DocumentFiles.NamedContent;
import org.youngtally.documents.NumberedFile.Line;
import org.youngtally.documents.NumberedFile.Mark;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.documents.UnreadableDocument;

class MarkedProgramTest {
    private static final Mark NUMBER = mark("#N", "number", null);
    private static final Mark STOP = mark("#STOP", "stop", null);
    private static final Mark ORDER = mark("#ORDER", "order", null);
    private static final Mark PIECE = mark("(P)", null, "piece");
    private static final Mark BLANK = mark("(B)", null, "blank");

    private static Mark mark(String text, String replacedBy, String begins) {
        return new Mark(text, Optional.ofNullable(replacedBy), Optional.ofNullable(begins));
    }

    private static Reading reading(List<Mark> marks, Map<String, String> values, List<Map<String, String>> rows) {
        return new Reading(
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                marks,
                values,
                Optional.ofNullable(rows));
    }

    private static MarkedProgram read(byte[] bytes, Reading reading) throws Exception {
        return MarkedProgram.read(Content.of(bytes), "plates.nc", 1, reading);
    }

    private static MarkedProgram read(String text, Mark... marks) throws Exception {
        return read(text.getBytes(StandardCharsets.UTF_8), reading(List.of(marks), Map.of("order", "A1"), null));
    }

    private static String written(MarkedProgram program, Map<String, String> changed) throws Exception {
        return new String(program.with(changed), StandardCharsets.UTF_8);
    }

    @Test
    void eachMarkOfANumberIsAPieceWhereNoneBeginsOne() throws Exception {
        MarkedProgram program = read("a #N\r\nb #N\r\n", NUMBER);
        assertThat(program.items()).extracting(Item::id).containsExactly("1:piece 1", "1:piece 2");
        assertThat(written(program, Map.of("1:piece 2", "7"))).isEqualTo("a #N\r\nb 7\r\n");
    }

    @Test
    void allMarksOfAPieceGetItsNumber() throws Exception {
        MarkedProgram program = read("(P)#N-#N(P)#N", NUMBER, PIECE);
        assertThat(written(program, Map.of("1:piece 1", "7", "1:piece 2", "8"))).isEqualTo("(P)7-7(P)8");
    }

    @Test
    void sectionsAreCountedAndAreAttributes() throws Exception {
        MarkedProgram program = read("(B)(P)#N(P)#N(B)(P)#N", NUMBER, PIECE, BLANK);
        assertThat(program.items())
                .extracting(item ->
                        item.attributes().get("blank") + "/" + item.attributes().get("piece"))
                .containsExactly("1/1", "1/2", "2/3");
    }

    @Test
    void aTableHasARowForEachPieceAcrossTheFiles() throws Exception {
        var rows = List.of(Map.of("stop", "Gamba"), Map.of("stop", "Octave"), Map.of("stop", "Flûte"));
        var files = DocumentFiles.read(
                List.of(
                        new NamedContent("1.nc", Content.of("(P)#STOP#N(P)#STOP#N".getBytes(StandardCharsets.UTF_8))),
                        new NamedContent("2.nc", Content.of("(P)#STOP#N".getBytes(StandardCharsets.UTF_8)))),
                reading(List.of(NUMBER, STOP, PIECE), Map.of(), rows));
        assertThat(new String(files.getLast().with(Map.of("2:piece 1", "9")), StandardCharsets.UTF_8))
                .isEqualTo("(P)Flûte9");
    }

    @Test
    void aRowTooFewIsSaidWithTheLine() {
        assertThatThrownBy(() -> read(
                        "(P)#STOP#N\n(P)#STOP#N".getBytes(StandardCharsets.UTF_8),
                        reading(List.of(NUMBER, STOP, PIECE), Map.of(), List.of(Map.of("stop", "Gamba")))))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessage(
                        "‘plates.nc’, line 2: the table has no row for the piece that begins here: it has 1 for 2 pieces");
    }

    @Test
    void aRowTooManyIsSaid() {
        var rows = List.of(Map.of("stop", "Gamba"), Map.of("stop", "Octave"));
        assertThatThrownBy(() -> DocumentFiles.read(
                        List.of(new NamedContent("1.nc", Content.of("#N#STOP".getBytes(StandardCharsets.UTF_8)))),
                        reading(List.of(NUMBER, STOP), Map.of(), rows)))
                .hasMessage("The table has 2 rows for 1 pieces");
    }

    @Test
    void valuesAloneAreWrittenWhereNothingIsNumbered() throws Exception {
        MarkedProgram program = read("(#ORDER)", ORDER);
        assertThat(program.items()).isEmpty();
        assertThat(program.filled()).isEqualTo(1);
        assertThat(written(program, Map.of())).isEqualTo("(A1)");
    }

    @Test
    void everyLineThatChangesIsShown() throws Exception {
        MarkedProgram program = read("(#ORDER)\r\nG0\r\nL #N, #ORDER\r\n", NUMBER, ORDER);
        assertThat(program.lines(Map.of("1:piece 1", "7")))
                .containsExactly(new Line(1, "(#ORDER)", "(A1)"), new Line(3, "L #N, #ORDER", "L 7, A1"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"#NO", "x#N#NO"})
    void marksThatOverlapAreRefused(String text) {
        assertThatThrownBy(() -> read(text, NUMBER, mark("NO", "order", null)))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessageContaining("Line 1: the mark ‘NO’ overlaps the mark ‘#N’");
    }

    @Test
    void aMarkThatOverlapsItselfIsRefused() {
        assertThatThrownBy(() -> read("ababa", mark("aba", "number", null)))
                .hasMessageContaining("the mark ‘aba’ overlaps the mark ‘aba’");
    }

    @Test
    void aMarkThatDoesNotOccurIsNamed() {
        assertThatThrownBy(() -> read("#N", NUMBER, STOP))
                .isInstanceOf(UnreadableDocument.class)
                .hasMessage("The mark ‘#STOP’ does not occur in ‘plates.nc’");
    }

    @Test
    void aPieceWithoutANumberIsNamed() {
        assertThatThrownBy(() -> read("(P)#N\n(P)\n", NUMBER, PIECE))
                .hasMessage("‘plates.nc’, line 2: the piece 2 has no mark for its number");
    }

    @Test
    void aValueThatNothingSaysIsNamed() {
        assertThatThrownBy(() -> read("#N\n#STOP", NUMBER, STOP))
                .hasMessage("‘plates.nc’, line 2: the mark ‘#STOP’ is replaced by stop, which has no value");
    }

    /** A line of a program is an order to a machine. */
    @Test
    void aValueWithABreakOfLineIsRefused() {
        assertThatThrownBy(() -> read(
                        "#N #ORDER".getBytes(StandardCharsets.UTF_8),
                        reading(List.of(NUMBER, ORDER), Map.of("order", "A1\nM30"), null)))
                .hasMessageContaining("has a break of line in it");
    }

    @Test
    void aFileThatIsNotUtf8StaysAsItIs() throws Exception {
        Charset windows = Charset.forName("windows-1252");
        MarkedProgram program = read(
                "(Flöte #ORDER) #N".getBytes(windows), reading(List.of(NUMBER, ORDER), Map.of("order", "für"), null));
        assertThat(new String(program.with(Map.of("1:piece 1", "7")), windows)).isEqualTo("(Flöte für) 7");
    }

    @Test
    void aSymbolThatTheFileCannotHaveIsNamed() {
        assertThatThrownBy(() -> read(
                        "(Flöte) #N #ORDER".getBytes(Charset.forName("windows-1252")),
                        reading(List.of(NUMBER, ORDER), Map.of("order", "C♯"), null)))
                .hasMessageContaining("‘C♯’ cannot be written in windows-1252");
    }

    /** Marks at every place of the blocks that a file is read in; compared with a plain replacement. */
    @Test
    void marksAreFoundWhereverTheyAre() throws Exception {
        var random = new Random(5);
        var text = new StringBuilder();
        var expected = new StringBuilder();
        var changed = new HashMap<String, String>();
        var lines = new ArrayList<Long>();
        long line = 1;
        for (int piece = 1; piece <= 400; piece++) {
            String between =
                    ("G1 X" + random.nextInt(9) + "\n").repeat(random.nextInt(1_000)) + "(".repeat(random.nextInt(3));
            line += between.lines().filter(each -> each.startsWith("G1")).count();
            lines.add(line);
            text.append(between).append("#N");
            expected.append(between).append("S").append(piece);
            changed.put("1:piece " + piece, "S" + piece);
        }
        MarkedProgram program = read(text.toString(), NUMBER);
        assertThat(program.items())
                .extracting(item -> Long.valueOf(item.attributes().get("line")))
                .isEqualTo(lines);
        assertThat(written(program, changed)).isEqualTo(expected.toString());
    }
}
