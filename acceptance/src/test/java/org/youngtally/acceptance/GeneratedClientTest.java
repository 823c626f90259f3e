package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A day's work by clients that a generator made of the description of the interface, as they come from it: their
 * programs are in src/test/clients.
 */
class GeneratedClientTest {
    private static final Path GENERATOR = Path.of("target", "tools", "openapi-generator-cli.jar");
    private static final Path DESCRIPTION = Path.of("..", "console", "openapi.json");
    private static final Path PROGRAMS = Path.of("src", "test", "clients");
    private static final Path TYPESCRIPT = Path.of("..", "console", "node_modules", "typescript", "bin", "tsc");
    /** Debian's, for which Debian has the packages. */
    private static final String PYTHON = "/usr/bin/python3";

    private static Service service;

    @TempDir
    private Path folder;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    /** @param mark the series that the program defines, without its digits */
    private static List<String> day(String mark) {
        return List.of(
                "token",
                "defined " + mark + "{count 3}",
                "allocated 201 [" + mark + "001] 2026-03-02",
                "allocated 200 [" + mark + "001] 2026-03-02",
                "confirmed issued",
                "voided 1",
                "found void (voided)",
                "audited []",
                "record component",
                "file true",
                "table WC-PA-0000,a,WC,PA 3");
    }

    private static List<String> run(Path in, Stream<String> command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command.toList())
                .directory(in.toFile())
                .redirectErrorStream(true)
                .start();
        var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(said).isZero();
        return said.lines().toList();
    }

    private Path generated(String generator, String... properties) throws Exception {
        Path client = folder.resolve("generated");
        run(
                Path.of("."),
                Stream.of(
                        Service.JAVA.toString(),
                        "-XX:+UseSerialGC",
                        "-XX:TieredStopAtLevel=1",
                        "-jar",
                        GENERATOR.toString(),
                        "generate",
                        "-i",
                        DESCRIPTION.toString(),
                        "-g",
                        generator,
                        "-o",
                        client.toString(),
                        "--additional-properties",
                        String.join(",", properties)));
        return client;
    }

    private static Stream<String> arguments(Path folder) {
        return Stream.of("http://127.0.0.1:" + service.port(), Service.demoToken("hanna"), folder.toString());
    }

    @Test
    void theOneInJavaWorks() throws Exception {
        Path client = generated("java", "useJakartaEe=true");
        Path classes = Files.createDirectory(folder.resolve("classes"));
        String libraries = System.getProperty("java.class.path");
        List<Path> sources;
        try (Stream<Path> all = Files.walk(client.resolve("src/main/java"))) {
            sources = Stream.concat(
                            all.filter(file -> file.toString().endsWith(".java")),
                            Stream.of(PROGRAMS.resolve("Client.java")))
                    .toList();
        }
        var compiler = ToolProvider.getSystemJavaCompiler();
        try (var files = compiler.getStandardFileManager(null, null, null)) {
            assertThat(compiler.getTask(
                                    null,
                                    files,
                                    null,
                                    List.of("-proc:none", "-nowarn", "-d", classes.toString(), "-cp", libraries),
                                    null,
                                    files.getJavaFileObjectsFromPaths(sources))
                            .call())
                    .isTrue();
        }
        assertThat(run(
                        Path.of("."),
                        Stream.concat(
                                Stream.of(Service.JAVA.toString(), "-cp", classes + ":" + libraries, "Client"),
                                arguments(folder))))
                .isEqualTo(day("JM"));
    }

    @Test
    void theOneInTypeScriptWorks() throws Exception {
        generated("typescript-fetch", "importFileExtension=.js");
        Files.copy(PROGRAMS.resolve("client.ts"), folder.resolve("client.ts"));
        Files.writeString(folder.resolve("package.json"), "{\"type\":\"module\"}");
        run(
                folder,
                Stream.of(
                        "node",
                        TYPESCRIPT.toAbsolutePath().toString(),
                        "--target",
                        "ES2022",
                        "--module",
                        "NodeNext",
                        "--strict",
                        "--lib",
                        "ES2022,DOM,DOM.Iterable",
                        "--outDir",
                        "out",
                        "client.ts"));
        assertThat(run(folder, Stream.concat(Stream.of("node", "out/client.js"), arguments(folder))))
                .isEqualTo(day("TM"));
    }

    @Test
    void theOneInPythonWorks() throws Exception {
        String pydantic = run(Path.of("."), Stream.of(PYTHON, "-c", "import pydantic; print(pydantic.VERSION)"))
                .getFirst();
        Path client = generated(pydantic.startsWith("1.") ? "python-pydantic-v1" : "python", "");
        assertThat(run(
                        client,
                        Stream.concat(
                                Stream.of(
                                        "env",
                                        "PYTHONPATH=.",
                                        PYTHON,
                                        PROGRAMS.resolve("client.py")
                                                .toAbsolutePath()
                                                .toString()),
                                arguments(folder))))
                .isEqualTo(day("PM"));
    }
}
