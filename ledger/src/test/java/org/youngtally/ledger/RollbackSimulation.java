package org.youngtally.ledger;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.stream.LongStream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.copy.CopyPolicy;
import org.youngtally.ledger.copy.TwinDisk;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.JournalSync;
import org.youngtally.ledger.receipt.Epoch;
import org.youngtally.ledger.receipt.Receipt;
import org.youngtally.ledger.receipt.Receipts;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.simulation.Family;
import org.youngtally.ledger.simulation.MemoryDisk;
import org.youngtally.ledger.simulation.MemoryDisk.Crash;
import org.youngtally.ledger.store.Store;

/**
 * One seeded run in which copies of the journal are taken at any step, in the middle of a write too, and put back at
 * any later one. What people hold on paper is kept apart, and outlives every copy that is put back: no text may come to
 * two of them, unless the first has given it back to the very ledger that issues it again.
 */
final class RollbackSimulation {
    private static final int COPIES = 3;

    private final Random random;
    private final Secrets secrets;
    private final boolean twin;
    private final boolean stating;
    private final List<MemoryDisk> copies = new ArrayList<>();
    private final byte[] key = new byte[32];
    /** By each text that is on paper, the act it was taken for. */
    private final Map<String, Integer> holders = new HashMap<>();
    /** What stood last at each position, by its lane. */
    private final Map<String, String> printed = new HashMap<>();
    /** What the administrator reads off the papers: of each lane the highest. */
    private final Map<LaneKey, Act.HighestIn> paper = new HashMap<>();
    /** The number of a lane is not the same in each copy. */
    private final Map<Integer, LaneKey> lanes = new HashMap<>();

    private MemoryDisk main;
    private MemoryDisk second;
    private Disk disk;
    private Store store;
    private Journal journal;
    private BatchWork work;
    private Receipts receipts;
    private Instant now = Instant.parse("2026-03-02T09:00:00Z");
    private int generation;
    /** The last entry of which it is known here what it gave back. */
    private long seen;

    private int acts;
    private int putBack;

    /** @param stating whether it is stated what is on paper when a copy is put back, as it must be */
    RollbackSimulation(long seed, Path folder, boolean stating) throws IOException {
        random = new Random(seed);
        secrets = Secrets.in(folder);
        twin = seed % 4 == 0;
        this.stating = stating;
        main = new MemoryDisk(new Random(seed + 1), true);
        second = new MemoryDisk(new Random(seed + 2), true);
        random.nextBytes(key);
    }

    int putBack() {
        return putBack;
    }

    void run(int most) throws IOException, SQLException, JournalBroken {
        open(false);
        for (Family family : Family.ALL) perform(family.define(family.key()));
        while (acts < most) {
            acts++;
            now = now.plusSeconds(random.nextInt(200));
            if (copies.size() < COPIES && random.nextInt(20) == 0) main.copyAfter(random.nextInt(8));
            if (random.nextInt(40) == 0) main.dieAfter(random.nextInt(8));
            try {
                work.lapse();
                if (work.stopped().isEmpty()) act();
                if (!work.stopped().isEmpty()) throw new Crash();
            } catch (Crash dead) {
                restart();
            }
            main.taken().ifPresent(copies::add);
            if (!copies.isEmpty() && random.nextInt(60) == 0) putBack(copies.remove(random.nextInt(copies.size())));
        }
        main.live();
        restart();
        audit();
        store.abandon();
    }

