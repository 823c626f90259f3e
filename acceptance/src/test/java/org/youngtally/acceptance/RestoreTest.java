package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.youngtally.acceptance.CommandLine.Result;
import org.youngtally.acceptance.Service.Answer;

/** The day after: a data folder is lost, and made anew of a backup with numbers on paper that it does not know. */
class RestoreTest {
    private static final String ALLOCATIONS = "/api/v1/series/part/allocations";
    private static final String SERIES =
            "series: [{ key: part, pattern: \"P{count 5}\", ranges: [{ first: 1, last: 99999, opens: 2026-01-01 }] }]";

    @TempDir
    private Path folder;

    private Service service;

    private Path data() {
        return folder.resolve("data");
    }

    private Path backups() {
        return folder.resolve("backups");
    }

    @BeforeEach
    void begin() throws Exception {
        Files.writeString(folder.resolve("passphrase"), "the wind-chest is tight\n");
        service = Service.serve(data());
        service.apply(SERIES);
        take(3);
    }

    @AfterEach
    void end() throws Exception {
        service.close();
    }

    private String take(int quantity) throws Exception {
        return service.post(ALLOCATIONS, "{\"quantity\":" + quantity + "}").text("last");
    }

    private Result onData(String... words) throws Exception {
        var all = new ArrayList<>(List.of(words));
        all.addAll(List.of("--data", data().toString()));
        return CommandLine.run(folder, "service", all);
    }

    private Result client(String... words) throws Exception {
        return CommandLine.run(folder, service, words);
    }

    private Path backup() throws Exception {
        Result made = onData(
                "backup",
                backups().toString(),
                "--passphrase-file",
                folder.resolve("passphrase").toString());
        assertThat(made.exit()).as(made.err()).isZero();
        try (Stream<Path> all = Files.list(backups())) {
            return all.max(Path::compareTo).orElseThrow();
        }
    }

    private Result restore(Path backup, String... proof) throws Exception {
        service.close();
        if (Files.exists(data())) Files.move(data(), folder.resolve("lost"));
        var words = new ArrayList<>(List.of(
                "restore",
                backup.toString(),
                "--passphrase-file",
                folder.resolve("passphrase").toString()));
        words.addAll(List.of(proof));
        return onData(words.toArray(String[]::new));
    }

    private void serve(String... options) throws Exception {
        service = Service.serve(data(), options);
    }

    private String refusal() throws Exception {
        return service.post(ALLOCATIONS, "{}").text("type");
    }

    @Test
    void aBackupOfARunningServiceIsAudited() throws Exception {
        Result made = onData(
                "backup",
                backups().toString(),
                "--passphrase-file",
                folder.resolve("passphrase").toString());
        assertThat(made.out()).contains("audit   gap-free: 3 positions");
    }

    @Test
    void aBackupWithoutPassphraseIsAskedForOne() throws Exception {
        Result refused = onData("backup", backups().toString());
        assertThat(refused.exit()).isEqualTo(2);
        assertThat(refused.err()).contains("--passphrase-file").contains("--without-secret");
    }

    @Test
    void aRestoredServiceSaysWhyItAllocatesNothing() throws Exception {
        assertThat(restore(backup()).exit()).isZero();
        serve();
        assertThat(refusal()).endsWith("/newest-unknown");
        assertThat(service.get("/api/v1/health").status()).isEqualTo(503);
    }

    @Test
    void whatIsOnPaperIsStatedAndNotIssuedAgain() throws Exception {
        Path backup = backup();
        String onPaper = take(4);
        restore(backup);
        serve();
        Result stated = client("restore", "state", "part", "--highest", onPaper, "--reason", "the last drawing");
        assertThat(stated.out()).startsWith("4 numbers of part are in doubt").contains("P00004 … P00007");
        assertThat(client("restore", "resume", "--reason", "all is stated").exit())
                .isZero();
        assertThat(take(1)).isEqualTo("P00008");
    }

    @Test
    void theHighestIsFoundInATableOfNumbersInUse() throws Exception {
        Path backup = backup();
        take(4);
        restore(backup);
        serve();
        Path table = Files.writeString(folder.resolve("in-use.csv"), "No;Part\nP00002;Pallet\nP00006;Slider\n");
        Result stated = client(
                "restore",
                "state",
                "part",
                "--table",
                table.toString(),
                "--column",
                "no",
                "--reason",
                "the store room");
        assertThat(stated.out()).contains("P00004 … P00006");
    }

    @Test
    void aNumberOfAnotherSeriesIsNotTheHighest() throws Exception {
        restore(backup());
        serve();
        Result refused = client("restore", "state", "part", "--highest", "Q7", "--reason", "a guess");
        assertThat(refused.err()).contains("‘Q7’ is no number of ‘part’");
    }

    @Test
    void nothingGoesOnBeforeEverySeriesIsStated() throws Exception {
        restore(backup());
        serve();
        assertThat(client("restore", "resume", "--reason", "in a hurry").err())
                .contains("Nothing is stated yet of part");
        assertThat(refusal()).endsWith("/newest-unknown");
    }

