package org.youngtally.ledger.simulation;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.label.LabelState;
import org.youngtally.ledger.simulation.Model.Answer;
import org.youngtally.ledger.simulation.Model.Place;

/** What labels should come to: a list of them for each job. */
public final class Labels {
    /** One label. */
    public static final class Label {
        public final Place number;
        public final int original;
        public LabelState state = LabelState.WAITING;

        Label(Place number, int original) {
            this.number = number;
            this.original = original;
        }
    }

    /** @param alike how many labels bear the same number */
    public record Job(String series, int alike, List<Label> labels) {}

    public final Map<Long, Job> jobs = new LinkedHashMap<>();
    private final Map<Long, Long> allocated = new LinkedHashMap<>();
    private final Model model;

    Labels(Model model) {
        this.model = model;
    }

    /** Whether the numbers of an entry are on labels. */
    boolean allocatedBy(long entry) {
        return allocated.containsKey(entry);
    }

    Answer print(Act.PrintLabels act, Instant now) {
        Answer answer = model.allocate(
                new Act.Allocate(
                        act.job().series(),
                        act.date(),
                        act.job().numbers(),
                        Act.Form.SINGLES,
                        Optional.empty(),
                        act.mark()),
                now);
        if (!answer.isDone()) return answer;
        var labels = new ArrayList<Label>();
        for (Place number : model.taken(answer.seq()))
            for (int i = 0; i < act.job().eachWithCopies(); i++) labels.add(new Label(number, labels.size()));
        jobs.put(answer.seq(), new Job(act.job().series(), (int) act.job().eachWithCopies(), labels));
        allocated.put(answer.seq(), answer.seq());
        return answer;
    }

    Answer change(Act.ChangeLabels act, Instant now) {
        Job job = jobs.get(act.job());
        if (job == null || !job.series().equals(act.series())) return Model.refused("UnknownLabelJob");
        return switch (act.step()) {
            case LabelStep.Send send -> send(job, send.places());
            case LabelStep.Note note -> note(job, List.of(note.places()), note.now());
            case LabelStep.Confirm confirm -> note(job, confirm.places(), LabelState.PRINTED);
            case LabelStep.Reprint reprint -> reprint(job, reprint.places());
            case LabelStep.Spoil spoil -> spoil(act.job(), job, spoil, now);
            case LabelStep.Cancel cancel -> cancel(job, cancel.places());
        };
    }

    private String choose(Job job, List<LabelStep.Places> places, List<Label> to) {
        long before = -1;
        for (LabelStep.Places each : places) {
            if (each.from() < 0
                    || each.to() < each.from()
                    || each.to() >= job.labels().size()) return "NoSuchLabel";
            if (each.from() <= before) return "LabelsTwice";
            to.addAll(job.labels().subList((int) each.from(), (int) each.to() + 1));
            before = each.to();
        }
        return to.isEmpty() ? "NoLabels" : null;
    }

    private Answer send(Job job, List<LabelStep.Places> places) {
        var chosen = new ArrayList<Label>();
        String refusal = choose(job, places, chosen);
        if (refusal != null) return Model.refused(refusal);
        if (chosen.stream().anyMatch(label -> label.state != LabelState.WAITING)) return Model.refused("LabelUnfit");
        chosen.forEach(label -> label.state = LabelState.SENT);
        return model.done(List.of(), 0);
    }

    private Answer note(Job job, List<LabelStep.Places> places, LabelState now) {
        var chosen = new ArrayList<Label>();
        String refusal = choose(job, places, chosen);
        if (refusal != null) return Model.refused(refusal);
        chosen.removeIf(label -> label.state != LabelState.SENT
                && !(label.state == LabelState.UNCONFIRMED && now == LabelState.PRINTED));
        if (chosen.isEmpty()) return Model.refused("LabelUnfit");
        chosen.forEach(label -> label.state = now);
        return model.done(List.of(), 0);
    }