    private void open(boolean machineWentDown) throws IOException, JournalBroken, SQLException {
        disk = main;
        if (twin) {
            JournalSync.run(main, second, machineWentDown, Optional.empty());
            disk = new TwinDisk(main, second, "the copy", CopyPolicy.STOP);
        }
        if (store == null)
            store = Store.open("jdbc:h2:mem:rollback-" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1", secrets);
        journal = Journal.open(disk, 0, machineWentDown);
        lanes.clear();
        NavigableMap<Long, String> epochs = new TreeMap<>();
        Journal.read(disk, 0, journal.head().seq(), (entry, head) -> {
            learn(entry);
            if (entry.seq() > seen) written(entry);
            for (Effect effect : entry.effects())
                if (effect instanceof Effect.EpochBegun begun) epochs.put(entry.seq(), begun.epoch());
        });
        Replay.run(disk, journal.head(), store);
        receipts = new Receipts(
                key, Journal.headAt(disk, 1).map(Head::hash), journal.head().seq(), epochs);
        work = new BatchWork(
                journal,
                store,
                new SteadyClock(
                        () -> now, () -> Duration.between(Instant.EPOCH, now).toNanos()),
                ZoneOffset.UTC,
                (failedJournal, failed) -> {
                    throw new IOException("nothing fails on this disk but by its death");
                },
                entries -> {
                    receipts.forced(entries, firstHash(entries));
                    entries.forEach(this::written);
                    main.step();
                },
                (callers, answers) -> {
                    answers.run();
                    // The tables are committed behind the answer.
                    main.step();
                },
                DiskGuard.NONE,
                Epoch.fresh(generation).toString());
    }

    private Optional<String> firstHash(List<Entry> entries) {
        try {
            return entries.getFirst().seq() == 1 ? Journal.headAt(disk, 1).map(Head::hash) : Optional.empty();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private void learn(Entry entry) {
        for (Effect effect : entry.effects())
            if (effect instanceof Effect.LaneOpened opened) lanes.put(opened.lane(), opened.key());
    }

    private void restart() throws IOException, SQLException, JournalBroken {
        main.live();
        main.forgetCopy();
        boolean powerCut = random.nextInt(3) == 0;
        if (powerCut) {
            main.cutPower();
            second.cutPower();
            store.abandon();
            store = null;
        } else store.rollback();
        open(powerCut);
    }

    /** An older copy takes the place of the newest; with a second journal nothing is lost by it. */
    private void putBack(MemoryDisk older) throws IOException, SQLException, JournalBroken {
        putBack++;
        Optional<Receipt> newest = receipts.newest();
        Head lost = journal.head();
        main = older;
        store.abandon();
        store = null;
        // What the copy has was seen when it was written.
        long before = seen;
        seen = Long.MAX_VALUE;
        open(true);
        seen = twin ? before : journal.head().seq();
        if (twin) {
            if (journal.head().seq() < lost.seq())
                throw new Simulation.Wrong("the copy had " + lost + ", and the journal ends at " + journal.head());
            return;
        }
        // A copy may be older, or of a state that was lost before.
        boolean behind = !Journal.headAt(disk, lost.seq()).equals(Optional.of(lost));
        boolean told = newest.isPresent() && receipts.meaning(newest.get()) == Receipts.Meaning.BEYOND;
        if (behind != told)
            throw new Simulation.Wrong("a receipt of entry " + lost.seq() + " at entry "
                    + journal.head().seq() + " means " + receipts.meaning(newest.orElseThrow()));
        if (!behind || !stating) return;
        generation++;
        Map<String, Series> series = work.committedSnapshot().series();
        for (Family family : Family.ALL)
            if (series.containsKey(family.key())) perform(stated(series.get(family.key())));
            else perform(family.define(family.key()));
        // One that the copy does not know has numbers on paper all the same.
        for (Family family : Family.ALL)
            if (!series.containsKey(family.key()))
                perform(stated(work.committedSnapshot().series().get(family.key())));
        perform(new Act.Resume(Epoch.fresh(generation).toString(), Optional.of("all is stated"), mark()));
        audit();
    }

    private Act<?> stated(Series series) {
        return new Act.StateHighest(
                series.key(),
                series.version(),
                paper.values().stream()
                        .filter(highest -> highest.lane().series().equals(series.key()))
                        .toList(),
                Optional.of("what is on paper"),
                mark());
    }

    private static RequestMark mark() {
        return new RequestMark("ines", Optional.empty(), "digest");
    }

    private void act() {
        Family family = Family.ALL.get(random.nextInt(Family.ALL.size()));
        LocalDate date = LocalDate.ofInstant(now, ZoneOffset.UTC).plusDays(random.nextInt(500) - 250L);
        int sort = random.nextInt(10);
        if (sort < 5 || holders.isEmpty()) take(family, date, sort);
        else settle(sort);
    }

    private void take(Family family, LocalDate date, int sort) {
        Act.Form form = family.typed().equals("required")
                ? new Act.Form.Typed(family.text(date, 1 + random.nextInt(60)))
                : sort == 0
                        ? new Act.Form.Held(Duration.ofSeconds(1 + random.nextInt(2_000)))
                        : sort == 1 ? Act.Form.BLOCK : Act.Form.SINGLES;
        perform(new Act.Allocate(
                family.key(),
                Optional.of(date),
                form instanceof Act.Form.Typed ? 1 : 1 + random.nextInt(4),
                form,
                Optional.empty(),
                mark()));
    }

    /** Somebody does something with a number that they hold, or held in a state that is lost by now. */
    private void settle(int sort) {
        List<String> texts = List.copyOf(holders.keySet());
        String text = texts.get(random.nextInt(texts.size()));
        Family family = Family.ALL.stream()
                .filter(each -> each.pattern().charAt(0) == text.charAt(0))
                .findFirst()
                .orElseThrow();
        Act.Deed deed = sort < 8
                ? Act.Deed.RETURN
                : sort == 8 ? random.nextBoolean() ? Act.Deed.RELEASE : Act.Deed.CONFIRM : Act.Deed.VOID;
        perform(new Act.Settle(
                family.key(), new Selection.Identifiers(List.of(text)), deed, Optional.of("no use"), mark()));
    }

    private void perform(Act<?> act) {
        if (random.nextBoolean()) work.commitBehind();
        var waiting = new BatchWork.Waiting(act, "ines", new CompletableFuture<>());
        work.serve(List.of(waiting));
        try {
            if (waiting.answer().join() instanceof BatchWork.Result.Done done
                    && done.entry().isPresent()) happened(done.entry().get());
        } catch (CompletionException died) {
            throw new Crash();
        }
    }

    /** What is given back is nobody's any more, whether that was answered or not. */
    private void written(Entry entry) {
        seen = entry.seq();
        learn(entry);
        for (Effect effect : entry.effects())
            if (effect instanceof Effect.Settled settled && settled.now() == PositionState.RETURNED)
                for (long position = settled.from(); position <= settled.to(); position++)
                    holders.remove(printed.get(lanes.get(settled.lane()) + " " + position));
    }

    /** What was answered is on paper. */
    private void happened(Entry entry) {
        for (Effect effect : entry.effects())
            switch (effect) {
                case Effect.Issued issued
                when issued.manner().preexisting().isEmpty() -> {
                    List<String> texts = texts(issued);
                    for (int i = 0; i < texts.size(); i++)
                        printed.put(lanes.get(issued.lane()) + " " + (issued.from() + i), texts.get(i));
                    for (String text : texts) {
                        if (holders.containsKey(text))
                            throw new Simulation.Wrong(text + " was issued by entry " + entry.seq() + ", and act "
                                    + holders.get(text) + " has it on paper");
                        holders.put(text, acts);
                    }
                    LaneKey lane = lanes.get(issued.lane());
                    var highest = new Act.HighestIn(lane, issued.particulars(), issued.to());
                    paper.merge(lane, highest, (one, other) -> one.highest() >= other.highest() ? one : other);
                }
                default -> {}
            }
    }

    private List<String> texts(Effect.Issued issued) {
        if (!issued.isBlock()) return issued.texts();
        LaneKey lane = lanes.get(issued.lane());
        Series series = work.committedSnapshot().series().get(lane.series());
        Range range = series.range(lane.range()).orElseThrow();
        Particulars particulars = issued.particulars();
        return LongStream.rangeClosed(issued.from(), issued.to())
                .mapToObj(position -> series.render(range, particulars, position))
                .toList();
    }

    private void audit() {
        work.commitBehind();
        AuditReport report = store.read(dsl -> Audit.of(disk, dsl, Optional.empty(), Head.EMPTY));
        if (!report.passed()) throw new Simulation.Wrong("the audit finds " + report.findings());
    }
}
