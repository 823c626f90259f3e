package org.youngtally.service.demo;

import java.io.IOException;
import java.io.PrintWriter;
import java.net.BindException;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.LifeQueries;
import org.youngtally.printers.SimulatedPrinter;
import org.youngtally.service.Main;
import org.youngtally.service.RunningService;
import org.youngtally.service.ServiceOptions;
import org.youngtally.service.backup.BackupPlan;
import org.youngtally.service.printing.Printers;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParentCommand;
import picocli.CommandLine.Spec;

@Command(
        name = "demo",
        description = "Run the service with the demo data of Larkmoor Organ Works, in March 2026.",
        mixinStandardHelpOptions = true)
public final class DemoCommand implements Callable<Integer> {
    /** The file by which a folder of the demo is known, and keeps its time. */
    public static final String CLOCK = "demo-clock";
    /**
     * The file that says that a folder of the demo has all of its data: what its users did since then stays as it is.
     */
    private static final String FILLED = "demo-filled";

    private static final Logger LOG = LoggerFactory.getLogger(DemoCommand.class);
    /** How long the simulated printer needs for a page. */
    private static final long PAGE_MILLIS = 40;

    private static final int MOST_HOLDS = 1_000;

    @Mixin
    private ServiceOptions options;

    @Option(
            names = "--data",
            paramLabel = "FOLDER",
            description =
                    "Keep the demo's data in this folder (YOUNGTALLY_DATA; default: a temporary folder, deleted at the end).",
            defaultValue = "${env:YOUNGTALLY_DATA}")
    private String data;

    @Option(names = "--once", description = "Do the main job once, print each step, and stop.")
    private boolean once;

    @Spec
    private CommandSpec spec;

    @ParentCommand
    private Main main;

    @Override
    public Integer call() throws IOException, NoSuchAlgorithmException, InterruptedException {
        if (!InetAddress.getByName(options.address()).isLoopbackAddress())
            throw new IOException("--address: " + options.address()
                    + " can be reached from elsewhere, and the passwords of the demo are public. Use 127.0.0.1.");
        boolean passing = data == null || data.isEmpty();
        Path folder = passing ? Files.createTempDirectory("youngtally-demo") : Path.of(data);
        Files.createDirectories(folder);
        // What is shown is the same each time, the codes that nobody can guess among it.
        Secrets.keep(
                folder,
                MessageDigest.getInstance("SHA-256").digest("Larkmoor Organ Works".getBytes(StandardCharsets.UTF_8)));
        Clock clock = DemoClock.of(folder, options.zone());
        SimulatedPrinter printer = printer(once ? 0 : options.port());
        RunningService service = RunningService.start(
                LedgerOptions.in(folder).withZone(options.zone()).withClock(clock),
                options.address(),
                once ? 0 : options.port(),
                false,
                Printers.simulated(printer),
                BackupPlan.NONE,
                () -> {
                    printer.close();
                    if (passing) remove(folder);
                });
        if (!once) main.started(service);
        PrintWriter out = spec.commandLine().getOut();
        // The demo's clock is its own, and goes on where it was left.
        service.ledger().confirmDate(service.ledger().today());
        var accounts = new DemoAccounts(service.ledger());
        accounts.openFirst();
        var client = new DemoClient(service.address());
        if (once) {
            boolean passed = new DemoSteps(accounts, client, out).run();
            service.close();
            return passed ? 0 : 1;
        }
        service.ledger().status().opening().forEach(out::println);
        Path filled = folder.resolve(FILLED);
        if (!Files.exists(filled)) {
            fill(service.ledger(), accounts, client);
            Files.createFile(filled);
        }
        welcome(service, accounts, out);
        return 0;
    }

    /** The printer that is not there, at the port behind the service's own where that is free. */
    private static SimulatedPrinter printer(int port) throws IOException {
        try {
            return SimulatedPrinter.start(port == 0 ? 0 : port + 1, PAGE_MILLIS);
        } catch (BindException e) {
            LOG.debug("the port behind the service's own is in use", e);
            return SimulatedPrinter.start(0, PAGE_MILLIS);
        }
    }

    /** The demo's data; what an earlier start that was ended in the middle has done already is not done again. */
    private static void fill(Ledger ledger, DemoAccounts accounts, DemoClient client)
            throws IOException, InterruptedException {
        if (ledger.snapshot().series().isEmpty())
            client.apply(DemoAccounts.FIRST, "larkmoor.yaml", DemoFiles.text("larkmoor.yaml"));
        accounts.openOthers();
        for (DemoFiles.Taking taking : DemoFiles.takings())
            client.allocate(
                    taking.by(),
                    taking.series(),
                    taking.quantity(),
                    taking.date(),
                    taking.reference(),
                    taking.fields(),
                    "demo-" + taking.line());
        perform(client, DemoFiles.deeds(), "demo-act-");
        // The entries have the same numbers each time: the hold among them lapses before anything else is done.
        awaitLapse(ledger);
        perform(client, DemoFiles.records(), "demo-record-");
    }

    private static void perform(DemoClient client, List<DemoFiles.Deed> deeds, String key) {
        for (int i = 0; i < deeds.size(); i++) client.act(deeds.get(i), key + (i + 1));
    }

    private static void awaitLapse(Ledger ledger) throws InterruptedException {
        var lapsed = new CountDownLatch(1);
        ledger.onEntries(entries -> {
            if (entries.stream().anyMatch(entry -> entry.kind() == Entry.Kind.LAPSE)) lapsed.countDown();
        });
        // It may have lapsed before anybody listened.
        if (ledger.read(dsl -> new LifeQueries(dsl).holds(Optional.of(List.of("contract")), MOST_HOLDS)).stream()
                .noneMatch(hold -> hold.entry().reference().equals(Optional.of("Draft for the town hall")))) return;
        if (!lapsed.await(1, TimeUnit.MINUTES)) throw new IllegalStateException("the hold of the demo did not lapse");
    }

    private static void welcome(RunningService service, DemoAccounts accounts, PrintWriter out) {
        String at = service.port() == ServiceOptions.DEFAULT_PORT ? "" : " --service " + service.address();
        out.println("Young Tally runs with the demo data of Larkmoor Organ Works, in March 2026.");
        out.println();
        out.println("  console   " + service.address() + "  sign in as " + DemoAccounts.FIRST + ", password "
                + DemoAccounts.password(DemoAccounts.FIRST));
        out.println("  shell     export YOUNGTALLY_TOKEN=" + DemoAccounts.token(DemoAccounts.FIRST));
        for (String command : List.of("series list", "allocate invoice-works --reference ORDER-890", "audit"))
            out.println("  try       ./youngtally " + command + at);
        out.println("  printer   "
                + service.context().getBean(Printers.class).addresses().getFirst() + "  simulated, for labels");
        out.println();
        out.println("Other accounts: " + String.join(", ", accounts.others())
                + ". The password of each is larkmoor-NAME, the token tally-demo-NAME.");
        out.println("Stop it with Control-C.");
    }

    /** Takes the demo's own folder away, once the service has let go of it. */
    private static void remove(Path folder) {
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
        } catch (IOException e) {
            System.err.println("The demo's folder " + folder + " could not be deleted: " + e.getMessage());
        }
    }
}
