package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.net.http.HttpRequest;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.CommandLine.Result;
import tools.jackson.databind.JsonNode;

/** Records of the demo as its clerks, its engineer and its auditor keep them, at a terminal and over HTTP. */
class RecordTest {
    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static Result as(String account, String... arguments) throws Exception {
        return CommandLine.as(Service.demoToken(account), folder, service, arguments);
    }

    /** Keeps a record, and gives its identifier. */
    private static String kept(String account, String... arguments) throws Exception {
        Result result = as(
                account,
                Stream.concat(Stream.of("record", "new"), Stream.of(arguments)).toArray(String[]::new));
        assertThat(result.err()).startsWith("Record ");
        return result.out().strip();
    }

    private static JsonNode preview(String body) throws Exception {
        return service.post("/api/v1/record-previews", body).json();
    }

    private static Path folder(String name) throws Exception {
        return Files.createDirectories(folder.resolve(name));
    }

    @Test
    void whatIsExpectedIsNotTakenAndNotPromised() throws Exception {
        String invoice =
                "{\"kind\":\"invoice\",\"unit\":\"works\",\"fields\":{\"customer\":\"K10520\",\"dated\":\"2026-03-02\"}}";
        String expected = preview(invoice).get("expected").asString();
        assertThat(preview(invoice).get("expected").asString())
                .as("looked at again")
                .isEqualTo(expected);
        assertThat(kept("ines", "--kind", "invoice", "--unit", "works", "--field", "customer=K10521"))
                .as("somebody was faster")
                .isEqualTo(expected);
        assertThat(service.post("/api/v1/records", invoice)
                        .json()
                        .get("record")
                        .get("identifier")
                        .asString())
                .isGreaterThan(expected);
    }

    @Test
    void aSaveThatFailsTakesNothing() throws Exception {
        String before = preview("{\"kind\":\"invoice\",\"unit\":\"care\",\"fields\":{\"customer\":\"K10520\"}}")
                .get("expected")
                .asString();
        assertThat(as("tobin", "record", "new", "--kind", "invoice", "--unit", "care")
                        .err())
                .contains("The field ‘customer’ of ‘invoice’ is missing.");
        assertThat(as(
                                "tobin",
                                "record",
                                "new",
                                "--kind",
                                "invoice",
                                "--unit",
                                "care",
                                "--field",
                                "customer=K1",
                                "--field",
                                "due=soon")
                        .err())
                .contains("‘soon’ is not what the field ‘due’ of ‘invoice’ holds", "a date, such as 2026-01-31");
        assertThat(as(
                                "tobin",
                                "record",
                                "new",
                                "--kind",
                                "invoice",
                                "--unit",
                                "care",
                                "--field",
                                "customer=K1",
                                "--line",
                                "text=Tuning")
                        .err())
                .contains("The field ‘lines[0].quantity’ of ‘invoice’ is missing.");
        assertThat(as(
                                "tobin",
                                "record",
                                "new",
                                "--kind",
                                "invoice",
                                "--unit",
                                "care",
                                "--field",
                                "customer=K1",
                                "--line",
                                "Tuning")
                        .exit())
                .isEqualTo(2);
        assertThat(as("tobin", "record", "new", "--kind", "invoice", "--unit", "works", "--field", "customer=K1")
                        .err())
                .contains("Missing grant: ");
        assertThat(preview("{\"kind\":\"invoice\",\"unit\":\"care\",\"fields\":{\"customer\":\"K10520\"}}")
                        .get("expected")
                        .asString())
                .isEqualTo(before);
    }

