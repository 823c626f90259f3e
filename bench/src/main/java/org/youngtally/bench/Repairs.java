package org.youngtally.bench;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.repair.Choices;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Rewriting;
import org.youngtally.documents.table.TableFile;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerOptions;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.service.table.PlanCarrying;
import org.youngtally.service.table.PlanFile;
import org.youngtally.service.table.RepairOptions;
import org.youngtally.service.table.TablePlanning;

/** A table from before, planned and carried out on a ledger of its own, while somebody else allocates. */
final class Repairs {
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);
    private static final String DIGEST = "0123456789abcdef".repeat(4);
    private static final RequestMark MARK = new RequestMark("bench", Optional.empty(), "bench");

    private final Path table;
    private final Path data;
    private Ledger ledger;

    Repairs(Path table, Path data) {
        this.table = table;
        this.data = data;
    }

    void measure() throws IOException, UnreadableDocument {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> Instant.parse("2026-03-02T10:00:00Z")))) {
            ledger = opened;
            ledger.perform(
                    new Act.Define(List.of(Tables.invoices("invoice"), Tables.invoices("other")), Optional.empty()),
                    "bench");
            double read = Tables.seconds(() -> open().read((line, cells) -> true));
            Path file = data.resolveSibling("plan.json");
            double planned = Tables.seconds(() -> plan(file));
            System.out.printf("| the same, planned | %.2f | %.1f × read |%n", planned, planned / read);
            PlanFile plan;
            try (InputStream in = Files.newInputStream(file)) {
                plan = PlanFile.read(in);
            }
            double alone = slow(waits(2_000, new AtomicBoolean()));
            var done = new AtomicBoolean();
            var meanwhile = new ArrayList<Long>();
            var other = Thread.ofPlatform().start(() -> meanwhile.addAll(waits(Integer.MAX_VALUE, done)));
            double carried = Tables.seconds(() -> carryOut(plan));
            done.set(true);
            other.join();
            double busy = slow(meanwhile);
            System.out.printf("| the same, carried out and written | %.2f | %.1f × read |%n", carried, carried / read);
            System.out.printf(
                    "| what 99 of 100 allocations of another series wait during that, ms | %.1f | %.1f × alone |%n",
                    busy / 1e6, busy / alone);
            if (!Audit.of(ledger, Optional.empty(), Head.EMPTY).passed())
                throw new IllegalStateException("the audit does not pass");
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    private TableFile open() throws IOException, UnreadableDocument {
        return TableFile.open(table, table.getFileName().toString(), Optional.empty());
    }

    private void plan(Path to) throws IOException, UnreadableDocument {
        var options = new RepairOptions(
                "invoices.csv",
                Optional.empty(),
                Optional.of("number"),
                Optional.empty(),
                Map.of(),
                TablePlan.Gaps.KEEP,
                Choices.Keep.FIRST,
                List.of(),
                TODAY);
        var planning =
                new TablePlanning(ledger.snapshot(), ledger.snapshot().series().get("invoice"), options, open(), TODAY);
        ledger.read(dsl -> {
            try {
                planning.write(dsl, table, DIGEST, to);
                return null;
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (UnreadableDocument e) {
                throw new IllegalStateException(e);
            }
        });
    }

    private void carryOut(PlanFile plan) throws IOException, UnreadableDocument {
        var carrying = new PlanCarrying(ledger, plan, DIGEST, MARK);
        long seq = carrying.begin(Optional.empty());
        carrying.carryOut(seq, done -> {});
        Map<Long, String> texts = carrying.texts(seq);
        try (OutputStream out = Files.newOutputStream(data.resolveSibling("repaired.csv"))) {
            open().rewrite(new Rewriting(0, line -> Optional.ofNullable(texts.get(line)), Optional.empty()), out);
        }
    }

    /** Allocates one number after another. @return how long each took, in nanoseconds */
    private List<Long> waits(int most, AtomicBoolean stop) {
        var waits = new ArrayList<Long>();
        while (waits.size() < most && !stop.get()) {
            long begin = System.nanoTime();
            if (!(ledger.perform(
                            new Act.Allocate("other", Optional.of(TODAY), 1, Act.Form.SINGLES, Optional.empty(), MARK),
                            "somebody")
                    instanceof Outcome.Taken)) throw new IllegalStateException("nothing was allocated");
            waits.add(System.nanoTime() - begin);
        }
        return waits;
    }

    /** What 99 of 100 stay below. */
    private static double slow(List<Long> waits) {
        Collections.sort(waits);
        return waits.get(waits.size() * 99 / 100);
    }

    /** Removes a folder with all that is in it. */
    static void clear(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted(Comparator.reverseOrder()).toList()) Files.delete(each);
        }
    }
}
