package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(name = "return", description = "Return issued numbers that are not in use.", mixinStandardHelpOptions = true)
final class ReturnCommand implements Callable<Integer> {
    @Mixin
    private SettlingOptions settling;

    @Override
    public Integer call() {
        return settling.settle("returns", "returned");
    }
}
