package org.youngtally.cli;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(name = "release", description = "Release held numbers.", mixinStandardHelpOptions = true)
final class ReleaseCommand implements Callable<Integer> {
    @Mixin
    private SettlingOptions settling;

    @Override
    public Integer call() {
        return settling.settle("releases", "released");
    }
}
