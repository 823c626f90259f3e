package org.youngtally.bench.drill;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * A service under load in which something goes wrong, and what is told of it.
 *
 * @param disk the mount point of a file system of its own, where the drill needs one
 * @param told by what it is about, in order
 */
record Scene(Path jar, Path folder, Path disk, Instance service, Callers callers, Map<String, String> told) {
    private static final String CLOCK = "clock";
    /** So many numbers are allocated behind a copy, that it lacks. */
    private static final int AFTERWARDS = 20;
    /** So long a fault goes on while questions are asked. */
    private static final long MEANWHILE = TimeUnit.SECONDS.toNanos(3);

    void tell(String about, String what) {
        told.put(about, what);
    }

    Path segment() throws IOException {
        try (Stream<Path> files = Files.list(service.data().resolve("journal"))) {
            return files.filter(file -> file.toString().endsWith(".jsonl"))
                    .max(Path::compareTo)
                    .orElseThrow();
        }
    }

    /** Waits until the service says that it gives no numbers, and tells how long that took and what it says. */
    void noticed(String about) throws IOException, InterruptedException {
        double seconds = Instance.awaitTrue("the fault is noticed", () -> !service.isReady());
        String why = Text.of(status(), "stopped");
        tell(about, "after %.1f s: %s".formatted(seconds, why.isEmpty() ? Text.of(status(), "paused") : why));
    }

    /** What was given before can be asked meanwhile. */
    void asked() throws IOException, InterruptedException {
        String number = callers.answered().values().iterator().next();
        long until = System.nanoTime() + MEANWHILE;
        HttpResponse<String> found;
        do found = service.get("/identifiers?text=" + number);
        while (found.statusCode() == 200 && System.nanoTime() < until);
        if (found.statusCode() != 200) throw new IOException("a number could not be found: " + found.body());
        tell("reading during the fault", "answered (" + number + " is found)");
    }

    String status() throws IOException, InterruptedException {
        return service.get("/status").body();
    }

    /** The service runs, and gives no numbers. */
    void stands() throws IOException, InterruptedException {
        String stopped = Text.of(status(), "stopped");
        if (stopped.isEmpty()) throw new IOException("the damage was not noticed: " + status());
        tell("told", stopped);
        HttpResponse<String> audit = service.post("/audits", "{}", "");
        tell("the audit says", Text.of(audit.body(), "findings"));
        service.stop();
    }

    /** The fault is mended, and the service started once more. */
    void startedAgain() throws IOException, InterruptedException {
        service.start(Map.of());
        tell("resumes", "%.1f s after it was mended and the service started".formatted(callers.awaitNumber()));
    }

    /** By which a process is told another time than the machine's, for as long as it runs. */
    private static Map<String, String> clock(String offset) {
        return Map.of(
                "LD_PRELOAD",
                System.getProperty("drill.clock"),
                "FAKETIME",
                offset,
                "FAKETIME_DONT_FAKE_MONOTONIC",
                "1",
                // Or every timed wait of the virtual machine returns at once, and its threads spin.
                "FAKETIME_FORCE_MONOTONIC_FIX",
                "0");
    }

    /** The same, with a time that can be set while it runs. */
    static Map<String, String> settableClock(Path folder) {
        return Map.of(
                "LD_PRELOAD",
                System.getProperty("drill.clock"),
                "FAKETIME_TIMESTAMP_FILE",
                folder.resolve(CLOCK).toString(),
                "FAKETIME_CACHE_DURATION",
                "1",
                "FAKETIME_DONT_FAKE_MONOTONIC",
                "1",
                "FAKETIME_FORCE_MONOTONIC_FIX",
                "0");
    }

    /** @param offset such as -2d */
    void setClock(String offset) throws IOException {
        setClock(folder, offset);
    }

    static void setClock(Path folder, String offset) throws IOException {
        Files.writeString(folder.resolve(CLOCK), offset + "\n");
    }

    /** A start with another clock gives no number before its date is confirmed, and goes on with the right one. */
    void startedWithClock(String offset) throws IOException, InterruptedException {
        service.stop();
        service.start(clock(offset));
        if (service.isReady()) throw new IOException("numbers are allocated " + offset + " from now");
        tell("told at the start", service.told("No numbers are allocated: "));
        service.stop();
        service.start(Map.of());
        tell("resumes", "%.1f s after a start with the right clock".formatted(callers.awaitNumber()));
    }

    Path copy() {
        return folder.resolve("copy");
    }

    private Path backups() {
        return folder.resolve("backups");
    }

    private Path passphrase() {
        return folder.resolve("passphrase");
    }