    @Test
    void aTypedNumberIsCheckedBeforeItIsSaved() throws Exception {
        String typed = "{\"kind\":\"customer\",\"unit\":\"works\",\"fields\":{\"name\":\"Abbey\"},\"typed\":\"%s\"}";
        JsonNode taken = preview(typed.formatted("K10520"));
        assertThat(List.of(
                        taken.get("typing").asString(),
                        taken.get("remarks").get(0).get("field").asString(),
                        taken.get("remarks").get(0).get("remark").asString()))
                .containsExactly("allowed", "typed", "‘K10520’ was already issued.");
        assertThat(preview(typed.formatted("K99"))
                        .get("remarks")
                        .get(0)
                        .get("accepted")
                        .asString())
                .startsWith("a number like K");
        assertThat(preview(typed.formatted("k77001")).get("expected").asString())
                .isEqualTo("K77001");
        assertThat(kept("ines", "--kind", "customer", "--unit", "works", "--field", "name=Abbey", "--typed", "K77001"))
                .isEqualTo("K77001");
        assertThat(as(
                                "ines",
                                "record",
                                "new",
                                "--kind",
                                "customer",
                                "--unit",
                                "works",
                                "--field",
                                "name=Abbey",
                                "--typed",
                                "K77001")
                        .err())
                .contains("‘K77001’ was already issued.");
    }

    @Test
    void aKnownThingIsFoundWithItsNumberAndNoneIsTaken() throws Exception {
        String next =
                service.get("/api/v1/series/host").json().get("next").get(0).asString();
        Result known = as(
                "hanna",
                "record",
                "new",
                "--kind",
                "host",
                "--unit",
                "care",
                "--field",
                "hardware-address=00:00:5E:00:53:01");
        assertThat(known.out()).isEqualTo("lark-001\n");
        assertThat(known.err()).contains("This record already exists", "units works. Nothing was allocated.");
        assertThat(kept("hanna", "--kind", "host", "--unit", "care", "--field", "hardware-address=00:00:5e:00:53:09"))
                .isEqualTo(next);
    }

    @Test
    void theSameRequestGetsTheSameRecord() throws Exception {
        String body = "{\"kind\":\"customer\",\"unit\":\"care\",\"fields\":{\"name\":\"Asked twice\"}}";
        Service.Answer first = service.post("/api/v1/records", body, "Idempotency-Key", "record-test-1");
        Service.Answer again = service.post("/api/v1/records", body, "Idempotency-Key", "record-test-1");
        assertThat(List.of(first.status(), again.status())).containsExactly(201, 200);
        assertThat(again.json().get("record")).isEqualTo(first.json().get("record"));
        assertThat(again.json().get("repeated").asBoolean()).isTrue();
        assertThat(service.post(
                                "/api/v1/records",
                                body.replace("twice", "otherwise"),
                                "Idempotency-Key",
                                "record-test-1")
                        .text("type"))
                .isEqualTo("/problems/key-reused");
    }

    @Test
    void editingKeepsTheNumberAndANewOneIsAskedFor() throws Exception {
        String old = kept(
                "hanna",
                "--kind",
                "component",
                "--unit",
                "works",
                "--field",
                "name=Roller of the pedal",
                "--field",
                "group=Action",
                "--field",
                "kind=Roller");
        assertThat(old).startsWith("AC-RO-");
        Result edited = as("hanna", "record", "edit", old, "--field", "group=Pipes", "--field", "kind=Reed pipe");
        assertThat(edited.out()).startsWith(old).contains("group       PI", "kind        RE", "group-name  Action");
        assertThat(as("odile", "record", "show", old).err())
                .contains("The number was made of earlier values of the record");
        assertThat(as("hanna", "record", "renumber", old).exit()).isEqualTo(2);
        String now = as("hanna", "record", "renumber", old, "--reason", "it is a reed pipe")
                .out()
                .lines()
                .findFirst()
                .orElseThrow()
                .split(" ")[0];
        assertThat(now).startsWith("PI-RE-");
        assertThat(as("odile", "find", old).out()).contains("void (voided)", "it is a reed pipe", "record show");
        Result shown = as("odile", "record", "show", old);
        assertThat(shown.err()).isEmpty();
        assertThat(shown.out())
                .as("the old number leads to the record and its whole history")
                .startsWith(now)
                .contains("renumber by hanna", "it is a reed pipe", "group in works: AC → PI", "save by hanna");
        assertThat(as("odile", "record", "search", "roller", "school").err()).contains("No records found.");
        assertThat(as("odile", "record", "search", "roller", "ped").out())
                .as("the beginnings of its words")
                .contains(now);
        assertThat(as("odile", "record", "search", old).out()).contains(now);
    }