    @Test
    void laneByLaneUnlessTheOthersAreSaidToBeUnchanged() throws Exception {
        restore(backup());
        serve();
        assertThat(client("restore", "state", "part", "--others-unchanged", "--reason", "nothing was issued")
                        .out())
                .startsWith("0 numbers of part");
    }

    @Test
    void numbersInDoubtAreListedUntilTheyAreSettled() throws Exception {
        Path backup = backup();
        String onPaper = take(3);
        restore(backup);
        serve();
        client("restore", "state", "part", "--highest", onPaper, "--reason", "the last drawing");
        client("restore", "resume", "--reason", "all is stated");
        assertThat(client("doubt", "list").out()).contains("P00004").contains("the last drawing");
        client("doubt", "issued", "part", "P00004", "--through", "P00005", "--reason", "on the drawing");
        client("doubt", "void", "part", "P00006", "--reason", "on no drawing");
        assertThat(client("doubt", "list").err()).contains("No numbers are in doubt");
    }

    @Test
    void aJournalCopyBringsBackWhatTheBackupLacks() throws Exception {
        service.close();
        serve("--journal-copy", folder.resolve("copy").toString());
        Path backup = backup();
        take(4);
        Result restored =
                restore(backup, "--journal-copy", folder.resolve("copy").toString());
        assertThat(restored.out()).contains("The ledger is the newest");
        serve("--journal-copy", folder.resolve("copy").toString());
        assertThat(take(1)).isEqualTo("P00008");
    }

    @Test
    void aHeadThatWasKeptElsewhereProvesIt() throws Exception {
        Path backup = backup();
        String head = service.get("/api/v1/status").text("head");
        assertThat(restore(backup, "--head", head).out()).contains("The ledger is the newest");
        serve();
        assertThat(take(1)).isEqualTo("P00004");
    }

    /** The older folder is put back by hand; the client shows what it was shown. */
    @Test
    void aClientThatKeepsReceiptsStopsAnOlderCopy() throws Exception {
        service.close();
        copy(data(), folder.resolve("old"));
        serve();
        assertThat(client("allocate", "part").out().strip()).isEqualTo("P00004");
        service.close();
        Files.move(data(), folder.resolve("newest"));
        Files.move(folder.resolve("old"), data());
        serve();
        Result refused = client("allocate", "part");
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err())
                .containsPattern("a receipt of entry \\d+ was shown, and the ledger ends at entry \\d+");
        assertThat(refusal()).as("of whoever keeps none").endsWith("/newest-unknown");
    }

    private static void copy(Path from, Path to) throws Exception {
        try (Stream<Path> files = Files.walk(from)) {
            for (Path file : files.toList()) Files.copy(file, to.resolve(from.relativize(file)));
        }
    }

    @Test
    void aForgedReceiptIsIgnored() throws Exception {
        Answer status = service.get("/api/v1/status");
        String[] genuine = status.text("receipt").split("\\.");
        String forged = genuine[0] + "." + genuine[1] + ".999." + genuine[3];
        service.send(service.request("/api/v1/status")
                .header("Ledger-Receipt", forged)
                .GET());
        assertThat(take(1)).isEqualTo("P00004");
    }

    @Test
    void aStrangerIsShownNoReceipt() throws Exception {
        assertThat(service.send(service.stranger("/api/v1/health").GET())
                        .response()
                        .headers()
                        .firstValue("Ledger-Receipt"))
                .isEmpty();
    }

    @Test
    void anAnswerCarriesTheReceiptOfItsOwnEntry() throws Exception {
        Answer answer = service.post(ALLOCATIONS, "{}");
        assertThat(answer.response().headers().firstValue("Ledger-Receipt").orElseThrow())
                .contains("." + answer.json().get("seq").asLong() + ".");
    }

    @Test
    void backupsAreMadeBySchedule() throws Exception {
        service.close();
        serve("--backups", backups().toString(), "--backup-every", "P1D");
        service.await(() -> service.get("/api/v1/status").json().has("backup"));
        assertThat(service.get("/api/v1/backups").json().get(0).get("scheduled").asBoolean())
                .isTrue();
    }

    @Test
    void aBackupIsMadeOnRequest() throws Exception {
        service.close();
        serve(
                "--backups",
                backups().toString(),
                "--passphrase-file",
                folder.resolve("passphrase").toString());
        Answer made = service.post("/api/v1/backups", "");
        assertThat(made.status()).isEqualTo(201);
        assertThat(Path.of(made.text("place"))).isDirectoryContaining("glob:**/backup.json");
    }

    @Test
    void aServiceWithoutAFolderForThemMakesNoBackup() throws Exception {
        assertThat(service.post("/api/v1/backups", "").text("type")).endsWith("/no-backups");
    }

    @Test
    void theConsoleStatesAndSettles() throws Exception {
        Path backup = backup();
        take(2);
        String password = service.password();
        restore(backup);
        serve();
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
        }
        assertThat(take(1)).isEqualTo("P00006");
    }
}
