package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "void",
        description = "Void numbers, with a reason: they are never issued again.",
        mixinStandardHelpOptions = true)
final class VoidCommand implements Callable<Integer> {
    @Mixin
    private SettlingOptions settling;

    @Override
    public Integer call() {
        return settling.settle("voids", "void");
    }
}
