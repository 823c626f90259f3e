package org.youngtally.ledger;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.SeriesStanding;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Checkpoint;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.receipt.Epoch;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.simulation.Family;
import org.youngtally.ledger.simulation.Labels;
import org.youngtally.ledger.simulation.MemoryDisk;
import org.youngtally.ledger.simulation.MemoryDisk.Crash;
import org.youngtally.ledger.simulation.Model;
import org.youngtally.ledger.simulation.Model.Answer;
import org.youngtally.ledger.simulation.Model.Place;
import org.youngtally.ledger.simulation.Requests;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.ledger.store.Store;

/**
 * One seeded run of the ledger on a simulated machine: batches of random acts, with jumps of the clock, repeated
 * requests, and deaths of the process and of the machine between any two steps. Every answer is held against the
 * {@link Model}, and after each restart every position of the tables is. It runs in one thread, so that a seed gives
 * the same run each time.
 */
final class Simulation {
    /** What was found wrong. */
    static final class Wrong extends RuntimeException {
        private static final long serialVersionUID = 1L;

        Wrong(String what) {
            super(what);
        }
    }

    /** An entry that the model knows of: enough to bring a new model to where it was. */
    private record Done(Act<?> act, Family family, Instant now, long seq) {}

    private final Random random;
    private final MemoryDisk disk;
    private final Secrets secrets;
    private final Requests requests;
    private final List<Done> done = new ArrayList<>();
    private final List<Checkpoint> checkpoints = new ArrayList<>();
    private final long segmentBytes;
    /**
     * Who holds each text: an entry; negative once it is void. Kept apart from the model, for the first promise alone.
     */
    private final Map<String, Long> holders = new HashMap<>();

    private Model model = new Model();
    private Instant now = Instant.parse("2026-03-02T09:00:00Z");
    private long nanos;
    private long jumpedAt;
    private boolean jumped;
    private boolean machineWentDown;
    private Journal journal;
    private Store store;
    private BatchWork work;
    private long answered;
    private int acts;
    private int restarts;

    Simulation(long seed, Path folder, boolean forcing) throws IOException {
        random = new Random(seed);
        segmentBytes = 2_000L << new Random(seed + 2).nextInt(12);
        disk = new MemoryDisk(new Random(seed + 1), forcing);
        secrets = Secrets.in(folder);
        requests = new Requests(random);
    }

    int restarts() {
        return restarts;
    }

    int acts() {
        return acts;
    }

