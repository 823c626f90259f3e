package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(name = "confirm", description = "Confirm held numbers: they are issued.", mixinStandardHelpOptions = true)
final class ConfirmCommand implements Callable<Integer> {
    @Mixin
    private SettlingOptions settling;

    @Override
    public Integer call() {
        return settling.settle("confirmations", "confirmed");
    }
}