    @Test
    void aSharedCustomerKeepsItsNumberAndDiffersOnlyWhereItMay() throws Exception {
        String number = kept(
                "ines",
                "--kind",
                "customer",
                "--unit",
                "works",
                "--field",
                "name=Chapel of the bridge",
                "--field",
                "class=Parish",
                "--field",
                "town=Upper Weir");
        Result differs = as("tobin", "record", "share", number, "--unit", "care", "--field", "class=School");
        assertThat(differs.exit()).isEqualTo(1);
        assertThat(differs.err())
                .contains(number + " has ‘parish’ as its ‘class’ in ‘works’, and ‘school’ here", "Nothing was done");
        assertThat(as("ruben", "record", "share", number, "--unit", "care").err())
                .contains("may not allocate numbers", "allocate for unit care");
        assertThat(as("tobin", "record", "share", number, "--unit", "care", "--field", "contact=Tobin")
                        .out())
                .startsWith(number)
                .contains("unit works", "unit care", "contact  Tobin");
        assertThat(as("tobin", "record", "share", number, "--unit", "care").err())
                .contains("is already in the unit ‘care’");
        assertThat(as("tobin", "record", "edit", number, "--unit", "care", "--field", "town=Nether Weir")
                        .exit())
                .isZero();
        assertThat(as("tobin", "record", "edit", number, "--unit", "care", "--field", "class=School")
                        .err())
                .as("it would be changed in the works too")
                .contains("may not allocate numbers", "allocate for unit works");
        assertThat(as("hanna", "record", "edit", number, "--unit", "care", "--field", "class=Castle")
                        .err())
                .contains("‘Castle’ is not a choice of the field ‘class’");
        assertThat(as("hanna", "record", "edit", number, "--unit", "care", "--field", "class=Concert hall")
                        .out()
                        .split("class +hall"))
                .as("in both units")
                .hasSize(3);
        assertThat(as("hanna", "record", "edit", number, "--field", "town=x").err())
                .contains("The record is in several units. Choose one with --unit: works, care");
    }

    @Test
    void linesCloseUpUntilTheDocumentIsFixed() throws Exception {
        String number = kept(
                "tobin",
                "--kind",
                "invoice",
                "--unit",
                "care",
                "--field",
                "customer=K10520",
                "--line",
                "text=Tuning;quantity=2;price=180",
                "--line",
                "text=Leather;quantity=3;price=42.5",
                "--line",
                "text=Travel;quantity=1;price=60");
        assertThat(as("tobin", "record", "lines", number, "--remove", "2", "--add", "text=Felt;quantity=1;price=9")
                        .out())
                .contains("line 1", "line 2  price=60", "line 3  price=9")
                .doesNotContain("line 4");
        assertThat(as("tobin", "record", "lines", number, "--move", "3", "--before", "1")
                        .out())
                .contains("line 1  price=9", "line 2  price=180", "line 3  price=60");
        assertThat(as("tobin", "record", "freeze-lines", number).out()).contains("lines frozen");
        assertThat(as("tobin", "record", "lines", number, "--remove", "3").out())
                .doesNotContain("line 3");
        assertThat(as("tobin", "record", "lines", number, "--add", "text=Glue;quantity=1;price=4")
                        .out())
                .as("the hole is kept")
                .contains("line 2  price=180", "line 4  price=4")
                .doesNotContain("line 3");
        assertThat(as("tobin", "record", "lines", number, "--remove", "3").err())
                .contains("Line 3 not found");
    }