    /** @param most how many acts at the least */
    void run(int most) throws IOException, SQLException, JournalBroken {
        store = Store.open("jdbc:h2:mem:sim-" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1", secrets);
        open();
        for (Family family : Family.ALL) serve(List.of(new Step(family.define(family.key()), family, "ines")));
        while (acts < most) {
            // A few deaths a run, at any step of some batch.
            if (random.nextInt(most) < 50) disk.dieAfter(random.nextInt(14));
            try {
                tick();
                batch();
            } catch (Crash crash) {
                if (!disk.isDead()) throw new Wrong("the ledger stopped by itself: " + work.stopped());
                restart();
            }
        }
        disk.live();
        restart();
        store.abandon();
        journal.close();
    }

    private void open() throws IOException, JournalBroken, SQLException {
        Optional<Checkpoint> proved = machineWentDown ? Optional.empty() : checkpoint();
        journal = Journal.open(disk, answered, machineWentDown, proved, segmentBytes);
        Replay.run(disk, journal.head(), proved.filter(each -> each.head().equals(journal.provedFrom())), store);
        work = new BatchWork(
                journal,
                store,
                new SteadyClock(
                        () -> {
                            disk.step();
                            return now;
                        },
                        () -> nanos),
                ZoneOffset.UTC,
                (failedJournal, failed) -> {
                    throw new IOException("nothing fails on this disk but by its death");
                },
                entries -> disk.step(),
                (callers, answers) -> {
                    answers.run();
                    // The tables are committed behind the answer.
                    disk.step();
                },
                DiskGuard.NONE,
                Epoch.fresh(0).toString());
        jumped = false;
        machineWentDown = false;
    }

    /** Any that was noted may be the newest one that is left, since they are not forced; or none. */
    private Optional<Checkpoint> checkpoint() {
        checkpoints.removeIf(each -> random.nextInt(4) == 0);
        return checkpoints.isEmpty() ? Optional.empty() : Optional.of(checkpoints.getLast());
    }

    /** The process or the machine dies and is started again, perhaps to die once more while it starts. */
    private void restart() throws IOException, SQLException, JournalBroken {
        restarts++;
        boolean powerCut = random.nextInt(3) == 0;
        // Until a start has come through, the journal may be torn.
        machineWentDown |= powerCut;
        disk.live();
        if (powerCut) {
            disk.cutPower();
            store.abandon();
            store = Store.open("jdbc:h2:mem:sim-" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1", secrets);
        } else {
            store.rollback();
        }
        now = now.plusSeconds(random.nextInt(600));
        if (random.nextInt(4) == 0) disk.dieAfter(random.nextInt(6));
        try {
            open();
        } catch (Crash again) {
            restart();
            return;
        }
        disk.live();
        remember(journal.head().seq());
        check();
    }

    /** Brings the model to what is on disk: all that was answered, and of the last batch all or nothing. */
    private void remember(long head) {
        if (head < answered) throw new Wrong("entry " + answered + " was answered, and the journal ends at " + head);
        model = new Model();
        done.removeIf(each -> each.seq() > head);
        for (Done each : done) perform(each.act(), each.family(), each.now());
        if (model.seq != head)
            throw new Wrong("the journal holds " + head + " entries, and the model comes to " + model.seq);
        holders.clear();
        for (Place place : model.all()) holders.put(place.text, place.state.isVoid() ? -1 : place.taken);
    }

    private Answer perform(Act<?> act, Family family, Instant at) {
        if (family == null) return model.perform(act, at);
        model.define(family);
        return new Answer("", model.seq, false, List.of(), 0);
    }

    private void tick() {
        long seconds = random.nextInt(20);
        nanos += seconds * 1_000_000_000L;
        now = now.plusSeconds(seconds);
        if (random.nextInt(200) != 0) return;
        now = now.plus(Duration.ofHours((1 + random.nextInt(99)) * (random.nextBoolean() ? 1 : -1)));
        jumped = true;
        jumpedAt = nanos;
    }

    /**
     * One act of a batch.
     *
     * @param family what it defines
     */
    private record Step(Act<?> act, Family family, String by) {}

    private void batch() {
        var steps = new ArrayList<Step>();
        int size = 1 + random.nextInt(random.nextBoolean() ? 6 : 60);
        for (int i = 0; i < size; i++) {
            Act<?> act = requests.next(model, now);
            acts++;
            if (act instanceof Act.Define && random.nextInt(6) == 0) {
                steps.add(new Step(Family.ALL.getFirst().twin(), null, "ines"));
            } else if (act instanceof Act.Define) {
                Family family = Family.ALL.get(random.nextInt(Family.ALL.size()));
                family = family.key().equals("loose") ? family.withGaps(random.nextBoolean()) : family;
                steps.add(new Step(family.define("title " + acts), family, "ines"));
            } else {
                steps.add(new Step(act, null, act.known().orElseThrow().account()));
            }
        }
        lapse();
        serve(steps);
        if (random.nextInt(8) == 0) plan();
    }

    /** A plan for a table rests on how the series stands: it is begun by itself. */
    private void plan() {
        lapse();
        LedgerSnapshot stands = work.committedSnapshot();
        Act<?> plan = requests.plan(
                model,
                now,
                series -> SeriesStanding.of(stands.counters(), stands.series().get(series)));
        acts++;
        serve(List.of(new Step(plan, null, plan.known().orElseThrow().account())));
    }

    private void lapse() {
        boolean steady = !jumped || nanos - jumpedAt >= SteadyClock.WAIT.toNanos();
        boolean due = model.isDue(now);
        long before = work.head().seq();
        Act<?> lapse = new Act.Lapse(now);
        // What is told of it before it is answered: a death may leave it done.
        if (steady && due) done.add(new Done(lapse, null, now, before + 1));
        work.lapse();
        if (!work.stopped().isEmpty()) throw new Crash();
        if (work.head().seq() != before + (steady && due ? 1 : 0))
            throw new Wrong("holds " + (steady && due ? "did not lapse" : "lapsed") + " at " + now
                    + (steady ? "" : ", while the clock was not steady"));
        if (!steady || !due) return;
        model.perform(lapse, now);
        answered = model.seq;
        voidHolders();
    }

    private void voidHolders() {
        for (Place place : model.all()) if (place.state.isVoid()) holders.put(place.text, -1L);
    }

    private void serve(List<Step> steps) {
        var waiting = new ArrayList<BatchWork.Waiting>();
        for (Step step : steps) waiting.add(new BatchWork.Waiting(step.act(), step.by(), new CompletableFuture<>()));
        // What the model expects is worked out before, so that it is known what a batch would come to that dies
        // half-way.
        var expected = new ArrayList<Answer>();
        for (Step step : steps) {
            Answer answer = perform(step.act(), step.family(), now);
            expected.add(answer);
            if (answer.isDone() && !answer.repeated() && answer.seq() > 0)
                done.add(new Done(step.act(), step.family(), now, answer.seq()));
        }
        work.serve(waiting);
        for (int i = 0; i < steps.size(); i++) {
            CompletableFuture<BatchWork.Result> future = waiting.get(i).answer();
            if (!future.isDone()) throw new Wrong(steps.get(i).act() + " was never answered");
            try {
                compare(steps.get(i), expected.get(i), future.join());
            } catch (CompletionException died) {
                if (!disk.isDead()) throw new IllegalStateException("the ledger failed by itself", died);
                throw new Crash();
            }
        }
        voidHolders();
        if (random.nextInt(5) == 0) journal.end().ifPresent(checkpoints::add);
        // All was answered, and it died before the tables had it.
        if (disk.isDead()) throw new Crash();
        commitBehind();
    }

    /** Or the next batch does, whoever does that. */
    private void commitBehind() {
        if (random.nextBoolean()) return;
        disk.step();
        work.commitBehind();
        long newest = work.head().seq();
        if (store.read(dsl -> new EntryQueries(dsl).at(newest)).isEmpty())
            throw new Wrong("entry " + newest + " was answered, and whoever asks does not find it");
    }

    private void compare(Step step, Answer expected, BatchWork.Result outcome) {
        switch (outcome) {
            case BatchWork.Result.Refused refused -> {
                if (!refused.refusal().getClass().getSimpleName().equals(expected.refusal()))
                    throw new Wrong(step.act() + " was refused as " + refused.refusal() + ", expected " + expected);
            }
            case BatchWork.Result.Repeated repeated -> {
                if (!expected.repeated() || expected.seq() != repeated.seq())
                    throw new Wrong(step.act() + " repeated entry " + repeated.seq() + ", expected " + expected);
            }
            case BatchWork.Result.Unproved unproved -> throw new Wrong(step.act() + " was not proved");
            case BatchWork.Result.Known known -> throw new Wrong(step.act() + " came to the record " + known.record());
            case BatchWork.Result.Done did -> {
                long seq = did.entry()
                        .orElseThrow(() -> new Wrong(step.act() + " did nothing, expected " + expected))
                        .seq();
                if (!expected.isDone() || expected.repeated() || expected.seq() != seq)
                    throw new Wrong(step.act() + " was done as entry " + seq + ", expected " + expected);
                answered = Math.max(answered, seq);
                taken(step, expected, did.entry().get().effects(), seq);
            }
        }
    }

    private void taken(Step step, Answer expected, List<Effect> effects, long seq) {
        long settled = effects.stream()
                .filter(Effect.Settled.class::isInstance)
                .mapToLong(effect -> ((Effect.Settled) effect).quantity())
                .sum();
        if ((step.act() instanceof Act.Settle
                        || step.act() instanceof Act.Close
                        || step.act() instanceof Act.ChangeLabels)
                && settled != expected.quantity())
            throw new Wrong(
                    step.act() + " settled " + settled + " numbers, expected " + expected.quantity() + ": " + effects);
        boolean block =
                step.act() instanceof Act.Allocate allocate && allocate.form().isBlock();
        if (!(step.act() instanceof Act.Allocate
                || step.act() instanceof Act.SaveRecord
                || step.act() instanceof Act.FillTable
                || step.act() instanceof Act.NumberRows
                || step.act() instanceof Act.PrintLabels
                || step.act() instanceof Act.ChangeLabels)) return;
        List<String> texts = effects.stream()
                .filter(Effect.Issued.class::isInstance)
                .flatMap(effect -> ((Effect.Issued) effect).texts().stream())
                .toList();
        if (!block && !texts.equals(expected.texts()))
            throw new Wrong(step.act() + " gave " + texts + ", expected " + expected.texts());
        for (String text : texts) {
            Long holder = holders.put(text, seq);
            if (holder != null && holder < 0) throw new Wrong(text + " was given by entry " + seq + ", and is void");
        }
    }

    /** Every row against the model, every counter, and the audit. */
    private void check() {
        store.read(dsl -> {
            AuditReport report = Audit.of(disk, dsl, Optional.empty(), Head.EMPTY);
            if (!report.passed()) throw new Wrong("the audit finds " + report.findings());
            positions(dsl);
            labels(dsl);
            return null;
        });
    }

    /** Every label against the model; and a number that is on labels of two jobs is wrong whatever the model says. */
    private void labels(DSLContext dsl) {
        var queries = new LabelQueries(dsl);
        if (!queries.all().equals(List.copyOf(model.labels.jobs.keySet())))
            throw new Wrong(
                    "the tables hold the label jobs " + queries.all() + ", the model " + model.labels.jobs.keySet());
        var bearers = new HashMap<List<Long>, Long>();
        model.labels.jobs.forEach((seq, job) -> {
            JobLabels kept = queries.at(seq).orElseThrow();
            if (kept.size() != job.labels().size())
                throw new Wrong("job " + seq + " has " + kept.size() + " labels, expected "
                        + job.labels().size());
            for (int i = 0; i < kept.size(); i++) {
                Labels.Label label = job.labels().get(i);
                LabelPiece piece = kept.piece(i);
                if (kept.state(i) != label.state
                        || piece.positionAt(i) != label.number.position
                        || piece.originalOf(i) != label.original)
                    throw new Wrong("label " + i + " of job " + seq + " is " + kept.state(i) + " at " + piece
                            + ", expected " + label.state + " " + label.number.text + ", " + label.original);
                if (!label.state.isLive()) continue;
                Long other = bearers.put(List.of((long) piece.lane(), piece.positionAt(i)), seq);
                if (other != null && other != (long) seq)
                    throw new Wrong(label.number.text + " is on labels of the jobs " + other + " and " + seq);
            }
        });
    }

    private void positions(DSLContext dsl) {
        long placed = 0;
        for (Record lane : dsl.select(LANE.ID, SERIES.NAME, LANE.RANGE_ID, LANE.PERIOD, LANE.NEXT_POSITION)
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .fetch()) {
            String name = (lane.get(LANE.RANGE_ID) - 1)
                    + (lane.get(LANE.PERIOD).isEmpty() ? "" : "/" + lane.get(LANE.PERIOD));
            Model.Lane own = model.lanes.get(lane.get(SERIES.NAME)).get(name);
            if (own.next != lane.get(LANE.NEXT_POSITION))
                throw new Wrong(lane + ": the counter should stand at " + own.next);
            for (Record row : dsl.selectFrom(ALLOCATION)
                    .where(ALLOCATION.LANE_ID.eq(lane.get(LANE.ID)))
                    .fetch()) {
                for (long position = row.get(ALLOCATION.FIRST_POSITION);
                        position <= row.get(ALLOCATION.LAST_POSITION);
                        position++) placed += same(own.at((int) position), row) ? 1 : 0;
            }
        }
        if (placed != model.all().size())
            throw new Wrong("the tables hold " + placed + " positions that were given, the model "
                    + model.all().size());
    }

    /** @return whether the position was given, and not only passed over */
    private static boolean same(Place place, Record row) {
        PositionState state = PositionState.of(row.get(ALLOCATION.STATE));
        if (place == null && (state == PositionState.SKIPPED || state == PositionState.GAP_CLOSED)) return false;
        String text = row.get(ALLOCATION.TEXT);
        long block = row.get(ALLOCATION.BLOCK_SEQ) == null ? 0 : row.get(ALLOCATION.BLOCK_SEQ);
        boolean alike = place != null
                && place.state == state
                && (text == null ? place.block != 0 : text.equals(place.text))
                && place.taken == row.get(ALLOCATION.SEQ)
                && place.block == block
                && place.date.equals(row.get(ALLOCATION.BUSINESS_DATE))
                && place.ahead == (row.get(ALLOCATION.AHEAD) != null);
        if (!alike)
            throw new Wrong("the tables hold " + row + "\nthe model "
                    + (place == null
                            ? "nothing there"
                            : place.text + " " + place.state + " of entry " + place.taken + ", block " + place.block
                                    + ", " + place.date));
        return true;
    }
}
