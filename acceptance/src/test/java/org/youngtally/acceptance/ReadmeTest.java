package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The examples of the README run as they are written, one after the other, in the demo that it starts. */
class ReadmeTest {
    private static final Path HOME = Path.of("..").toAbsolutePath().normalize();
    private static final Pattern EXAMPLES = Pattern.compile("(?sm)(<!-- not in the demo -->\\n)?^```sh\\n(.*?)^```");
    private static final Pattern WORD = Pattern.compile("'([^']*)'|\"([^\"]*)\"|(\\S+)");

    @TempDir
    private Path folder;

    @Test
    void theExamplesRunInTheDemo() throws Exception {
        var failed = new ArrayList<String>();
        try (Service service = Service.demo()) {
            String printer =
                    service.get("/api/v1/printers").json().at("/0/address").asString();
            Files.createSymbolicLink(folder.resolve("demo"), HOME.resolve("demo"));
            Path client = Files.writeString(
                    folder.resolve("youngtally"),
                    "#!/bin/sh\nexec " + Service.JAVA
                            + " -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -XX:+AutoCreateSharedArchive -Xlog:cds=off -Xlog:aot=off -XX:SharedArchiveFile="
                            + folder.resolve("client.jsa") + " -jar " + Service.jar("cli")
                            + " \"$@\"\n");
            Files.setPosixFilePermissions(client, PosixFilePermissions.fromString("rwx------"));
            for (String written : lines()) {
                String line = written.replace("ipp://127.0.0.1:7461/labels", printer);
                String wrong = line.startsWith("curl ") ? sent(line, service) : run(line, service);
                if (!wrong.isEmpty()) failed.add(line + "\n" + wrong);
            }
        }
        assertThat(failed).isEmpty();
    }

    private static List<String> lines() throws Exception {
        var lines = new ArrayList<String>();
        Matcher blocks = EXAMPLES.matcher(Files.readString(HOME.resolve("README.md")));
        while (blocks.find())
            if (blocks.group(1) == null) lines.addAll(blocks.group(2).lines().toList());
        assertThat(lines).as("examples").hasSizeGreaterThan(30);
        return lines;
    }

    /** @return what it says, where it fails */
    private String run(String line, Service service) throws Exception {
        Path said = Files.createTempFile(folder, "said", ".txt");
        var shell = new ProcessBuilder("bash", "-c", line)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .redirectOutput(said.toFile());
        shell.environment().put("YOUNGTALLY_SERVICE", service.address());
        shell.environment().put("YOUNGTALLY_TOKEN", service.token());
        shell.environment().put("XDG_STATE_HOME", folder.toString());
        return shell.start().waitFor() == 0 ? "" : Files.readString(said);
    }

    /** A request as curl would send it, which a machine need not have. */
    private static String sent(String line, Service service) throws Exception {
        var words = new ArrayList<String>();
        WORD.matcher(line)
                .results()
                .forEach(found -> words.add(
                        found.group(1) != null
                                ? found.group(1)
                                : found.group(2) != null ? found.group(2) : found.group(3)));
        String path = words.stream()
                .filter(word -> word.startsWith("http://127.0.0.1:7460/"))
                .findFirst()
                .orElseThrow()
                .substring("http://127.0.0.1:7460".length());
        String key = words.stream()
                .filter(word -> word.startsWith("Idempotency-Key: "))
                .findFirst()
                .orElseThrow()
                .substring("Idempotency-Key: ".length());
        Service.Answer answer = service.post(path, words.get(words.indexOf("-d") + 1), "Idempotency-Key", key);
        return answer.status() == 201 ? "" : answer.response().body();
    }
}
