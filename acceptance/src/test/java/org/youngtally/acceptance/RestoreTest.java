package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.youngtally.acceptance.CommandLine.Result;
import org.youngtally.acceptance.Service.Answer;

/** The day after: a data folder is lost, and made anew of a backup with numbers on paper that it does not know. */
class RestoreTest {
    private static final String ALLOCATIONS = "/api/v1/series/part/allocations";
    private static final String DEFINITIONS = """
            series: [{ key: part, pattern: "P{count 5}", ranges: [{ first: 1, last: 99999, opens: 2026-01-01 }] }]
            layouts: [{ key: tag, width: 62, height: 29, items: [
              { text: "{identifier}", left: 3, top: 3, width: 36, height: 6 }] }]
            """;

    @TempDir
    private static Path folder;

    /** Made of a backup with three numbers, while seven are on paper. */
    private static Path restored;

    /** The folder with all seven. */
    private static Path newest;

    private static Path backup;
    private static String backupSaid;
    private static String headOfTheBackup;

    private Service service;

    private static Path data() {
        return folder.resolve("data");
    }

    private static String passphrase() {
        return folder.resolve("passphrase").toString();
    }

    @BeforeAll
    static void loseTheFolder() throws Exception {
        Files.writeString(folder.resolve("passphrase"), "the wind-chest is tight\n");
        try (Service first = Service.serve(data())) {
            first.apply(DEFINITIONS);
            label(first, 2, "--output", folder.resolve("labels.pdf").toString());
            label(first, 1);
            backupSaid = onData("backup", folder.resolve("backups").toString(), "--passphrase-file", passphrase())
                    .out();
            headOfTheBackup = first.get("/api/v1/status").text("head");
            first.post(ALLOCATIONS, "{\"quantity\":4}");
        }
        try (Stream<Path> all = Files.list(folder.resolve("backups"))) {
            backup = all.findFirst().orElseThrow();
        }
        newest = Files.move(data(), folder.resolve("newest"));
        restored = folder.resolve("restored");
        CommandLine.onData(List.of(
                "restore", backup.toString(), "--data", restored.toString(), "--passphrase-file", passphrase()));
    }

    /** A job of labels with new numbers, which wait unless they are sent at once. */
    private static void label(Service service, int quantity, String... more) throws Exception {
        var words = new ArrayList<>(
                List.of("label", "print", "tag", "--series", "part", "--quantity", String.valueOf(quantity)));
        words.addAll(List.of(more));
        assertThat(CommandLine.run(folder, service, words.toArray(String[]::new))
                        .exit())
                .isZero();
    }

    @AfterEach
    void end() throws Exception {
        if (service != null) service.close();
        Folders.delete(data());
        Folders.delete(folder.resolve("receipts"));
    }

    /** A copy of a folder is served. */
    private void serve(Path from, String... options) throws Exception {
        if (!Files.exists(data())) Folders.copy(from, data());
        service = Service.serve(data(), options);
    }

    private String take() throws Exception {
        return service.post(ALLOCATIONS, "{}").text("first");
    }

    private static Result onData(String... words) throws Exception {
        var all = new ArrayList<>(List.of(words));
        all.addAll(List.of("--data", data().toString()));
        return CommandLine.onData(all);
    }

    /** Of somebody who keeps no receipt from another test. */
    private Result client(String... words) throws Exception {
        return CommandLine.run(Files.createDirectories(folder.resolve("receipts")), service, words);
    }

    private String refusal() throws Exception {
        return service.post(ALLOCATIONS, "{}").text("type");
    }

    @Test
    void aBackupOfARunningServiceIsAudited() {
        assertThat(backupSaid).contains("audit   gap-free: 3 positions");
    }

    @Test
    void aBackupWithoutPassphraseIsAskedForOne() throws Exception {
        Result refused = onData("backup", folder.resolve("backups").toString());
        assertThat(refused.exit()).isEqualTo(2);
        assertThat(refused.err()).contains("--passphrase-file").contains("--without-secret");
    }

    @Test
    void aRestoredServiceSaysWhyItAllocatesNothing() throws Exception {
        serve(restored);
        assertThat(refusal()).endsWith("/newest-unknown");
        assertThat(service.get("/api/v1/health").status()).isEqualTo(503);
    }

    @Test
    void whatIsOnPaperIsStatedAndNotIssuedAgain() throws Exception {
        serve(restored);
        Result stated = client("restore", "state", "part", "--highest", "P00007", "--reason", "the last drawing");
        assertThat(stated.out()).startsWith("4 numbers of part are in doubt").contains("P00004 … P00007");
        assertThat(client("restore", "resume", "--reason", "all is stated").exit())
                .isZero();
        assertThat(take()).isEqualTo("P00008");
    }

    /** The lost state may have printed those that wait, and seen those printed that are sent. */
    @Test
    void labelsWithoutAnEndAreUnconfirmedOnceNumbersAreAllocatedAgain() throws Exception {
        serve(restored);
        assertThat(client("label", "list").out()).contains("2 sent", "1 waiting");
        client("restore", "state", "part", "--highest", "P00003", "--reason", "the last label");
        client("restore", "resume", "--reason", "all is stated");
        assertThat(client("label", "list").out())
                .contains("2 unconfirmed", "1 unconfirmed")
                .doesNotContain("sent", "waiting");
    }

