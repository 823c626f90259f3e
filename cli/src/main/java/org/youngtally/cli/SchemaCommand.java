package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "schema",
        description = "Print the JSON Schema of definition files, for editors.",
        mixinStandardHelpOptions = true)
final class SchemaCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Override
    public Integer call() {
        output.line(service.get("/definition-schema").text().strip());
        return Main.DONE;
    }
}
