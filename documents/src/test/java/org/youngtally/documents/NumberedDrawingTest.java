package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.w3c.dom.NodeList;
import org.youngtally.core.numbering.Choice;
import org.youngtally.core.numbering.DocumentNumbering;
import org.youngtally.core.numbering.Grid;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.NumberPlan;
import org.youngtally.core.numbering.NumberPlan.Change;
import org.youngtally.core.numbering.Numbers;
import org.youngtally.core.numbering.Order;
import org.youngtally.core.numbering.Order.Axis;
import org.youngtally.core.numbering.Order.Key;
import org.youngtally.core.numbering.Rule;
import org.youngtally.core.numbering.Rule.Which;
import org.youngtally.core.numbering.Sum;
import org.youngtally.core.numbering.Writing;
import org.youngtally.core.pattern.Pattern;
import org.youngtally.documents.NumberedFile.Reading;

/** Whole drawings from file to file: numbered, read by a parser that is not ours, numbered again, cleared. */
class NumberedDrawingTest {
    private static final Reading READING =
            new Reading(Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());

    private final Random random;

    NumberedDrawingTest(RepetitionInfo repetition) {
        random = new Random(repetition.getCurrentRepetition());
    }

    private byte[] drawing() {
        var svg = new StringBuilder("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 400 300'>\n<!-- <text> -->");
        int texts = 1 + random.nextInt(40);
        for (int i = 0; i < texts; i++) {
            String text = List.of("00", "A &amp; B", "<![CDATA[x < y]]>", "", "Größe", " 7 ")
                    .get(random.nextInt(6));
            String place = "x='" + random.nextInt(400) + "' y='" + random.nextInt(300) + "'";
            svg.append(
                    switch (random.nextInt(4)) {
                        case 0 -> "<text " + place + ">" + text + "</text>\r\n";
                        case 1 ->
                            "<g transform='translate(3 4) rotate(90)'><text " + place + " >" + text + "</text ></g>";
                        case 2 -> "<text " + place + "><tspan id='t" + i + "'>" + text + "</tspan> mm</text>";
                        default -> "<text " + place + " data-net='N" + random.nextInt(5) + "'/>";
                    });
        }
        return svg.append("</svg>\n").toString().getBytes(StandardCharsets.UTF_8);
    }

    private Rule rule(Which which, String write) {
        return new Rule(
                Choice.ALL,
                new Order(List.of(new Key.InLines(random.nextBoolean() ? Axis.X : Axis.Y, 5, false, false))),
                Optional.of(new Grid(3, 2)),
                List.of(Rule.SHEET, Rule.COLUMN),
                random.nextBoolean() ? Optional.of("net") : Optional.empty(),
                which,
                Optional.of(new Rule.Count(Pattern.parse("W{field sheet}{field column}-{count 3}"), Sum.of(1), 1)),
                Writing.parse(write),
                false);
    }

    private static List<NumberedFile> read(List<byte[]> files) throws UnreadableDocument {
        var read = new ArrayList<NumberedFile>();
        for (byte[] file : files) read.add(NumberedFile.read(file, "sheet.svg", read.size() + 1, READING));
        return read;
    }

    private static NumberPlan plan(List<NumberedFile> files, Rule rule) {
        List<Item> items = files.stream().flatMap(file -> file.items().stream()).toList();
        return DocumentNumbering.plan(
                files.stream().map(NumberedFile::sheet).toList(),
                items,
                rule,
                LocalDate.of(2026, 3, 2),
                Map.of(),
                Numbers.NONE);
    }

    private static List<byte[]> carriedOut(List<byte[]> files, Rule rule) throws UnreadableDocument {
        List<NumberedFile> read = read(files);
        NumberPlan plan = plan(read, rule);
        assertThat(plan.faults()).isEmpty();
        var written = new ArrayList<byte[]>();
        for (int i = 0; i < files.size(); i++) {
            Map<String, String> changed = new HashMap<>();
            for (Change change : plan.changes())
                if (change.item().startsWith(i + 1 + ":")) changed.put(change.item(), change.after());
            written.add(read.get(i).with(changed));
        }
        return written;
    }

    @RepeatedTest(100)
    void whatIsWrittenIsReadByAnotherParserAndASecondTimeNothingChanges() throws Exception {
        List<byte[]> files = IntStream.range(0, 3).mapToObj(i -> drawing()).toList();
        Rule rule = rule(random.nextBoolean() ? Which.ALL : Which.MISSING, "{new}");
        List<byte[]> written = carriedOut(files, rule);
        for (int i = 0; i < files.size(); i++) {
            NodeList texts = DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new ByteArrayInputStream(written.get(i)))
                    .getElementsByTagName("*");
            for (int n = 0; n < texts.getLength(); n++) {
                boolean item = texts.item(n).getNodeName().equals("tspan")
                        || texts.item(n).getNodeName().equals("text")
                                && texts.item(n).getFirstChild() instanceof org.w3c.dom.Text
                                && texts.item(n).getChildNodes().getLength() == 1;
                if (item) assertThat(texts.item(n).getTextContent()).matches("W[1-3][1-3]-[0-9]{3}");
            }
        }
        assertThat(plan(read(written), rule).changes()).isEmpty();
    }

    /** A number behind what was there is taken away again; CDATA and the form of an empty element come back as text. */
    @RepeatedTest(100)
    void whatIsClearedIsAsItWas() throws Exception {
        List<byte[]> files = IntStream.range(0, 2).mapToObj(i -> drawing()).toList();
        Rule rule = rule(Which.ALL, "{old} – {new}");
        List<byte[]> cleared = carriedOut(
                carriedOut(files, rule),
                new Rule(
                        rule.choice(),
                        rule.order(),
                        rule.grid(),
                        rule.restarts(),
                        rule.same(),
                        Which.NONE,
                        rule.count(),
                        rule.writing(),
                        rule.repeats()));
        assertThat(read(cleared).stream().flatMap(file -> file.items().stream()).toList())
                .isEqualTo(read(files).stream()
                        .flatMap(file -> file.items().stream())
                        .toList());
    }
}
