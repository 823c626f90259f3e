package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.youngtally.acceptance.CommandLine.Result;

/** The three cases of the demo, from file to file; written files are read by parsers that are not ours. */
class NumberCommandTest {
    private static final Path DEMO = Path.of("..", "demo").toAbsolutePath().normalize();

    @TempDir
    private static Path folder;

    private static Service service;

    private Path work;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply("""
                                series:
                                  - { key: wire, pattern: 'W-{count 4}', ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }
                                  - key: pipe
                                    pattern: '{field division}/{count 3}'
                                    restarts: [field division]
                                    fields: [{ name: division, longest: 1 }]
                                    ranges: [{ first: 1, last: 999, opens: 2020-01-01 }]
                                """).response().body()).doesNotContain("faults");
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void copy() throws Exception {
        work = Files.createTempDirectory(folder, "work");
        for (String each : List.of(
                "drawings/case-front.svg",
                "drawings/wiring-1.svg",
                "drawings/wiring-2.svg",
                "drawings/wiring-3.svg",
                "drawings/wiring-4.svg",
                "tables/pipes.csv",
                "rules/call-outs.yaml",
                "rules/legend.yaml",
                "rules/wires.yaml",
                "rules/pipes.yaml"))
            Files.copy(DEMO.resolve(each), work.resolve(DEMO.resolve(each).getFileName()));
    }

    private Result run(String... arguments) throws Exception {
        List<String> words = Stream.of(arguments)
                .map(word ->
                        Files.exists(work.resolve(word)) ? work.resolve(word).toString() : word)
                .toList();
        return CommandLine.run(folder, service, words.toArray(String[]::new));
    }

    private Result done(String... arguments) throws Exception {
        Result result = run(arguments);
        assertThat(result.exit()).as(result.err()).isZero();
        return result;
    }

    /** The texts of a class, in their order in the file. */
    private List<Element> texts(String file, String wanted) throws Exception {
        NodeList all = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(work.resolve(file).toFile())
                .getElementsByTagName("text");
        var texts = new ArrayList<Element>();
        for (int i = 0; i < all.getLength(); i++)
            if (((Element) all.item(i)).getAttribute("class").equals(wanted)) texts.add((Element) all.item(i));
        return texts;
    }

    /** Where each call-out is, by its number. */
    private Map<Integer, double[]> callOuts(String file) throws Exception {
        var places = new TreeMap<Integer, double[]>();
        for (Element text : texts(file, "call-out")) {
            String moved = ((Element) text.getParentNode()).getAttribute("transform");
            String[] by = moved.isEmpty()
                    ? new String[] {"0", "0"}
                    : moved.replaceAll("[^0-9 ]", "").split(" ");
            String x = text.getAttribute("x");
            places.put(Integer.parseInt(text.getTextContent()), new double[] {
                (x.isEmpty() ? 0 : Double.parseDouble(x)) + Double.parseDouble(by[0]),
                Double.parseDouble(text.getAttribute("y")) + Double.parseDouble(by[1])
            });
        }
        return places;
    }

    private Path path(String name) {
        return work.resolve(name);
    }

    @Test
    void fortyCallOutsAreNumberedRowByRow() throws Exception {
        done("number", "call-outs.yaml", "case-front.svg");
        Map<Integer, double[]> places = callOuts("case-front-numbered.svg");
        assertThat(places).hasSize(40).containsKeys(1, 40);
        for (int i = 2; i <= 40; i++) {
            double[] before = places.get(i - 1);
            double[] here = places.get(i);
            assertThat(here[1] - before[1] > 8 || here[0] > before[0]).isTrue();
        }
    }

    @ParameterizedTest
    @CsvSource({"columns, 100, 10", "x, 1, 1", "y, 100, 10"})
    void orByColumnOrAlongAnAxisFromAnyStartInAnyStep(String by, int start, int step) throws Exception {
        done(
                "number",
                "case-front.svg",
                "--rule",
                "choose=[{ attribute: class, values: [call-out] }]",
                "--rule",
                "order=[{ by: " + by + (by.equals("columns") ? ", tolerance: 8" : "") + " }]",
                "--rule",
                "pattern={count}",
                "--rule",
                "start=" + start,
                "--rule",
                "step=" + step);
        List<Integer> numbers = List.copyOf(callOuts("case-front-numbered.svg").keySet());
        assertThat(numbers).hasSize(40);
        assertThat(numbers.getFirst()).isEqualTo(start);
        assertThat(numbers.getLast()).isEqualTo(start + 39 * step);
    }

    @ParameterizedTest
    @CsvSource({"{old} – {new}, 00 – 1", "{new}/{old}, 1/00"})
    void aNumberIsPutBehindOrInFront(String write, String first) throws Exception {
        done(
                "number",
                "case-front.svg",
                "--rule",
                "choose=[{ attribute: class, values: [call-out] }]",
                "--rule",
                "pattern={count}",
                "--rule",
                "write=" + write);
        assertThat(texts("case-front-numbered.svg", "call-out").getFirst().getTextContent())
                .isEqualTo(first);
    }

    @Test
    void onlyTheMarkedPartOfATextIsReplaced() throws Exception {
        done("number", "legend.yaml", "case-front.svg");
        assertThat(texts("case-front-numbered.svg", "legend"))
                .extracting(Element::getTextContent)
                .containsExactly("Crown of the tower [101]", "Front pipe [102]", "Impost rail [103]");
    }

    @Test
    void theOriginalIsNotTouchedAndUndoingTakesTheOtherAway() throws Exception {
        done("number", "call-outs.yaml", "case-front.svg");
        assertThat(path("case-front.svg")).hasSameBinaryContentAs(DEMO.resolve("drawings/case-front.svg"));
        done("number", "undo", "case-front-numbered.svg.undo.json");
        assertThat(path("case-front-numbered.svg")).doesNotExist();
        assertThat(path("case-front-numbered.svg.undo.json")).doesNotExist();
    }

    @Test
    void inPlaceTheFormerFileComesBackToTheByteOneNumberingAfterTheOther() throws Exception {
        done("number", "call-outs.yaml", "case-front.svg", "--in-place");
        byte[] once = Files.readAllBytes(path("case-front.svg"));
        done("number", "legend.yaml", "case-front.svg", "--in-place");
        done("number", "undo", "case-front.svg.undo.json");
        assertThat(path("case-front.svg")).hasBinaryContent(once);
        done("number", "undo", "case-front.svg.undo.json");
        assertThat(path("case-front.svg")).hasSameBinaryContentAs(DEMO.resolve("drawings/case-front.svg"));
    }

    @Test
    void aFileThatChangedSinceIsNotUndone() throws Exception {
        done("number", "call-outs.yaml", "case-front.svg", "--in-place");
        Files.writeString(path("case-front.svg"), Files.readString(path("case-front.svg")) + "\n");
        assertThat(run("number", "undo", "case-front.svg.undo.json").err())
                .startsWith("File " + path("case-front.svg") + " changed since it was numbered.");
    }

    private String[] wires(String rule, String... more) {
        var words = new ArrayList<>(
                List.of("number", rule, "wiring-1.svg", "wiring-2.svg", "wiring-3.svg", "wiring-4.svg", "--in-place"));
        words.addAll(List.of(more));
        return words.toArray(String[]::new);
    }

    /** The number of each wire of the four sheets, by its id. */
    private Map<String, String> wires() throws Exception {
        var numbers = new TreeMap<String, String>();
        for (int sheet = 1; sheet <= 4; sheet++)
            for (Element text : texts("wiring-" + sheet + ".svg", "wire"))
                numbers.put(text.getAttribute("id"), text.getTextContent());
        return numbers;
    }

    private void insert(String net) throws Exception {
        String sheet = Files.readString(path("wiring-2.svg"));
        Files.writeString(
                path("wiring-2.svg"),
                sheet.replaceFirst(
                        "<g id=\"wires\"[^>]*>",
                        "$0<text id=\"new\" class=\"wire\" x=\"150\" y=\"300\" data-net=\"" + net + "\">?</text>"));
    }

    @Test
    void aNetHasOneNumberOnAllSheets() throws Exception {
        done(wires("wires.yaml"));
        var byNet = new TreeMap<String, String>();
        for (int sheet = 1; sheet <= 4; sheet++)
            for (Element text : texts("wiring-" + sheet + ".svg", "wire")) {
                String other = byNet.putIfAbsent(text.getAttribute("data-net"), text.getTextContent());
                if (other != null) assertThat(text.getTextContent()).isEqualTo(other);
            }
        assertThat(byNet.values()).doesNotHaveDuplicates().allMatch(number -> number.matches("0[1-4]0[1-8]-[0-9]{2}"));
    }

    @Test
    void anInsertedWireFollowsAndTheOthersStay() throws Exception {
        done(wires("wires.yaml"));
        Map<String, String> before = wires();
        insert("N99");
        assertThat(done(wires("wires.yaml")).err()).startsWith("1 item changed, 92 unchanged.");
        Map<String, String> after = wires();
        assertThat(after.remove("new")).startsWith("0202-");
        assertThat(after).isEqualTo(before);
    }

    @Test
    void clearedTheSheetsAreAsTheyWere() throws Exception {
        done(wires("wires.yaml"));
        done(wires("wires.yaml", "--clear"));
        for (int sheet = 1; sheet <= 4; sheet++)
            assertThat(path("wiring-" + sheet + ".svg"))
                    .hasSameBinaryContentAs(DEMO.resolve("drawings/wiring-" + sheet + ".svg"));
    }

    @Test
    void aRuleThatIsWrongSaysInWhichLine() throws Exception {
        Files.writeString(
                path("wires.yaml"), Files.readString(path("wires.yaml")).replace("tolerance: 60", "tolerance: wide"));
        Result result = run(wires("wires.yaml"));
        assertThat(result.exit()).isEqualTo(1);
        assertThat(result.err())
                .isEqualTo(path("wires.yaml") + ":7: order[1].tolerance ‘wide’ is not a measure\n"
                        + "  write up to 6 digits with at most three places behind a point, such as 62.5\n"
                        + "Nothing was changed.\n");
    }

    private List<String[]> pipes(String file) throws Exception {
        return Files.readAllLines(path(file)).stream()
                .skip(1)
                .map(line -> line.split(","))
                .toList();
    }

    @Test
    void aDivisionHasNumbersOfItsOwn() throws Exception {
        assertThat(done("number", "pipes.yaml", "pipes.csv").out()).contains("2         200    0501   0700\n");
        for (String[] pipe : pipes("pipes-numbered.csv"))
            assertThat((Integer.parseInt(pipe[0]) - 1) / 250).isEqualTo(Integer.parseInt(pipe[2]));
    }

    @Test
    void orTheDivisionIsInThePrefix() throws Exception {
        done(
                "number",
                "pipes.csv",
                "--rule",
                "into=Pipe",
                "--rule",
                "restarts=[Division]",
                "--rule",
                "pattern={field division}-{count 3}");
        for (String[] pipe : pipes("pipes-numbered.csv")) assertThat(pipe[0]).startsWith(pipe[2] + "-");
    }

    @Test
    void orAllHaveOneStartAndOnlyWhatIsPickedANumber() throws Exception {
        done(
                "number",
                "pipes.csv",
                "--rule",
                "into=Pipe",
                "--rule",
                "choose=[{ picked: ['1:line 9', '1:line 4'] }]",
                "--rule",
                "pattern={count}",
                "--rule",
                "start=5000");
        List<String[]> pipes = pipes("pipes-numbered.csv");
        assertThat(pipes.get(7)[0]).isEqualTo("5000");
        assertThat(pipes.get(2)[0]).isEqualTo("5001");
        assertThat(pipes.stream().filter(pipe -> !pipe[0].isEmpty())).hasSize(2);
    }

    private String series(String series, String document) throws Exception {
        Path rule = path(document + ".yaml");
        Files.writeString(
                rule,
                "choose: [{ attribute: class, values: [wire] }]\nsame: net\nseries: " + series + "\ndocument: "
                        + document + "\n");
        return rule.getFileName().toString();
    }

    private long newestEntry() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    @Test
    void numbersOfASeriesAreOneEntryAndWhatIsLostInTheFileComesBack() throws Exception {
        String rule = series("wire", "lost");
        done(wires(rule));
        long entry = newestEntry();
        Map<String, String> before = wires();
        // As if the service had been asked and the files had not been written.
        for (int sheet = 1; sheet <= 4; sheet++)
            Files.copy(
                    DEMO.resolve("drawings/wiring-" + sheet + ".svg"),
                    path("wiring-" + sheet + ".svg"),
                    StandardCopyOption.REPLACE_EXISTING);
        insert("N98");
        done(wires(rule));
        Map<String, String> after = wires();
        assertThat(after.remove("new")).isNotIn(before.values());
        assertThat(after).isEqualTo(before);
        assertThat(newestEntry()).isEqualTo(entry + 1);
    }

    @Test
    void undoingAsksWhatBecomesOfTheNumbers() throws Exception {
        done(wires(series("wire", "voided")));
        List<String> numbers = wires().values().stream().distinct().sorted().toList();
        assertThat(run("number", "undo", "wiring-1.svg.undo.json").err())
                .contains("Add --reason \"…\" to void them, or --return if nobody has seen them.");
        done("number", "undo", "wiring-1.svg.undo.json", "--reason", "drawn again");
        assertThat(done("find", numbers.getFirst()).out()).contains("state      void (voided)");
        assertThat(path("wiring-3.svg")).hasSameBinaryContentAs(DEMO.resolve("drawings/wiring-3.svg"));
    }

    /** The record was written, and the files were not: it keeps the numbers for who undoes it later. */
    @Test
    void aRunThatEndedBeforeItsFilesIsUndoneWithItsNumbers() throws Exception {
        String rule = series("wire", "interrupted");
        done(wires(rule));
        String number = wires().get("w11");
        for (int sheet = 1; sheet <= 4; sheet++)
            Files.copy(
                    DEMO.resolve("drawings/wiring-" + sheet + ".svg"),
                    path("wiring-" + sheet + ".svg"),
                    StandardCopyOption.REPLACE_EXISTING);
        done(wires(rule));
        assertThat(path("wiring-1.svg-2.undo.json")).doesNotExist();
        done("number", "undo", "wiring-1.svg.undo.json", "--reason", "drawn again");
        assertThat(done("find", number).out()).contains("state      void (voided)");
    }

    @Test
    void aNumberIsFoundWithItsDocumentAndItsItem() throws Exception {
        done(wires(series("wire", "found")));
        assertThat(done("find", wires().get("w11")).out()).containsPattern("reference +found, net N[0-9]+\n");
    }

    @Test
    void returnedNumbersAreIssuedAgain() throws Exception {
        String rule = series("wire", "returned");
        done(wires(rule));
        Map<String, String> before = wires();
        done("number", "undo", "wiring-1.svg.undo.json", "--return");
        done(wires(series("wire", "another")));
        assertThat(wires()).isEqualTo(before);
    }

    @Test
    void aNumberOfAnotherDocumentIsNotTakenForItsOwn() throws Exception {
        done(wires(series("wire", "first")));
        Result result = run(wires(series("wire", "second")));
        assertThat(result.exit()).isEqualTo(1);
        assertThat(result.err()).contains("which was not allocated for this document");
    }

    @Test
    void fieldsOfTheSeriesComeFromTheItems() throws Exception {
        Files.writeString(path("few.csv"), "Pipe,Division\n,2\n,1\n,2\n");
        Files.writeString(path("few.yaml"), "into: Pipe\nseries: pipe\ndocument: few\n");
        done("number", "few.yaml", "few.csv");
        assertThat(Files.readString(path("few-numbered.csv"))).isEqualTo("Pipe,Division\n2/001,2\n1/001,1\n2/002,2\n");
    }

    /** Whatever the rule: numbering the same file again changes nothing, and undoing it gives its bytes back. */
    @RepeatedTest(30)
    void anyNumberingIsUndoneToTheByte(RepetitionInfo repetition) throws Exception {
        var random = new Random(repetition.getCurrentRepetition());
        boolean drawing = random.nextBoolean();
        String file = drawing ? List.of("case-front.svg", "wiring-3.svg").get(random.nextInt(2)) : "pipes.csv";
        byte[] before = Files.readAllBytes(path(file));
        var words = new ArrayList<>(List.of("number", file, "--in-place"));
        var properties = new ArrayList<>(
                List.of("pattern={count " + (5 + random.nextInt(3)) + "}", "step=" + (1 + random.nextInt(9))));
        properties.add(
                "write=" + List.of("{new}", "{old} – {new}", "({new}) {old}").get(random.nextInt(3)));
        properties.add("number=" + List.of("missing", "all").get(random.nextInt(2)));
        if (drawing) {
            properties.add(
                    "order=[{ by: " + List.of("rows", "columns", "x", "y").get(random.nextInt(4)) + " }]");
            if (random.nextBoolean())
                properties.add("choose=[{ within: { left: 0, top: 0, right: 300, bottom: 300 } }]");
        } else {
            properties.add("into=Pipe");
            properties.add("order=[{ attribute: "
                    + List.of("Stop", "Note", "Metal").get(random.nextInt(3)) + ", descending: true }]");
            if (random.nextBoolean()) properties.add("choose=[{ attribute: Division, values: [2, 5] }]");
        }
        for (String property : properties) words.addAll(List.of("--rule", property));
        String[] arguments = words.toArray(String[]::new);
        done(arguments);
        byte[] once = Files.readAllBytes(path(file));
        assertThat(once).isNotEqualTo(before);
        assertThat(done(arguments).out()).startsWith("No changes");
        assertThat(path(file)).hasBinaryContent(once);
        assertThat(done("number", "undo", file + ".undo.json", "--json").out()).contains("\"files\"");
        assertThat(path(file)).hasBinaryContent(before);
    }

    /** The service is killed as soon as it has answered, before the answer became a file. */
    @Test
    void aServiceThatIsKilledKnowsTheNumbersOfTheItems() throws Exception {
        Path data = folder.resolve("killed");
        Path sheet = path("few.csv");
        Files.writeString(sheet, "Pipe,Card\n,a\n,b\n");
        Path rule = path("few.yaml");
        Files.writeString(rule, "into: Pipe\nidentity: Card\nseries: wire\ndocument: few\n");
        String definition =
                "series: [{ key: wire, pattern: 'W-{count 4}', ranges: [{ first: 1, last: 9999, opens: 2020-01-01 }] }]";
        Service killed = Service.process(data);
        killed.apply(definition);
        CommandLine.run(
                folder,
                killed,
                "number",
                rule.toString(),
                sheet.toString(),
                "--output",
                path("first").toString());
        killed.kill();
        Files.writeString(sheet, "Pipe,Card\n,c\n,b\n,a\n");
        try (Service again = Service.serve(data)) {
            CommandLine.run(folder, again, "number", rule.toString(), sheet.toString());
        }
        assertThat(path("few-numbered.csv")).hasContent("Pipe,Card\nW-0003,c\nW-0002,b\nW-0001,a\n");
    }

    @Test
    void aDryRunAllocatesNothing() throws Exception {
        long entry = newestEntry();
        assertThat(done(wires(series("wire", "dry"), "--dry-run")).err())
                .contains("numbers would be allocated. Dry run: nothing was changed.");
        assertThat(newestEntry()).isEqualTo(entry);
        assertThat(path("wiring-1.svg")).hasSameBinaryContentAs(DEMO.resolve("drawings/wiring-1.svg"));
    }
}