    @Test
    void theNumberOfADeletedRecordIsVoidOrGivenBack() throws Exception {
        String customer = kept("ines", "--kind", "customer", "--unit", "works", "--field", "name=Never came");
        assertThat(as("ines", "record", "delete", customer).err()).contains("reason");
        assertThat(as("ines", "record", "delete", customer, "--reason", "never came")
                        .out())
                .contains("deleted");
        assertThat(as("odile", "find", customer).out()).contains("void (voided)", "never came");
        assertThat(as("odile", "record", "search", "never", "came").err()).contains("No records found.");
        assertThat(as("odile", "record", "search", "never", "came", "--deleted").out())
                .contains(customer, "deleted");
        assertThat(as("ines", "record", "edit", customer, "--field", "town=x").err())
                .contains("was deleted");
        String label = kept("ruben", "--kind", "pipe-label", "--unit", "foundry", "--field", "stop=Gedackt 8");
        assertThat(as("ruben", "record", "delete", label).exit()).isZero();
        assertThat(kept("ruben", "--kind", "pipe-label", "--unit", "foundry", "--field", "stop=Prinzipal 4"))
                .as("by its kind the serial was given back")
                .isEqualTo(label);
        assertThat(as("odile", "audit").exit()).isZero();
    }

    @Test
    void filesGoByTheNumberOfTheirRecordAndARecordIsPrinted() throws Exception {
        Path here = folder("files");
        String number = kept(
                "tobin",
                "--kind",
                "invoice",
                "--unit",
                "care",
                "--field",
                "customer=K10521",
                "--line",
                "text=Tuning of all the stops of the great, the swell and the pedal in the week before Easter, and of the reeds once more;quantity=2;price=180");
        Path letter = Files.writeString(here.resolve("Letter of thanks.TXT"), "thank you");
        assertThat(as("tobin", "record", "attach", number, letter.toString()).out())
                .isEqualTo(number + ".txt\n");
        assertThat(as("tobin", "record", "attach", number, letter.toString()).out())
                .isEqualTo(number + "-2.txt\n");
        assertThat(as(
                                "odile",
                                "record",
                                "fetch",
                                number,
                                "2",
                                "--output",
                                here.resolve("back.txt").toString())
                        .exit())
                .isZero();
        assertThat(here.resolve("back.txt")).hasContent("thank you");
        Result stands = as(
                "odile",
                "record",
                "fetch",
                number,
                "--output",
                here.resolve("back.txt").toString());
        assertThat(stands.exit()).isEqualTo(1);
        assertThat(stands.err()).contains("already exists. It was not changed");
        Path page = here.resolve("page.pdf");
        assertThat(as("odile", "record", "print", number, "--output", page.toString())
                        .exit())
                .isZero();
        try (PDDocument document = Loader.loadPDF(page.toFile())) {
            assertThat(new PDFTextStripper().getText(document).replaceAll("\\s+", " "))
                    .contains("Invoice " + number, "Tuning and care", "K10521", "180", "and of the reeds once more");
        }
        assertThat(service.get("/api/v1/records/1/page").response().headers().firstValue("Content-Disposition"))
                .hasValueSatisfying(named -> assertThat(named).startsWith("inline; filename=\"K10520.pdf\""));
    }

