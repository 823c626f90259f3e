package org.youngtally.ledger.simulation;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Supplier;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.act.PlanStep.InUse;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;

/** Random tables from before, and the steps by which their plans are carried out. */
final class PlanRequests {
    private final Random random;
    private final Supplier<RequestMark> marks;
    /** What each plan records, by its digest. */
    private final Map<String, List<InUse>> tables = new HashMap<>();

    PlanRequests(Random random, Supplier<RequestMark> marks) {
        this.random = random;
        this.marks = marks;
    }

    private static Particulars particulars(LocalDate date) {
        return new Particulars(date, Map.of());
    }

    private static LaneKey lane(Family family, int range, LocalDate date) {
        return new LaneKey(family.key(), range + 1, family.yearly() ? "" + date.getYear() : "");
    }

    Act<?> goOn(Family family, Model model, LocalDate today) {
        int range = random.nextInt(family.ranges().size());
        int size = family.ranges().get(range).size();
        return new Act.Continue(
                family.key(),
                model.version(family.key()) + (random.nextInt(20) == 0 ? 1 : 0),
                lane(family, range, today),
                particulars(today),
                random.nextInt(Math.min(size, 80)),
                random.nextInt(8) == 0 ? Optional.empty() : Optional.of("the old card index"),
                marks.get());
    }

    /** @param standing of a series as the ledger has it now */
    Act<?> begin(Family family, Model model, LocalDate today, Function<String, String> standing) {
        String digest = "plan " + tables.size();
        var stretches = new ArrayList<InUse>();
        var ends = new HashMap<LaneKey, Long>();
        long line = 2;
        long numbers = 0;
        for (int lanes = 1 + random.nextInt(2); lanes > 0; lanes--) {
            int range = random.nextInt(family.ranges().size());
            LocalDate date = today.minusDays(random.nextInt(family.yearly() ? 400 : 30));
            LaneKey lane = lane(family, range, date);
            if (ends.containsKey(lane)) continue;
            var positions = new TreeSet<Integer>();
            int most = Math.min(family.ranges().get(range).size(), 30 + random.nextInt(120));
            for (int i = 1 + random.nextInt(20); i > 0; i--) {
                int from = random.nextInt(most);
                for (int at = from; at < Math.min(most, from + 1 + random.nextInt(6)); at++) positions.add(at);
            }
            ends.put(lane, positions.last() + 1L);
            numbers += positions.size();
            for (Map.Entry<Integer, Integer> run : runs(positions).entrySet()) {
                int length = run.getValue() - run.getKey() + 1;
                long[] lines = new long[length];
                for (int i = 0; i < length; i++) lines[i] = line++;
                stretches.add(new InUse(
                        lane,
                        particulars(date),
                        run.getKey(),
                        run.getValue(),
                        random.nextBoolean(),
                        FileLines.of(lines)));
            }
        }
        tables.put(digest, stretches);
        boolean close = family.chronological() ? random.nextInt(8) > 0 : random.nextBoolean();
        var plan = new TablePlan(
                family.key(),
                model.version(family.key()),
                "parts.csv",
                "file digest",
                digest,
                close ? TablePlan.Gaps.CLOSE : TablePlan.Gaps.KEEP,
                ends,
                numbers,
                stretches.size(),
                family.typed().equals("required") && random.nextBoolean() ? 0 : random.nextInt(6));
        return new Act.CarryOut(
                family.key(),
                new PlanStep.Begin(
                        plan,
                        standing.apply(family.key()),
                        random.nextInt(8) == 0 ? Optional.empty() : Optional.of("an old list")),
                marks.get());
    }

    private static TreeMap<Integer, Integer> runs(TreeSet<Integer> positions) {
        var runs = new TreeMap<Integer, Integer>();
        for (int position : positions) {
            Map.Entry<Integer, Integer> last = runs.lastEntry();
            if (last != null && last.getValue() + 1 == position) runs.put(last.getKey(), position);
            else runs.put(position, position);
        }
        return runs;
    }

    private PlanStep.Record record(long plan, long from, List<InUse> stretches) {
        int to = Math.min(stretches.size(), (int) from + 1 + random.nextInt(9));
        return new PlanStep.Record(plan, from, stretches.subList((int) from, to));
    }

    /** The next step of a plan mostly, and sometimes one that is out of turn. */
    Act<?> step(Family family, Model model, LocalDate today) {
        Optional<Plans.Open> open = model.plans.of(family.key());
        long plan = open.map(each -> each.seq).orElse((long) random.nextInt(60));
        if (open.isEmpty() || random.nextInt(40) == 0)
            return carry(
                    family,
                    random.nextBoolean()
                            ? new PlanStep.Complete(plan)
                            : new PlanStep.Abandon(
                                    plan, random.nextInt(4) == 0 ? Optional.empty() : Optional.of("another file")));
        TablePlan wanted = open.get().plan;
        List<InUse> stretches = tables.get(wanted.digest());
        long out = random.nextInt(12) == 0 ? 1 : 0;
        long recorded = open.get().recorded;
        if (recorded < wanted.stretches())
            return carry(family, record(plan, Math.min(recorded + out, wanted.stretches() - 1), stretches));
        if (wanted.gaps() == TablePlan.Gaps.CLOSE && random.nextInt(3) == 0)
            return carry(family, new PlanStep.CloseGaps(plan));
        if (open.get().numbered < wanted.rows())
            return new Act.NumberRows(
                    family.key(),
                    plan,
                    open.get().numbered + out,
                    List.of(new Act.PlanRow(
                            today, Map.of(), 1 + random.nextInt((int) (wanted.rows() - open.get().numbered)))),
                    marks.get());
        return carry(family, new PlanStep.Complete(plan));
    }

    private Act<?> carry(Family family, PlanStep step) {
        return new Act.CarryOut(family.key(), step, marks.get());
    }
}
