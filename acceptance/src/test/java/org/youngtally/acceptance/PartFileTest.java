package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import java.util.zip.ZipFile;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import org.youngtally.acceptance.CommandLine.Result;

/** Part files of the demo through the client; what is written is read by means that are not ours. */
class PartFileTest {
    private static final Path DEMO = Path.of("..", "demo").toAbsolutePath().normalize();
    private static final Pattern PRODUCT = Pattern.compile("#(\\d+)=PRODUCT\\('((?:[^']|'')*)','((?:[^']|'')*)'");
    private static final String CHEST = "choir-chest.stp";

    @TempDir
    private static Path folder;

    private static Service service;

    private Path work;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void copy() throws Exception {
        work = Files.createTempDirectory(folder, "work");
        for (String each : List.of("parts/choir-chest.stp", "parts/roller-arm.3mf", "rules/parts.yaml"))
            Files.copy(DEMO.resolve(each), work.resolve(DEMO.resolve(each).getFileName()));
    }

    private Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, here(arguments));
    }

    private String[] here(String... arguments) {
        return Stream.of(arguments)
                .map(word ->
                        Files.exists(work.resolve(word)) ? work.resolve(word).toString() : word)
                .toArray(String[]::new);
    }

    private Result done(String... arguments) throws Exception {
        Result result = run(arguments);
        assertThat(result.exit()).as(result.err()).isZero();
        return result;
    }

    /** A rule of its own document, with properties behind it. */
    private String rule(String document, String... more) throws Exception {
        String text = Files.readString(DEMO.resolve("rules/parts.yaml")).replace("\"{file}\"", document);
        Files.writeString(work.resolve("own.yaml"), text + String.join("\n", more) + "\n");
        return "own.yaml";
    }

    /** Ids and names of the products, by their instances. */
    private Map<String, List<String>> products(String file) throws Exception {
        Matcher found = PRODUCT.matcher(Files.readString(work.resolve(file), StandardCharsets.ISO_8859_1));
        var products = new TreeMap<String, List<String>>();
        while (found.find()) products.put(found.group(1), List.of(found.group(2), found.group(3)));
        return products;
    }

    private static long newestEntry() throws Exception {
        return service.get("/api/v1/entries?limit=1").json().at("/0/seq").asLong();
    }

    @Test
    void fortyProductsHaveNumbersByTheRouteOfTheirFields() throws Exception {
        done("number", rule("forty"), CHEST);
        Map<String, List<String>> products = products("choir-chest-numbered.stp");
        assertThat(new HashSet<>(products.values())).hasSize(40);
        assertThat(products.get("83").getFirst()).matches("WC-PA-[0-9]{4}");
        assertThat(products.get("83").getLast()).matches("WC-PA-[0-9]{4} Pallet C\\\\X2\\\\266F\\\\X0\\\\");
    }

    @Test
    void numberingAgainChangesNothing() throws Exception {
        done("number", rule("again"), CHEST, "--in-place");
        byte[] once = Files.readAllBytes(work.resolve(CHEST));
        assertThat(done("number", "own.yaml", CHEST, "--in-place").out())
                .isEqualTo("No changes: 40 items unchanged.\n");
        assertThat(work.resolve(CHEST)).hasBinaryContent(once);
    }

    @Test
    void undoneTheFileIsWhatItWasToTheByte() throws Exception {
        done("number", rule("undone"), CHEST, "--in-place");
        done("number", "undo", CHEST + ".undo.json", "--return");
        assertThat(work.resolve(CHEST))
                .hasSameBinaryContentAs(DEMO.resolve("parts").resolve(CHEST));
    }

    @Test
    void inPlaceUnderAnotherNameTheFormerFileComesBack() throws Exception {
        done("number", rule("renamed", "file-name: \"{file} numbered\""), CHEST, "--in-place");
        assertThat(work.resolve(CHEST)).doesNotExist();
        done("number", "undo", "choir-chest numbered.stp.undo.json", "--return");
        assertThat(work.resolve("choir-chest numbered.stp")).doesNotExist();
        assertThat(work.resolve(CHEST))
                .hasSameBinaryContentAs(DEMO.resolve("parts").resolve(CHEST));
    }

    @Test
    void oneByOneOnlyWhatIsChosenGetsANumber() throws Exception {
        String rule = rule("one", "choose: [{ picked: [\"1:#83\"] }]");
        done("number", rule, CHEST);
        Map<String, List<String>> before = products(CHEST);
        Map<String, List<String>> after = products("choir-chest-numbered.stp");
        assertThat(after.entrySet())
                .filteredOn(each -> !each.equals(before.entrySet().stream()
                        .filter(other -> other.getKey().equals(each.getKey()))
                        .findFirst()
                        .orElseThrow()))
                .extracting(Map.Entry::getKey)
                .containsExactly("83");
    }

    /** A part that is in several assemblies has one number. */
    @Test
    void aNumberThatWasAllocatedForSomethingElseStays() throws Exception {
        String number = service.post(
                        "/api/v1/kinds/component/allocations",
                        "{\"unit\":\"works\",\"fields\":{\"name\":\"Pallet\",\"group\":\"WC\",\"kind\":\"PA\"}}")
                .json()
                .at("/identifiers/0")
                .asString();
        Path chest = work.resolve(CHEST);
        Files.writeString(chest, Files.readString(chest).replace("'Part5'", "'" + number + "'"));
        assertThat(done("number", rule("shared"), CHEST).err()).startsWith("39 items changed, 1 unchanged");
        assertThat(products("choir-chest-numbered.stp").get("83").getFirst()).isEqualTo(number);
    }

    @Test
    void twoProductsWithOneNumberAreRefused() throws Exception {
        done("number", rule("copied"), CHEST, "--in-place");
        Path chest = work.resolve(CHEST);
        Map<String, List<String>> products = products(CHEST);
        Files.writeString(
                chest,
                Files.readString(chest)
                        .replace(
                                "'" + products.get("101").getFirst() + "'",
                                "'" + products.get("83").getFirst() + "'"));
        byte[] before = Files.readAllBytes(chest);
        Result result = run("number", "own.yaml", CHEST, "--in-place");
        assertThat(result.err()).contains("as another item does");
        assertThat(chest).hasBinaryContent(before);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "'Pallet C\\X2\\266F\\X0\\','cedar|'','cedar|The field ‘name’ of ‘component’ is missing",
                "'kind','Magnet'|'kind','Harp'|‘Harp’",
                "AUTOMOTIVE_DESIGN|IFC4|of the schema ‘IFC4’",
                "'Pallet D'|'Pallet \\X2\\0'|a string of #101 is wrongly encoded"
            })
    void aProductThatCannotBeNumberedIsNamedAndNothingIsDone(String text, String other, String message)
            throws Exception {
        Path chest = work.resolve(CHEST);
        Files.writeString(chest, Files.readString(chest).replace(text, other));
        long entry = newestEntry();
        assertThat(run("number", rule("faulty"), CHEST).err()).contains(message);
        assertThat(newestEntry()).isEqualTo(entry);
        assertThat(work.resolve("choir-chest-numbered.stp")).doesNotExist();
    }

    @Test
    void aFileThatChangedSinceThePlanIsNotWritten() throws Exception {
        String rule = Files.readString(work.resolve(rule("changed")));
        var request = Service.JSON.createObjectNode().put("rule", rule);
        var file = request.putArray("files").addObject().put("name", CHEST);
        byte[] bytes = Files.readAllBytes(work.resolve(CHEST));
        file.put("content", Base64.getEncoder().encodeToString(bytes));
        String plan = service.post("/api/v1/document-plans", request.toString())
                .json()
                .at("/plan")
                .asString();
        bytes[new String(bytes, StandardCharsets.ISO_8859_1).indexOf("Part8")] = 'p';
        file.put("content", Base64.getEncoder().encodeToString(bytes));
        assertThat(service.post(
                                "/api/v1/document-numberings",
                                request.put("plan", plan).toString())
                        .text("type"))
                .isEqualTo("/problems/document-changed");
    }

    @Test
    void theItemsOfAFileAreListed() throws Exception {
        Result result = done("number", "items", CHEST);
        assertThat(result.out()).contains("#83   Part5   part");
        assertThat(result.err()).isEqualTo("40 items, 1 without a text.\n");
    }

    private Element object(Path file) throws Exception {
        try (var zip = new ZipFile(file.toFile())) {
            byte[] model = zip.getInputStream(zip.getEntry("3D/3dmodel.model")).readAllBytes();
            return (Element) DocumentBuilderFactory.newInstance()
                    .newDocumentBuilder()
                    .parse(new ByteArrayInputStream(model))
                    .getElementsByTagName("object")
                    .item(0);
        }
    }

    @Test
    void aPartIsARecordItsFileBearsNumberAndNameAndIsCalledByIt() throws Exception {
        Result result = done(
                "file", "roller-arm.3mf", "--kind", "component", "--unit", "works", "--field", "name=Arm of a roller");
        Path renamed = Path.of(result.out().strip());
        assertThat(renamed.getFileName().toString()).matches("AC-RO-[0-9]{4}[.]3mf");
        assertThat(object(renamed).getAttribute("partnumber") + ".3mf")
                .isEqualTo(renamed.getFileName().toString());
        assertThat(object(renamed).getAttribute("name")).isEqualTo("Arm of a roller");
        assertThat(result.err()).contains("the number was written to its partnumber, ‘Arm of a roller’ to its name");
    }

    @Test
    void anAssemblyIsNumberedAtItsWholeInAnyProperty() throws Exception {
        Result result = done("file", CHEST, "--kind", "part", "--unit", "works", "--into", "description");
        String name = Path.of(result.out().strip()).getFileName().toString();
        assertThat(Files.readString(Path.of(result.out().strip())))
                .contains("#14=PRODUCT('Part1','Slider chest of the choir','" + name.replace(".stp", "") + "',(#3));");
    }

    @Test
    void aDryRunShowsNumberPropertyAndNameAndDoesNothing() throws Exception {
        long entry = newestEntry();
        Result result = done("file", "roller-arm.3mf", "--kind", "component", "--unit", "works", "--dry-run");
        assertThat(result.out())
                .containsPattern("roller-arm.3mf → AC-RO-[0-9]{4}.3mf\n")
                .contains("it would be written to its partnumber");
        assertThat(newestEntry()).isEqualTo(entry);
        assertThat(work.resolve("roller-arm.3mf")).hasSameBinaryContentAs(DEMO.resolve("parts/roller-arm.3mf"));
    }

    @Test
    void aPartThatHasANumberGetsNoOther() throws Exception {
        Result first = done("file", "roller-arm.3mf", "--kind", "component", "--unit", "works");
        Result second = run("file", first.out().strip(), "--kind", "component", "--unit", "works");
        assertThat(second.exit()).isEqualTo(1);
        assertThat(second.err()).contains("The file already has the number");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "choir-chest.stp|colour|has no property ‘colour’ to write into",
                "roller-arm.3mf|part number|is no name of metadata"
            })
    void aPropertyThatIsNoneIsRefusedBeforeANumberIsAllocated(String file, String into, String message)
            throws Exception {
        long entry = newestEntry();
        Result result = run("file", file, "--kind", "part", "--unit", "works", "--field", "name=x", "--into", into);
        assertThat(result.err()).contains(message).contains("Nothing was allocated.");
        assertThat(newestEntry()).isEqualTo(entry);
    }

    /** The number is allocated, and the answer lost: the file is still as it was. */
    @Test
    void aRunThatEndedBeforeTheFileWasWrittenGetsNoSecondNumber() throws Exception {
        String[] command = here("file", "roller-arm.3mf", "--kind", "component", "--unit", "works");
        long entry = newestEntry();
        try (var lost = new LostAnswer(service, "/records")) {
            var words = new ArrayList<>(List.of(command));
            words.addAll(List.of("--service", lost.address()));
            assertThat(CommandLine.run(folder, service, words.toArray(String[]::new))
                            .exit())
                    .isEqualTo(3);
        }
        assertThat(newestEntry()).isEqualTo(entry + 1);
        done("file", "roller-arm.3mf", "--kind", "component", "--unit", "works");
        assertThat(newestEntry()).isEqualTo(entry + 1);
    }

    @Test
    void aRunThatEndedBeforeTheAssemblyWasWrittenGetsNoSecondNumbers() throws Exception {
        String rule = rule("killed");
        try (var lost = new LostAnswer(service, "/document-numberings")) {
            CommandLine.run(folder, service, here("number", rule, CHEST, "--service", lost.address()));
        }
        long entry = newestEntry();
        assertThat(done("number", rule, CHEST).err()).contains("40 numbers allocated earlier for ‘killed’");
        assertThat(newestEntry()).isEqualTo(entry);
    }

    /** A number that went back may be somebody else's by now. */
    @Test
    void aNumberThatWasTakenBackIsNotWrittenLater() throws Exception {
        String[] command = {"file", "roller-arm.3mf", "--kind", "component", "--unit", "works"};
        String expected = done("file", "roller-arm.3mf", "--kind", "component", "--unit", "works", "--dry-run")
                .out()
                .replaceAll("(?s).*→ (.*?)\n.*", "$1");
        Files.writeString(work.resolve(expected), "in the way");
        assertThat(run(command).err()).contains("Everything was undone");
        Files.delete(work.resolve(expected));
        String number =
                Path.of(done(command).out().strip()).getFileName().toString().replace(".3mf", "");
        assertThat(done("find", number).out()).contains("state      issued");
    }
}
