package org.youngtally.ledger.simulation;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Supplier;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelState;

/** Random requests about labels. */
final class LabelRequests {
    private final Random random;
    private final Supplier<RequestMark> marks;

    LabelRequests(Random random, Supplier<RequestMark> marks) {
        this.random = random;
        this.marks = marks;
    }

    Act<?> next(Family family, Model model, LocalDate today) {
        List<Long> jobs = List.copyOf(model.labels.jobs.keySet());
        if (jobs.isEmpty() || random.nextInt(9) == 0) return print(family, today);
        long job = random.nextInt(40) == 0
                ? random.nextInt(100)
                : jobs.get(Math.max(0, jobs.size() - 1 - random.nextInt(2)));
        Labels.Job known = model.labels.jobs.get(job);
        return new Act.ChangeLabels(
                known == null || random.nextInt(60) == 0 ? family.key() : known.series(),
                job,
                step(known == null ? 3 : known.labels().size(), known),
                Purpose.NONE,
                marks.get());
    }

    private Act<?> print(Family family, LocalDate today) {
        LocalDate date = today.plusDays(family.chronological() ? 0 : random.nextInt(90) - 60);
        int numbers = 1 + random.nextInt(6);
        int each = random.nextInt(4) == 0 ? 2 : 1;
        int copies = random.nextInt(3) == 0 ? 2 : 1;
        return new Act.PrintLabels(
                new LabelJob(
                        random.nextInt(60) == 0 ? "no-such-layout" : Family.LAYOUT,
                        1,
                        family.key(),
                        date,
                        Optional.empty(),
                        Optional.empty(),
                        Map.of(),
                        Optional.empty(),
                        (long) numbers * each,
                        each,
                        copies,
                        Optional.empty()),
                Optional.of(date),
                List.of(new Act.LabelRow(Map.of(), numbers)),
                marks.get());
    }

    private LabelStep step(int size, Labels.Job job) {
        Optional<String> reason = random.nextInt(10) == 0 ? Optional.empty() : Optional.of("because");
        int sort = random.nextInt(12);
        if (sort < 4)
            return new LabelStep.Send(
                    some(size, job, LabelState.WAITING),
                    random.nextBoolean() ? Optional.of("ipp://127.0.0.1/labels") : Optional.empty());
        if (sort < 6)
            return new LabelStep.Note(
                    run(size, job, LabelState.SENT),
                    random.nextInt(3) == 0 ? LabelState.UNCONFIRMED : LabelState.PRINTED,
                    reason);
        if (sort < 7) return new LabelStep.Confirm(some(size, job, LabelState.UNCONFIRMED));
        if (sort < 8)
            return new LabelStep.Reprint(
                    some(size, job, random.nextBoolean() ? LabelState.UNCONFIRMED : LabelState.PRINTED), reason);
        if (sort < 11)
            return new LabelStep.Spoil(
                    some(size, job, random.nextBoolean() ? LabelState.SENT : LabelState.PRINTED),
                    reason,
                    random.nextInt(3) > 0);
        return new LabelStep.Cancel(random.nextInt(3) == 0 ? List.of() : some(size, job, LabelState.WAITING), reason);
    }

    /** Mostly such as are in a state. */
    private Places run(int size, Labels.Job job, LabelState state) {
        int from = random.nextInt(size + 1);
        if (job != null && random.nextInt(12) > 0)
            for (int i = 0; i < size; i++)
                if (job.labels().get((from + i) % size).state == state) from = (from + i) % size;
        int to = from;
        while (job != null
                && to + 1 < size
                && (job.labels().get(to + 1).state == state || random.nextInt(20) == 0)
                && random.nextInt(4) > 0) to++;
        return new Places(from, to);
    }

    private List<Places> some(int size, Labels.Job job, LabelState state) {
        var some = new ArrayList<Places>();
        some.add(run(size, job, state));
        Places next = run(size, job, state);
        if (next.from() > some.getFirst().to() || random.nextInt(10) == 0) some.add(next);
        return some;
    }
}
