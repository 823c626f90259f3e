package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * What the walk through an audit shows is what the demo answers. With {@code -Daudit-walk.write} the outputs in the
 * document are made again.
 */
class AuditWalkTest {
    private static final Path DOCUMENT = Path.of("../docs/audit-walk.md");
    private static final Pattern BLOCK = Pattern.compile("(?s)```\\n(.*?)```");
    private static final String PROMPT = "$ youngtally ";

    @TempDir
    private Path folder;

    @Test
    void theOutputsAreThoseOfTheDemo() throws Exception {
        String kept = Files.readString(DOCUMENT);
        String made;
        try (Service service = Service.demo()) {
            made = made(kept, service);
        }
        if (Boolean.getBoolean("audit-walk.write")) Files.writeString(DOCUMENT, made);
        assertThat(lasting(Files.readString(DOCUMENT))).isEqualTo(lasting(made));
    }

    private String made(String document, Service service) throws Exception {
        Matcher blocks = BLOCK.matcher(document);
        var text = new StringBuilder();
        while (blocks.find()) {
            var block = new StringBuilder("```\n");
            for (String line : blocks.group(1).split("\n"))
                if (line.startsWith(PROMPT)) block.append(line).append('\n').append(output(line, service));
            blocks.appendReplacement(text, Matcher.quoteReplacement(block + "```"));
        }
        blocks.appendTail(text);
        return text.toString();
    }

    private String output(String line, Service service) throws Exception {
        String[] arguments = line.substring(PROMPT.length()).split(" ");
        CommandLine.Result result = CommandLine.run(folder, service, arguments);
        return result.out() + result.err();
    }

    /** Without what differs from one run to the next: hashes, times, and how wide a column is for them. */
    private static List<String> lasting(String text) throws IOException {
        return text.replaceAll("[0-9a-f]{64}", "HASH")
                .replaceAll("[0-9]{2}:[0-9]{2}:[0-9]{2}", "TIME")
                .lines()
                .toList();
    }
}
