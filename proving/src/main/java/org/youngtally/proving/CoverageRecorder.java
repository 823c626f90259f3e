package org.youngtally.proving;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jacoco.agent.rt.RT;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/**
 * Writes what each class of tests ran, into a file of its own in the folder {@code proof.coverage}: the data of the
 * coverage agent, which counts from nought for the next class. Without the folder it does nothing.
 */
public final class CoverageRecorder implements TestExecutionListener {
    /** The ending of its files; the name before it is that of the class of tests. */
    static final String ENDING = ".exec";

    private final String folder = System.getProperty("proof.coverage", "");

    @Override
    public void testPlanExecutionStarted(TestPlan plan) {
        // What ran before belongs to no test.
        if (!folder.isEmpty()) RT.getAgent().reset();
    }

    @Override
    public void executionFinished(TestIdentifier identifier, TestExecutionResult result) {
        if (folder.isEmpty() || !(identifier.getSource().orElse(null) instanceof ClassSource source)) return;
        String name = source.getClassName();
        // A class within another is a part of its tests.
        if (name.contains("$")) return;
        try {
            Path file = Files.createDirectories(Path.of(folder)).resolve(name + ENDING);
            Files.write(file, RT.getAgent().getExecutionData(true));
        } catch (IOException e) {
            throw new UncheckedIOException("what " + name + " ran could not be kept", e);
        }
    }
}
