package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * One word for one thing: what people read calls nothing by a word that the product has replaced. Searched are the
 * texts in the code (help, messages, answers), the pages of the console, the documents and the demo.
 */
class GlossaryTest {
    private static final Path HOME = Path.of("..").toAbsolutePath().normalize();

    /** What is not said any more, and what is said instead. */
    private static final List<Replaced> REPLACED = List.of(
            new Replaced("\\b(gives?|gave|given|giving)\\b", "allocate, issue, or another verb"),
            new Replaced("\\b(takes?|took|taken|taking)\\b", "allocate, accept, or another verb"),
            new Replaced("\\bstands? (in|for|behind|beneath|there|so)\\b|\\bstood\\b", "is in, is"),
            new Replaced("\\bholes?\\b", "uncovered dates, gap"),
            new Replaced("\\bslips?\\b", "possible mistake, typing error"),
            new Replaced("\\b(run|runs|ran) (out|low)\\b", "exhausted, low"),
            new Replaced("\\bleft out\\b|\\belse today\\b|\\bif there is one\\b", "optional, default"),
            new Replaced("\\bwithout doubles\\b", "no duplicates"),
            new Replaced("\\b(withdraw|withdrawn|withdraws)\\b", "revoke"),
            new Replaced("\\b(taken?|take) over\\b", "share"),
            new Replaced("\\bto see to\\b", "action needed"),
            new Replaced("\\b(becomes?|became) of\\b", "outcome, state"),
            new Replaced("\\bforeign (number|identifier)s?\\b", "pre-existing"),
            new Replaced("\\b(theirs|meanwhile)\\b", "their edit, edit conflict"),
            new Replaced("\\bmade anew\\b", "rebuilt"),
            new Replaced("\\bnot said\\b", "missing"),
            new Replaced("\\bvoid then\\b", "becomes void"));

    private record Replaced(String pattern, String instead) {
        List<String> in(String text) {
            return Pattern.compile(pattern, Pattern.CASE_INSENSITIVE)
                    .matcher(text)
                    .results()
                    .map(MatchResult::group)
                    .toList();
        }
    }

    private record Text(String where, String text) {}

    enum Source {
        CODE("^(core|documents|labels|ledger|service|cli)/src/main/.*\\.java$") {
            @Override
            List<String> texts(String file) {
                // Comments are for those who read the code, and what holds no blank is a name.
                return literals(file.replaceAll("(?s)/\\*.*?\\*/", "").replaceAll("(?m)^\\s*//.*$", ""));
            }
        },
        CONSOLE("^console/src/.*\\.tsx$") {
            @Override
            List<String> texts(String file) {
                String code = file.replaceAll("(?s)/\\*.*?\\*/", "").replaceAll("(?m)^\\s*//.*$", "");
                var texts = new ArrayList<>(literals(code));
                // What stands between two tags, without the expressions in it.
                Pattern.compile("(?s)[>}]([^<>{}=;()]*[A-Za-z]{2}[^<>{}=;()]*)[<{]")
                        .matcher(code)
                        .results()
                        .map(found -> found.group(1))
                        .forEach(texts::add);
                return texts;
            }
        },
        INTERFACE("^console/openapi\\.json$") {
            @Override
            List<String> texts(String file) {
                return Pattern.compile("\"(?:description|summary)\": \"((?:\\\\.|[^\"\\\\])*)\"")
                        .matcher(file)
                        .results()
                        .map(found -> found.group(1))
                        .toList();
            }
        },
        DOCUMENTS("^(README|CONTRIBUTING)\\.md$|^docs/.*\\.(md|puml)$|^[a-z]+/README\\.md$") {
            @Override
            List<String> texts(String file) {
                // Names in code are no words.
                return List.of(file.replaceAll("`[^`\\n]*`", "").split("\\n"));
            }
        },
        DEMO("^demo/.*(?<!\\.3mf)$|^service/src/main/resources/starters/.*") {
            @Override
            List<String> texts(String file) {
                return List.of(file.split("\\n"));
            }
        };

        private final Pattern files;

        Source(String files) {
            this.files = Pattern.compile(files);
        }

        abstract List<String> texts(String file);

        private static List<String> literals(String code) {
            return Pattern.compile("\"((?:\\\\.|[^\"\\\\\\n])*)\"|`([^`]*)`")
                    .matcher(code)
                    .results()
                    .map(found ->
                            found.group(1) == null ? found.group(2).replaceAll("\\$\\{[^}]*}", "") : found.group(1))
                    .filter(text -> text.contains(" "))
                    .toList();
        }

        Stream<Text> all() {
            var all = new ArrayList<Text>();
            try (Stream<Path> walk = Files.walk(HOME)) {
                walk.filter(file -> !file.toString().matches(".*/(node_modules|target|dist|\\.git)/.*"))
                        .filter(Files::isRegularFile)
                        .forEach(file -> {
                            String name = HOME.relativize(file).toString();
                            if (!files.matcher(name).find() || name.contains(".test.")) return;
                            try {
                                for (String text : texts(Files.readString(file))) all.add(new Text(name, text));
                            } catch (IOException e) {
                                throw new UncheckedIOException(e);
                            }
                        });
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
            return all.stream();
        }
    }

    private static final List<Text> TEXTS =
            Stream.of(Source.values()).flatMap(Source::all).toList();

    static Stream<Replaced> replaced() {
        return REPLACED.stream();
    }

    @ParameterizedTest
    @MethodSource("replaced")
    void noReplacedWordIsRead(Replaced word) {
        List<String> found = TEXTS.stream()
                .filter(each -> !word.in(each.text()).isEmpty())
                .map(each -> each.where() + ": " + each.text().strip())
                .toList();
        assertThat(found).as("say instead: " + word.instead()).isEmpty();
    }
}