    @Test
    void anEngineersFileIsNumberedOrLeftAsItIs() throws Exception {
        Path here = folder("drawings");
        Path plan = Files.writeString(
                here.resolve("plan.svg"), "<svg xmlns=\"http://www.w3.org/2000/svg\"><text>Action</text></svg>");
        Result named = as("mara", "file", plan.toString(), "--kind", "drawing", "--field", "type=action");
        Path drawing = Path.of(named.out().strip());
        assertThat(named.err()).contains("the number was written to its metadata");
        assertThat(drawing.getFileName().toString()).matches("D-[0-9A-Z]{4}\\.svg");
        assertThat(plan).doesNotExist();
        String number = drawing.getFileName().toString().replace(".svg", "");
        assertThat(drawing).content().contains("<dc:identifier>" + number + "</dc:identifier>", "<text>Action</text>");
        assertThat(as("mara", "record", "show", number).out()).contains("type    action");
        assertThat(as("mara", "file", drawing.toString(), "--kind", "drawing").err())
                .contains("already has the number ‘" + number + "’", "Nothing was allocated");
        Path broken = Files.writeString(here.resolve("broken.svg"), "<svg>");
        assertThat(as("mara", "file", broken.toString(), "--kind", "drawing").err())
                .contains("no SVG drawing", "Nothing was allocated");
        String expected = preview("{\"kind\":\"drawing\",\"unit\":\"works\"}")
                .get("expected")
                .asString();
        Path inTheWay = Files.writeString(here.resolve(expected + ".svg"), "mine");
        Path second = Files.writeString(here.resolve("second.svg"), "<svg xmlns=\"http://www.w3.org/2000/svg\"/>");
        Result refused = as("mara", "file", second.toString(), "--kind", "drawing");
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err()).contains("already exists. It was not changed", "Everything was undone");
        assertThat(inTheWay).hasContent("mine");
        assertThat(second).hasContent("<svg xmlns=\"http://www.w3.org/2000/svg\"/>");
        assertThat(as("odile", "find", expected).out()).contains("void", "could not be named after it");
    }

    private static final String TABLE = """
            Name;Number;Group;Kind;Note
            Pallet, low C;;Wind-chest;Pallet;"keep; this"
            Slider, great;WC-SL-0002;WC;SL;
            Roller;;Action;Roller;

            Cornice;;Case;CO;x
            """;

    @Test
    void theBlankNumbersOfATableAreFilledAndNothingElse() throws Exception {
        Path here = folder("tables");
        Path table = Files.writeString(
                here.resolve("parts.csv"),
                TABLE.replace(
                        "WC-SL-0002",
                        kept(
                                "hanna",
                                "--kind",
                                "component",
                                "--unit",
                                "works",
                                "--field",
                                "name=Slider",
                                "--field",
                                "group=WC",
                                "--field",
                                "kind=SL")));
        Result filled = as("mara", "fill", table.toString(), "--kind", "component", "--unit", "works");
        assertThat(filled.err()).matches("3 filled, 1 already had a number; entry [0-9]+\\.\n");
        assertThat(filled.out().strip())
                .isEqualTo(here.resolve("parts-numbered.csv").toString());
        List<String> before = Files.readAllLines(table);
        List<String> after = Files.readAllLines(here.resolve("parts-numbered.csv"));
        assertThat(after.get(1)).matches("Pallet, low C;WC-PA-[0-9]{4};Wind-chest;Pallet;\"keep; this\"");
        assertThat(after.get(5)).matches("Cornice;CA-CO-[0-9]{4};Case;CO;x");
        assertThat(after.stream()
                        .map(line -> line.replaceFirst(";(WC-PA|AC-RO|CA-CO)-[0-9]{4};", ";;"))
                        .toList())
                .isEqualTo(before);
        assertThat(as("mara", "fill", table.toString(), "--kind", "component", "--unit", "works")
                        .err())
                .contains("parts-numbered.csv already exists", "Nothing was allocated");
        Result again = as(
                "mara",
                "fill",
                here.resolve("parts-numbered.csv").toString(),
                "--kind",
                "component",
                "--unit",
                "works");
        assertThat(again.err()).startsWith("0 filled, 4 already had a number");
        assertThat(as("odile", "entry", "list", "--limit", "1").out()).contains("mara  fill");
    }

    @Test
    void aTableWithAFaultTakesNothingAndSaysWhere() throws Exception {
        Path here = folder("faults");
        String before = preview(
                        "{\"kind\":\"component\",\"unit\":\"works\",\"fields\":{\"group\":\"CA\",\"kind\":\"SH\"}}")
                .get("expected")
                .asString();
        assertThat(filledWith(here, "number,name,group,kind\n,a,CA,SH\n,b,CA,Shad\n"))
                .contains("Line 3: ‘Shad’ is not a choice of the field ‘kind’", "Nothing was allocated");
        assertThat(filledWith(here, "number,name,group,kind\n,a,CA,SH\nCA-SH-9999,b,CA,SH\n"))
                .contains("Line 3: ‘CA-SH-9999’ was never issued", "Nothing was allocated");
        assertThat(filledWith(here, "number,name,group,kind\n" + before + ",a,CA,SH\n" + before + ",a,CA,SH\n"))
                .contains("is also in line 2");
        assertThat(filledWith(here, "numbr,name,group,kind\n,a,CA,SH\n", "--column", "numbre"))
                .contains("Column ‘numbre’ not found.", "Did you mean ‘numbr’?");
        assertThat(filledWith(here, "nr,name,group,kind\n,a,CA,SH\n"))
                .contains("No column has the name of the field that receives numbers of ‘component’.");
        assertThat(filledWith(here, "number,name\n,\"a\n")).contains("never closed");
        assertThat(preview("{\"kind\":\"component\",\"unit\":\"works\",\"fields\":{\"group\":\"CA\",\"kind\":\"SH\"}}")
                        .get("expected")
                        .asString())
                .isEqualTo(before);
    }

    private static String filledWith(Path here, String table, String... more) throws Exception {
        Path file = Files.writeString(here.resolve("faulty.csv"), table);
        Result refused = as(
                "mara",
                Stream.concat(
                                Stream.of("fill", file.toString(), "--kind", "component", "--unit", "works"),
                                Stream.of(more))
                        .toArray(String[]::new));
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(here.resolve("faulty-numbered.csv")).doesNotExist();
        return refused.err();
    }

    @Test
    void aTableThatWasSentAsAFormIsToldSo() throws Exception {
        Service.Answer refused = service.send(service.request("/api/v1/kinds/component/tables?unit=works&name=a.csv")
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString("number,name\n,a\n")));
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.text("detail")).isEqualTo("The file was sent as a form. Nothing was done.");
        assertThat(refused.text("field")).isEqualTo("Content-Type");
    }

    @Test
    void aWorkbookIsFilledInItsOwnFormat() throws Exception {
        Path file = folder("tables").resolve("hosts.xlsx");
        try (var out = Files.newOutputStream(file);
                var workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("Hosts");
            for (int column = 0; column < 2; column++)
                sheet.value(0, column, List.of("hardware-address", "Host name").get(column));
            for (int row = 1; row <= 3; row++) sheet.value(row, 0, "00:00:5e:00:53:1" + row);
        }
        Result filled = as("hanna", "fill", file.toString(), "--kind", "host", "--unit", "works");
        assertThat(filled.err()).startsWith("3 filled");
        try (var workbook = new ReadableWorkbook(
                new ByteArrayInputStream(Files.readAllBytes(Path.of(filled.out().strip()))))) {
            List<String> cells = workbook.getFirstSheet().read().stream()
                    .map(row -> row.getCellText(0) + " " + row.getCellText(1).replaceAll("[0-9]+", "N"))
                    .collect(Collectors.toList());
            assertThat(cells)
                    .containsExactly(
                            "hardware-address Host name",
                            "00:00:5e:00:53:11 lark-N",
                            "00:00:5e:00:53:12 lark-N",
                            "00:00:5e:00:53:13 lark-N");
        }
    }

    @Test
    void whoReadsAloneKeepsNothing() throws Exception {
        assertThat(as("odile", "record", "new", "--kind", "customer", "--unit", "works", "--field", "name=x")
                        .err())
                .contains("Missing grant: ‘allocate");
        assertThat(as("ruben", "record", "show", "--internal", "5").err()).contains("Missing grant: ‘read");
        assertThat(as("hanna", "record", "show", "K99998").err()).contains("No record has the identifier ‘K99998’.");
        assertThat(as("hanna", "record", "show", "--internal", "999999").err()).contains("Record 999999 not found.");
    }
}
