package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.acceptance.CommandLine.Result;

/** The client as it is run at a terminal, on the demo data. */
class CommandLineTest {
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

    private static Result youngtally(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static Result client(List<String> arguments) throws Exception {
        return CommandLine.client(Map.of(), "", arguments);
    }

    private static Result onData(String... arguments) {
        return CommandLine.onData(List.of(arguments));
    }

    @Test
    void theFirstAccountIsCalledAsIsSaid() throws Exception {
        try (Service own = Service.serve(folder.resolve("first-account"), "--first-account", "keeper-of-marrow")) {
            assertThat(own.get("/api/v1/session").text("account")).isEqualTo("keeper-of-marrow");
        }
    }

    @Test
    void aFirstAccountThatIsNoNameIsRefusedBeforeAnythingIsMade() throws Exception {
        assertThat(onData(
                                "serve",
                                "--port",
                                "0",
                                "--data",
                                folder.resolve("no-account").toString(),
                                "--first-account",
                                "Keeper 1")
                        .exit())
                .isEqualTo(2);
    }

    @Test
    void numbersAreTakenFoundAndAudited() throws Exception {
        Result taken =
                youngtally("allocate", "customer", "--quantity", "2", "--date", "2026-03-02", "--reference", "FAIR");
        assertThat(taken).isEqualTo(new Result(0, "K10013\nK10014\n", ""));
        Result again = CommandLine.as(
                Service.demoToken("shop"),
                folder,
                service,
                "allocate",
                "customer",
                "--quantity",
                "2",
                "--date",
                "2026-03-02",
                "--reference",
                "FAIR");
        assertThat(again.out()).isEqualTo("K10013\nK10014\n");
        assertThat(again.err()).contains("allocated them before");
        assertThat(youngtally("find", "k10014").out())
                .contains("customer — Customers of the group")
                .contains("position   15")
                .contains("by hanna")
                .contains("reference  FAIR");
        Result audit = youngtally("audit");
        assertThat(audit.exit()).isZero();
        assertThat(audit.out()).contains("gap-free: ").containsPattern("head [0-9]+:[0-9a-f]{64}");
        String head = audit.out()
                .lines()
                .filter(line -> line.startsWith("head "))
                .findFirst()
                .orElseThrow()
                .substring(5);
        assertThat(youngtally("audit", "customer", "--head", head).out())
                .contains("nothing up to entry " + head.replaceFirst(":.*", "") + " was rewritten or cut off");
        Result forged = youngtally("audit", "--head", "1:" + "0".repeat(64));
        assertThat(forged.exit()).isEqualTo(1);
        assertThat(forged.out()).contains("wrong: entry 1 now has the hash").contains("NOT in order");
    }

    @Test
    void theSeriesAreListedShownAndPreviewed() throws Exception {
        assertThat(youngtally("series", "list").out())
                .contains("SERIES")
                .containsPattern("visit +V2603/04 +57 +1…60 +V2603/03")
                .containsPattern("cast .*low");
        assertThat(youngtally("series", "show", "visit").out())
                .contains("V{date yyMM}/{count 2}")
                .containsPattern("2026-02 +52 +8");
        assertThat(youngtally("series", "preview", "cast", "--quantity", "9").out())
                .isEqualTo("CAST-005\nCAST-004\nCAST-003\nCAST-002\nCAST-001\n");
        assertThat(youngtally("entry", "list", "--series", "part", "--limit", "1")
                        .out())
                .contains("P-100400 … P-100640")
                .contains("ORGAN-18");
        assertThat(youngtally("status").out()).contains("numbers are allocated").contains("2026-03-02");
    }

    @Test
    void whatLooksLikeASlipIsRemarkedAndTakenAllTheSame() throws Exception {
        Path file = folder.resolve("slip.yaml");
        Files.writeString(
                file,
                "series: [{ key: slip, pattern: \"SL2026-{count 4}\", ranges: [{ first: 1, last: 999, opens: 2019-01-01 }] }]\n");
        Result applied = youngtally("apply", file.toString());
        assertThat(applied.exit()).isZero();
        assertThat(applied.out()).isEqualTo("new slip, version 1, starts with SL2026-0001\n");
        assertThat(applied.err())
                .contains("Possible mistake: pattern: ‘SL2026-’ looks like the current year as fixed text")
                .contains("Possible mistake: ranges[1].opens: 2019-01-01 lies before this year");
        assertThat(youngtally("schema").out()).contains("\"fiscal-year-starts\"");
    }

    @Test
    void theFilesOfDefinitionsAreGivenBackWithTheirComments() throws Exception {
        Path into = folder.resolve("exported");
        Result exported = youngtally("export", into.toString());
        assertThat(exported.exit()).as(exported.err()).isZero();
        assertThat(Files.readString(into.resolve("larkmoor.yaml")))
                .isEqualTo(Files.readString(Path.of("../demo/larkmoor.yaml")));
        assertThat(youngtally("apply", into.toString(), "--dry-run").out().lines())
                .allMatch(line -> line.startsWith("unchanged "));
        assertThat(youngtally("export", into.toString()).err()).contains("up to date");
        Files.writeString(into.resolve("larkmoor.yaml"), "# mine");
        Result kept = youngtally("export", into.toString());
        assertThat(kept.exit()).isEqualTo(2);
        assertThat(kept.err()).contains("differs. Nothing was written");
        assertThat(Files.readString(into.resolve("larkmoor.yaml"))).isEqualTo("# mine");
        assertThat(youngtally("export", into.toString(), "--overwrite").err()).contains("1 file written");
    }

    @Test
    void checkDigitsAreAddedAndVerifiedWithoutAService() throws Exception {
        assertThat(client(List.of("check", "add", "gs1", "952123412345", "9521237")))
                .isEqualTo(new Result(0, "9521234123453\n95212371\n", ""));
        Result verified = client(List.of("check", "verify", "damm", "3189", "3819"));
        assertThat(verified.exit()).isEqualTo(1);
        assertThat(verified.out())
                .contains("3189\tvalid\n")
                .contains("3819\tinvalid, check digit is 9, expected 0")
                .contains("swapped: 3189");
        Result empty = client(List.of("check", "verify", "damm", ""));
        assertThat(empty.exit()).isEqualTo(1);
        assertThat(empty.err()).contains("the text is empty");
        assertThat(client(List.of("check", "verify", "dam", "3189")).err())
                .contains("Check digit scheme ‘dam’ not found. Did you mean ‘damm’?");
        assertThat(client(List.of("check", "list")).out()).contains("mod97-10").contains("ISO/IEC 7064");
    }

    @Test
    void aFileIsShownAndThenApplied() throws Exception {
        Path file = folder.resolve("crate.yaml");
        Files.writeString(
                file,
                "series:\n  - key: crate\n    pattern: \"C{count 4}\"\n    ranges:\n      - { first: 1, last: 999, opens: 2026-01-01 }\n");
        Result dry = youngtally("apply", file.toString(), "--dry-run");
        assertThat(dry.out()).isEqualTo("new crate, version 1, starts with C0001\n");
        assertThat(dry.err()).endsWith("Dry run: nothing was changed.\n");
        assertThat(youngtally("series", "show", "crate").exit()).isEqualTo(1);
        assertThat(youngtally("apply", file.toString()).err()).endsWith("1 definition applied.\n");
        assertThat(youngtally("apply", file.toString()).err()).isEqualTo("No changes.\n");
        Files.writeString(file, Files.readString(file).replace("999,", "9999,"));
        assertThat(youngtally("apply", file.toString()).out())
                .isEqualTo("changed crate, version 2\n   range 1 last: 999 → 9999\n");
        Files.writeString(file, Files.readString(file).replace("9999,", "99999,"));
        Result refused = youngtally("apply", file.toString());
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .contains("crate.yaml:5: crate: ranges[1].last 99999 is wider than the count")
                .contains("Nothing was changed.");
    }

    @Test
    void refusalsAndWrongUsageHaveTheirOwnExits() throws Exception {
        Result unknown = youngtally("allocate", "custmer");
        assertThat(unknown.exit()).isEqualTo(1);
        assertThat(unknown.out()).isEmpty();
        assertThat(unknown.err()).contains("Did you mean ‘customer’?");
        assertThat(youngtally("find", "LW99-1").exit()).isEqualTo(1);
        assertThat(youngtally("allocate").exit()).isEqualTo(2);
        assertThat(youngtally("alocate", "customer").exit()).isEqualTo(2);
        assertThat(youngtally("apply", "nowhere.yaml").exit()).isEqualTo(2);
        assertThat(youngtally("series", "list", "--service", "nonsense").exit()).isEqualTo(2);
        Result unreachable = youngtally("allocate", "customer", "--service", "http://127.0.0.1:1");
        assertThat(unreachable.exit()).isEqualTo(3);
        assertThat(unreachable.err()).contains("cannot be reached").contains("youngtally serve");
    }

    @Test
    void everythingIsToBeHadAsJson() throws Exception {
        assertThat(Service.JSON
                        .readTree(
                                youngtally("allocate", "invoice-care", "--json").out())
                        .get("identifiers")
                        .get(0)
                        .asString())
                .startsWith("LC");
        assertThat(Service.JSON.readTree(youngtally("series", "list", "--json").out()))
                .isNotEmpty();
        assertThat(Service.JSON
                        .readTree(youngtally("audit", "--json").out())
                        .get("gapFree")
                        .asBoolean())
                .isTrue();
        assertThat(youngtally("completion", "--service", "x").exit()).isEqualTo(2);
        assertThat(CommandLine.process(folder, "cli", List.of("completion")).out())
                .contains("complete -F _complete_youngtally");
    }

    @Test
    void theMainJobRunsOnce() throws Exception {
        Result once = CommandLine.process(folder, "service", List.of("demo", "--once"));
        assertThat(once.exit()).isZero();
        assertThat(once.out())
                .contains("LW26-00001 for ORDER-881")
                .contains("LW26-00002  LW26-00003  LW26-00004  LW26-00005  LW26-00006")
                .contains("gap-free, no number issued twice");
    }

    @Test
    void theServiceStaysOnThisMachine() throws Exception {
        Result refused = onData(
                "serve", "--address", "0.0.0.0", "--data", folder.resolve("d").toString());
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .contains("0.0.0.0 can be reached from elsewhere, and passwords would be sent unencrypted")
                .contains("--behind-proxy");
        Result busy = onData(
                "serve",
                "--port",
                Integer.toString(service.port()),
                "--data",
                folder.resolve("e").toString());
        assertThat(busy.exit()).isEqualTo(1);
        assertThat(busy.err()).contains("port " + service.port() + " is in use");
    }

    @Test
    void oneProcessOwnsADataFolderAndRebuildWantsItAlone() throws Exception {
        Path data = folder.resolve("owned");
        try (Service owner = Service.process(data)) {
            owner.apply("series: [{key: n, pattern: 'N{count 3}', ranges: [{first: 1, last: 9, opens: 2026-01-01}]}]");
            assertThat(onData("serve", "--port", "0", "--data", data.toString()).err())
                    .contains("another process is using the data folder");
            assertThat(onData("rebuild", "--data", data.toString()).exit()).isEqualTo(1);
        }
        Result rebuilt = onData("rebuild", "--data", data.toString());
        assertThat(rebuilt.out()).contains("3 entries were written into new tables");
        try (Service again = Service.serve(data)) {
            assertThat(again.get("/api/v1/series/n").status()).isEqualTo(200);
        }
    }

    /** The chain is checked with nothing but the shell's own tools, as the reference describes it. */
    @Test
    void theChainIsProvedWithStockTools() throws Exception {
        Path data = folder.resolve("chain");
        String head;
        try (Service owner = Service.serve(data)) {
            owner.apply(
                    "series: [{key: n, pattern: 'Nö\"{count 3}', ranges: [{first: 1, last: 9, opens: 2026-01-01}]}]");
            for (int i = 0; i < 3; i++)
                owner.post("/api/v1/series/n/allocations", "{\"reference\":\"a \\\" ,\\\"batch\\\":3 " + i + "\"}");
            head = owner.get("/api/v1/status").text("head");
        }
        String script =
                "previous=$(printf '0%.0s' $(seq 64)); while IFS= read -r line; do hash=$(printf '%s%s' \"$previous\" \"${line%,\\\"hash\\\":*}\" | sha256sum | cut -c1-64); "
                        + "[ \"${line##*,\\\"hash\\\":}\" = \"\\\"$hash\\\"}\" ] || exit 1; previous=$hash; n=$((n+1)); done; echo $n:$previous";
        Process shell = new ProcessBuilder("bash", "-c", "cat '" + data + "'/journal/*.jsonl | { " + script + "; }")
                .redirectErrorStream(true)
                .start();
        assertThat(new String(shell.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip())
                .isEqualTo(head);
        assertThat(shell.waitFor()).isZero();
    }

    @Test
    void fieldsAndUnitsAreGivenAndRefusedByName() throws Exception {
        assertThat(youngtally(
                                "allocate",
                                "component",
                                "--field",
                                "group=wind-chest",
                                "--field",
                                "kind=SL",
                                "--date",
                                "2026-03-02",
                                "--quantity",
                                "2")
                        .out())
                .isEqualTo("WC-SL-0007\nWC-SL-0008\n");
        assertThat(youngtally("find", "wc-sl-0008").out())
                .contains("lane       group WC")
                .contains("fields     group=WC, kind=SL");
        assertThat(youngtally("allocate", "order", "--unit", "care", "--date", "2026-03-02")
                        .out())
                .isEqualTo("PO-CARE-26-0001\n");
        assertThat(youngtally(
                                "series",
                                "preview",
                                "project",
                                "--field",
                                "place=Ørland",
                                "--date",
                                "2026-05-05",
                                "--quantity",
                                "1")
                        .out())
                .isEqualTo("ORLA2601\n");
        assertThat(youngtally("series", "preview", "project").err()).contains("depend on place");
        assertThat(youngtally("series", "show", "component").out())
                .contains("field      kind: a choice within that of group", "group CA");
        Result missing = youngtally("allocate", "component", "--field", "group=WC");
        assertThat(missing.exit()).isEqualTo(1);
        assertThat(missing.err())
                .contains("The field ‘kind’ of ‘component’ is missing.", "Pallet (PA), Slider (SL)")
                .doesNotContain("Sponsil");
        assertThat(youngtally("allocate", "component", "--field", "group=WC", "--field", "kind=Sponsil")
                        .err())
                .contains("is a retired choice of the field ‘kind’");
        assertThat(youngtally("allocate", "order", "--unit", "workz").err()).contains("Did you mean ‘works’?");
        assertThat(youngtally("allocate", "visit", "--unit", "shop").err())
                .contains("Series ‘visit’ has no fields; ‘unit’ was sent.");
        assertThat(youngtally("allocate", "order", "--unit", "works", "--field", "unit=care")
                        .exit())
                .isEqualTo(2);
    }

    @Test
    void choicesAreAddedAndRetired() throws Exception {
        Path file = folder.resolve("timber.yaml");
        Files.writeString(file, """
                codebooks: [{ key: timber, title: Timbers, choices: [{ name: Oak, code: OA, choices: [{ name: Quartered, code: Q }] }, { name: Pine, code: PI }] }]
                series:
                  - { key: plank, pattern: "{field timber}{field cut}-{count 3}", fields: [{ name: timber, codebook: timber }, { name: cut, within: timber }], ranges: [{ first: 1, last: 999, opens: 2026-01-01 }] }
                """);
        assertThat(youngtally("apply", file.toString()).out())
                .isEqualTo("new codebook timber, version 1\nnew plank, version 1\n");
        assertThat(youngtally("codebook", "list").out()).containsPattern("timber +Timbers +2 +1 +plank");
        assertThat(youngtally("codebook", "add", "timber", "P", "Plain", "--within", "OA"))
                .isEqualTo(new Result(0, "", "Added: P, Plain.\n"));
        assertThat(youngtally(
                                "series",
                                "preview",
                                "plank",
                                "--field",
                                "timber=Oak",
                                "--field",
                                "cut=Plain",
                                "--quantity",
                                "1")
                        .out())
                .isEqualTo("OAP-001\n");
        assertThat(youngtally("codebook", "add", "timber", "P", "Part-sawn", "--within", "OA")
                        .err())
                .contains("‘P’ already belongs to another choice of the same level")
                .contains("Nothing was changed.");
        assertThat(youngtally("codebook", "retire", "timber", "P", "--within", "OA")
                        .err())
                .isEqualTo("P is retired.\n");
        assertThat(youngtally("codebook", "show", "timber").out()).containsPattern("  P +Plain +retired");
        assertThat(youngtally("codebook", "retire", "timber", "ZZ"))
                .extracting(Result::exit)
                .isEqualTo(2);
        assertThat(youngtally("codebook", "show", "timbre").err()).contains("Did you mean ‘timber’?");
        Result gone = youngtally("apply", file.toString());
        assertThat(gone.exit()).isEqualTo(1);
        assertThat(gone.err())
                .contains(
                        "timber.yaml:1: timber: choices[1].choices the code ‘P’ of Plain is gone",
                        "keep it, with retired: true");
    }

    @Test
    void whatIsSkippedIsToldAndWhatComesRoundHasItsRound() throws Exception {
        assertThat(youngtally("series", "show", "bench-place").out())
                .containsPattern("ISSUED +LEFT +LAST DATE +SKIPPED")
                .containsPattern(" 25 +152 +2026-01-10 +1");
        assertThat(youngtally("audit", "bench-place").out())
                .contains(
                        "26 positions: 25 issued, 1 skipped",
                        "explained: series bench-place, range 1: 1 position void, skipped by the definition: 013");
        assertThat(youngtally("find", "b013").exit()).isEqualTo(1);
        assertThat(youngtally("find", "B").out()).contains("round      1").contains("round      2");
        assertThat(youngtally("block", "allocate", "mark", "--quantity", "5").err())
                .contains("its values repeat.");
        List<String> codes = youngtally("allocate", "voucher", "--quantity", "20", "--date", "2026-03-02")
                .out()
                .lines()
                .toList();
        assertThat(codes)
                .hasSize(20)
                .doesNotHaveDuplicates()
                .isNotEqualTo(codes.stream().sorted().toList());
        assertThat(youngtally("find", codes.get(7)).out()).contains("position   16");
        assertThat(youngtally("export").out()).contains("order: scattered").doesNotContainPattern("[0-9a-f]{32}");
    }
}
