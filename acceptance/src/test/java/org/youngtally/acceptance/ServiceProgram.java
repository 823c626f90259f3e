package org.youngtally.acceptance;

import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.lang.invoke.MethodHandle;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.MethodType;
import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;

/**
 * The service's own jar with its libraries, run within this process: real HTTP and a real disk, without the seconds
 * that a virtual machine takes to start. It sees nothing of the tests' libraries, and is loaded once.
 */
final class ServiceProgram {
    private static final ClassLoader LOADER = loader();
    private static final MethodHandle RUN = load();

    private ServiceProgram() {}

    private static ClassLoader loader() {
        try {
            // The libraries are named in the jar.
            return new URLClassLoader(
                    new URL[] {Service.jar("service").toUri().toURL()}, ClassLoader.getPlatformClassLoader());
        } catch (MalformedURLException e) {
            throw new IllegalStateException(e);
        }
    }

    private static MethodHandle load() {
        try {
            return MethodHandles.lookup()
                    .findStatic(
                            LOADER.loadClass("org.youngtally.service.Main"),
                            "run",
                            MethodType.methodType(
                                    int.class, PrintWriter.class, PrintWriter.class, Consumer.class, String[].class));
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("the service's jar cannot be loaded; it is made by the build", e);
        }
    }

    /**
     * Runs a command to its end.
     *
     * @return its exit code
     */
    static int run(Writer out, Writer err, List<String> arguments) {
        return run(out, err, service -> {}, arguments);
    }

    /**
     * Starts a service.
     *
     * @param said is given what it writes
     * @return what ends it
     * @throws IOException if it did not start
     */
    static AutoCloseable start(Writer said, List<String> arguments) throws IOException {
        var started = new AtomicReference<AutoCloseable>();
        int exit = run(said, said, service -> started.set((AutoCloseable) service), arguments);
        if (exit != 0 || started.get() == null)
            throw new IOException("the service did not start, and left " + exit + ": " + said);
        return started.get();
    }

    private static int run(Writer out, Writer err, Consumer<Object> started, List<String> arguments) {
        Thread thread = Thread.currentThread();
        ClassLoader usual = thread.getContextClassLoader();
        // What is found by the thread's loader is found among the service's classes.
        thread.setContextClassLoader(LOADER);
        try {
            return (int) RUN.invoke(
                    new PrintWriter(out, true), new PrintWriter(err, true), started, arguments.toArray(String[]::new));
        } catch (RuntimeException | Error e) {
            throw e;
        } catch (Throwable e) {
            throw new IllegalStateException(e);
        } finally {
            thread.setContextClassLoader(usual);
        }
    }
}