    private Answer reprint(Job job, List<LabelStep.Places> places) {
        var chosen = new ArrayList<Label>();
        String refusal = choose(job, places, chosen);
        if (refusal != null) return Model.refused(refusal);
        for (Label label : chosen) {
            if (label.state == LabelState.WAITING || label.state == LabelState.CANCELLED)
                return Model.refused("LabelUnfit");
            if (!label.number.state.isLive()) return Model.refused("LabelDead");
        }
        for (Label label : chosen) {
            if (label.state != LabelState.PRINTED) label.state = LabelState.SPOILED;
            job.labels().add(new Label(label.number, label.original));
        }
        return model.done(List.of(), 0);
    }

    private static long live(Job job, Place number) {
        return job.labels().stream()
                .filter(label -> label.number == number && label.state.isLive())
                .count();
    }

    private Answer spoil(long seq, Job job, LabelStep.Spoil step, Instant now) {
        if (step.reason().isEmpty()) return Model.refused("ReasonMissing");
        var chosen = new ArrayList<Label>();
        String refusal = choose(job, step.places(), chosen);
        if (refusal != null) return Model.refused(refusal);
        var before = new LinkedHashMap<Label, LabelState>();
        for (Label label : chosen) {
            if (label.state != LabelState.SENT
                    && label.state != LabelState.PRINTED
                    && label.state != LabelState.UNCONFIRMED) return Model.refused("LabelUnfit");
            before.put(label, label.state);
        }
        chosen.forEach(label -> label.state = LabelState.SPOILED);
        Set<Place> numbers = new LinkedHashSet<>();
        chosen.forEach(label -> numbers.add(label.number));
        var again = new ArrayList<Label>();
        var lost = new ArrayList<Place>();
        for (Place number : numbers) {
            long left = live(job, number);
            if (left == 0) lost.add(number);
            else
                chosen.stream()
                        .filter(label -> label.number == number)
                        .limit(Math.max(0, job.alike() - left))
                        .forEach(label -> again.add(new Label(number, label.original)));
        }
        List<Place> live = lost.stream().filter(number -> number.state.isLive()).toList();
        LocalDate today = LocalDate.ofInstant(now, ZoneOffset.UTC);
        List<Place> instead = new ArrayList<>();
        if (step.replace() && !lost.isEmpty()) {
            String none = model.replacements(job.series(), today, live, lost.size(), now, instead);
            if (none != null) {
                before.forEach((label, state) -> label.state = state);
                return Model.refused(none);
            }
        } else model.settle(live, Act.Deed.VOID);
        if (step.replace()) {
            for (int i = 0; i < lost.size(); i++)
                for (Label label : chosen)
                    if (label.number == lost.get(i)) again.add(new Label(instead.get(i), label.original));
            job.labels().addAll(again);
        }
        Answer answer = model.done(instead.stream().map(number -> number.text).toList(), live.size());
        if (!instead.isEmpty()) allocated.put(answer.seq(), seq);
        return answer;
    }

    private Answer cancel(Job job, List<LabelStep.Places> places) {
        var chosen = new ArrayList<Label>();
        if (places.isEmpty())
            job.labels().stream()
                    .filter(label -> label.state == LabelState.WAITING)
                    .forEach(chosen::add);
        String refusal = choose(job, places, chosen);
        if (refusal != null) return Model.refused(refusal);
        if (chosen.stream().anyMatch(label -> label.state != LabelState.WAITING)) return Model.refused("LabelUnfit");
        chosen.forEach(label -> label.state = LabelState.CANCELLED);
        Set<Place> unborne = new LinkedHashSet<>();
        chosen.stream()
                .map(label -> label.number)
                .filter(number -> live(job, number) == 0)
                .forEach(unborne::add);
        var unused = new ArrayList<Place>();
        var used = new ArrayList<Place>();
        for (Place number : unborne) {
            boolean out = job.labels().stream()
                    .anyMatch(label -> label.number == number && label.state == LabelState.SPOILED);
            (out ? used : unused).add(number);
        }
        boolean returns = model.families.get(job.series()).returns();
        unused.removeIf(number -> returns ? number.state != PositionState.ISSUED : !number.state.isLive());
        used.removeIf(number -> !number.state.isLive());
        model.settle(unused, returns ? Act.Deed.RETURN : Act.Deed.VOID);
        model.settle(used, Act.Deed.VOID);
        return model.done(List.of(), unused.size() + used.size());
    }
}