    @Test
    void theHighestIsFoundInATableOfNumbersInUse() throws Exception {
        serve(restored);
        Path table = Files.writeString(folder.resolve("in-use.csv"), "No;Part\nP00002;Pallet\nP00006;Slider\n");
        Result stated = client(
                "restore", "state", "part", "--table", table.toString(), "--column", "no", "--reason", "the list");
        assertThat(stated.out()).contains("P00004 … P00006");
    }

    @Test
    void whatCannotBeStatedIsRefusedByName() throws Exception {
        serve(restored);
        Result other = client("restore", "state", "part", "--highest", "Q7", "--reason", "a guess");
        assertThat(other.err()).contains("‘Q7’ is no number of ‘part’");
        assertThat(client("restore", "resume", "--reason", "in a hurry").err())
                .contains("Nothing is stated yet of part");
        assertThat(refusal()).endsWith("/newest-unknown");
    }

    @Test
    void numbersInDoubtAreListedUntilTheyAreSettled() throws Exception {
        serve(restored);
        client("restore", "state", "part", "--highest", "P00006", "--reason", "the last drawing");
        client("restore", "resume", "--reason", "all is stated");
        assertThat(client("doubt", "list").out()).contains("P00004").contains("the last drawing");
        client("doubt", "issued", "part", "P00004", "--through", "P00005", "--reason", "on the drawing");
        client("doubt", "void", "part", "P00006", "--reason", "on no drawing");
        assertThat(client("doubt", "list").err()).contains("No numbers are in doubt");
    }

    @Test
    void aHeadThatWasKeptElsewhereProvesIt() throws Exception {
        Folders.copy(restored, data());
        assertThat(onData("restore", "--head", headOfTheBackup).out()).contains("The ledger is the newest");
        serve(restored);
        assertThat(take()).isEqualTo("P00004");
    }

    /** The older folder is put back by hand; the client shows what it was shown. */
    @Test
    void aClientThatKeepsReceiptsStopsAnOlderCopy() throws Exception {
        serve(newest);
        assertThat(client("allocate", "part").out().strip()).isEqualTo("P00008");
        service.close();
        Folders.delete(data());
        serve(newest);
        Result refused = client("allocate", "part");
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .containsPattern("a receipt of entry \\d+ was shown, and the ledger ends at entry \\d+");
        assertThat(refusal()).as("of whoever keeps none").endsWith("/newest-unknown");
    }

    @Test
    void receiptsAreGenuineAndForThoseWhoAreSignedIn() throws Exception {
        serve(newest);
        Answer status = service.get("/api/v1/status");
        String[] genuine = status.text("receipt").split("\\.");
        String forged = genuine[0] + "." + genuine[1] + ".999." + genuine[3];
        service.send(service.request("/api/v1/status")
                .header("Ledger-Receipt", forged)
                .GET());
        Answer answer = service.post(ALLOCATIONS, "{}");
        assertThat(answer.response().headers().firstValue("Ledger-Receipt"))
                .as("of its own entry")
                .hasValueSatisfying(receipt -> assertThat(receipt)
                        .contains("." + answer.json().get("seq").asLong() + "."));
        assertThat(service.send(service.stranger("/api/v1/health").GET())
                        .response()
                        .headers()
                        .firstValue("Ledger-Receipt"))
                .as("of a stranger")
                .isEmpty();
    }

    @Test
    void everyCommandWarnsWhileOneDiskAloneHasTheNewestNumbers() throws Exception {
        Path copy = folder.resolve("copy");
        serve(newest, "--journal-copy", copy.toString(), "--journal-copy-policy", "go-on");
        Files.move(copy, folder.resolve("away"));
        Files.createFile(copy);
        assertThat(client("allocate", "part").out().strip()).isEqualTo("P00008");
        assertThat(client("series", "list").err()).startsWith("WARNING: the journal copy in " + copy);
    }

    @Test
    void backupsAreMadeBySchedule() throws Exception {
        serve(newest, "--backups", folder.resolve("nightly").toString(), "--backup-every", "P1D");
        service.await(() -> service.get("/api/v1/backups").json().size() == 1);
        assertThat(service.get("/api/v1/status")
                        .json()
                        .get("backup")
                        .get("place")
                        .asString())
                .contains("nightly");
    }

    @Test
    void aBackupIsMadeOnRequest() throws Exception {
        serve(newest, "--backups", folder.resolve("asked").toString(), "--passphrase-file", passphrase());
        Answer made = service.post("/api/v1/backups", "");
        assertThat(made.status()).isEqualTo(201);
        assertThat(Path.of(made.text("place"))).isDirectoryContaining("glob:**/backup.json");
    }

    @Test
    void theConsoleStatesAndSettles() throws Exception {
        serve(restored);
        String password =
                service.post("/api/v1/accounts/administrator/passwords", "{}").text("password");
        try (var browser = new Browser(service.address())) {
            browser.signIn("administrator", password);
            browser.sees("No numbers are allocated.");
            browser.press("State what may have been issued");
            browser.type("Highest number of each lane that is in use, one a line", "P00005");
            browser.type("Where it is known from", "the last drawing");
            browser.press("State it");
            browser.sees("2 in doubt");
            browser.type("Reason", "all is stated");
            browser.press("Allocate numbers again");
            browser.sees("The ledger is the newest");
            browser.open("/life");
            browser.element(By.cssSelector("[aria-label='P00004 was issued']")).click();
            browser.sees("Reported as used");
            browser.open("/series/part");
            browser.sees("P00006");
        }
    }
}
