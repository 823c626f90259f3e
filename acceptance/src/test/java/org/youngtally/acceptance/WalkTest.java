package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/**
 * What the walks through the product show is what the demo answers. With {@code -Dwalks.write} the outputs in the
 * documents are made again.
 */
class WalkTest {
    private static final Path HOME = Path.of("..").toAbsolutePath().normalize();
    private static final Pattern BLOCK = Pattern.compile("(?s)```\\n(.*?)```");
    /** A word of a command, or several in quotation marks. */
    private static final Pattern WORD = Pattern.compile("\"[^\"]*\"|\\S+");

    /** A file or folder that a command of the walk writes or reads, beside the demo. */
    private static final Pattern FILE =
            Pattern.compile("[a-z0-9-]+[.](csv|json)|(numbered|again|cleared)(/[A-Za-z0-9 -]+([.][a-z-]+)+)?");

    private static final String PROMPT = "$ youngtally ";

    @TempDir
    private Path folder;

    @ParameterizedTest
    @ValueSource(
            strings = {
                "docs/audit-walk.md",
                "docs/table-walk.md",
                "docs/number-walk.md",
                "docs/part-walk.md",
                "docs/program-walk.md"
            })
    void theOutputsAreThoseOfTheDemo(String walk) throws Exception {
        Path document = HOME.resolve(walk);
        String kept = Files.readString(document);
        String made;
        try (Service service = Service.demo()) {
            made = made(kept, service);
        }
        if (Boolean.getBoolean("walks.write")) Files.writeString(document, made);
        assertThat(lasting(Files.readString(document))).isEqualTo(lasting(made));
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
        // Files of the demo are named as from the folder of the product.
        String[] arguments = WORD.matcher(
                        line.substring(PROMPT.length()).replace(" demo/", " " + HOME.resolve("demo") + "/"))
                .results()
                .map(word -> word.group().replace("\"", ""))
                .map(word -> FILE.matcher(word).matches() ? folder.resolve(word).toString() : word)
                .toArray(String[]::new);
        CommandLine.Result result = CommandLine.run(folder, service, arguments);
        return (result.out() + result.err()).replace(folder + "/", "");
    }

    /** Without what differs from one run to the next: hashes, times, and how wide a column is for them. */
    private static List<String> lasting(String text) throws IOException {
        return text.replaceAll("[0-9a-f]{64}", "HASH")
                .replaceAll("[0-9]{2}:[0-9]{2}:[0-9]{2}", "TIME")
                // A definition that was guessed opens with this year.
                .replaceAll("opens: [0-9]{4}-01-01", "opens: YEAR")
                .lines()
                .toList();
    }
}
