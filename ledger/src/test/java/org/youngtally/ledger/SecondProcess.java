package org.youngtally.ledger;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;

/** Another process that opens a data folder and says what came of it. */
final class SecondProcess {
    private SecondProcess() {}

    public static void main(String[] arguments) throws IOException {
        try (Ledger ledger =
                Ledger.open(LedgerOptions.in(Path.of(arguments[0])).withPatience(Duration.ofMillis(1_500)))) {
            System.out.println("opened, " + ledger.status());
        } catch (LedgerInUse e) {
            System.out.println(e.getMessage());
        }
    }

    /** @return what it said */
    static String start(Path data) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        SecondProcess.class.getName(),
                        data.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor();
        return said;
    }
}