    /** From now on the journal has a copy in another folder. */
    void withCopy() throws IOException, InterruptedException {
        service.stop();
        service.options(List.of("--journal-copy", copy().toString()));
        service.start(Map.of());
        callers.awaitNumber();
    }

    /** Makes a backup while the service runs, and tells of it. */
    void backedUp() throws IOException, InterruptedException {
        Files.writeString(passphrase(), "the wind-chest is tight\n");
        String said = service.command(
                "backup",
                backups().toString(),
                "--data",
                service.data().toString(),
                "--passphrase-file",
                passphrase().toString());
        tell("backup", line(said, "audit"));
    }

    /** Numbers are allocated that a copy from before lacks. */
    void goesOn() throws IOException, InterruptedException {
        for (int i = 0; i < AFTERWARDS; i++) callers.awaitNumber();
    }

    private static String line(String said, String word) {
        return said.lines()
                .filter(each -> each.startsWith(word))
                .findFirst()
                .map(each -> each.substring(word.length()).strip())
                .orElse("");
    }

    /** The data folder is lost, and made anew of the backup. */
    void restored(String... proof) throws IOException, InterruptedException {
        Drills.remove(service.data());
        try (Stream<Path> made = Files.list(backups())) {
            var words = new ArrayList<String>(List.of(
                    "restore",
                    made.findFirst().orElseThrow().toString(),
                    "--data",
                    service.data().toString(),
                    "--passphrase-file",
                    passphrase().toString()));
            words.addAll(List.of(proof));
            List<String> said =
                    service.command(words.toArray(String[]::new)).lines().toList();
            tell("restore says", said.getLast());
        }
    }

    /** The folder as it stands now, to be put back later. */
    Path kept() throws IOException, InterruptedException {
        service.stop();
        Path kept = folder.resolve("old");
        Instance.run(List.of("cp", "-a", service.data().toString(), kept.toString()));
        service.start(Map.of());
        goesOn();
        return kept;
    }

    /** An older folder is put in the place of the newest, which is set aside. */
    Path replacedBy(Path old) throws IOException {
        Path newest = folder.resolve("newest");
        Files.move(service.data(), newest);
        Files.move(old, service.data());
        return newest;
    }

    void resumes() throws IOException, InterruptedException {
        tell("resumes", "%.1f s after the service was started".formatted(callers.awaitNumber()));
    }

    /** The administrator states the highest number on paper; what was asked before the loss is not known any more. */
    void stated() throws IOException, InterruptedException {
        String highest =
                callers.answered().values().stream().max(String::compareTo).orElseThrow();
        callers.forget();
        HttpResponse<String> stated = service.post(
                "/rollback/statements",
                "{\"series\":\"drill\",\"highest\":[\"" + highest + "\"],\"reason\":\"the last one on paper\"}",
                "");
        if (stated.statusCode() != 200) throw new IOException(stated.body());
        tell("stated", "highest " + highest + ": " + Text.of(stated.body(), "quantity") + " numbers are in doubt");
        HttpResponse<String> resumed = service.post("/rollback/resumptions", "{\"reason\":\"all is stated\"}", "");
        if (resumed.statusCode() != 200) throw new IOException(resumed.body());
    }

    /** Nothing was given twice, every answer is repeated as it was, and the audit passes. */
    void proved() throws IOException, InterruptedException {
        callers.close();
        Map<String, String> answered = callers.answered();
        Set<String> numbers = new HashSet<>(answered.values());
        if (numbers.size() < answered.size()) throw new IOException("a number was issued twice");
        int looked = 0;
        for (Map.Entry<String, String> each : answered.entrySet()) {
            if (callers.isForgotten(each.getKey())) continue;
            if (++looked > 2_000) break;
            HttpResponse<String> again = service.post("/series/drill/allocations", "{}", each.getKey());
            if (!Text.of(again.body(), "identifiers").equals(each.getValue()))
                throw new IOException(each.getValue() + " was answered, and now " + again.body());
        }
        HttpResponse<String> audit = service.post("/audits", "{}", "");
        boolean passed =
                Text.of(audit.body(), "gapFree").equals("true") && audit.body().contains("\"findings\":[]");
        if (!passed) throw new IOException("the audit does not pass: " + audit.body());
        tell("callers got", heard());
        tell(
                "afterwards",
                "%,d numbers, none twice, every answer%s repeated as it was; the audit passes: %s entries, no gap"
                        .formatted(
                                numbers.size(),
                                callers.hasForgotten() ? " since the loss" : "",
                                Text.of(audit.body(), "entries")));
    }

    private String heard() {
        var words = new LinkedHashMap<String, String>();
        callers.heard().forEach((what, count) -> words.put(what, "%s: %,d".formatted(what, count)));
        return String.join(", ", words.values());
    }
}
