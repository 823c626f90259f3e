package org.youngtally.ledger.simulation;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.series.LaneKey;
import org.youngtally.ledger.simulation.Model.Answer;
import org.youngtally.ledger.simulation.Model.Lane;
import org.youngtally.ledger.simulation.Model.Place;

/** What the model does about numbers that were in use before, position by position. */
final class Plans {
    private final Model model;
    private final Map<Long, Open> open = new LinkedHashMap<>();

    /** A plan that is being carried out. */
    static final class Open {
        final long seq;
        final TablePlan plan;
        long recorded;
        long numbered;

        Open(long seq, TablePlan plan) {
            this.seq = seq;
            this.plan = plan;
        }
    }

    Plans(Model model) {
        this.model = model;
    }

    Optional<Open> of(String series) {
        return open.values().stream()
                .filter(each -> each.plan.series().equals(series))
                .findFirst();
    }

    private static String name(LaneKey key) {
        return (key.range() - 1) + (key.period().isEmpty() ? "" : "/" + key.period());
    }

    /** The first position of a lane behind a plan's table; 0 where none is open. */
    int end(Family family, String lane) {
        return of(family.key())
                .flatMap(each -> each.plan.ends().entrySet().stream()
                        .filter(end -> name(end.getKey()).equals(lane))
                        .map(end -> end.getValue().intValue())
                        .findFirst())
                .orElse(0);
    }

    private static boolean isApart(Lane lane, int position) {
        Place place = lane.at(position);
        return place != null && (place.state == PositionState.RETURNED || place.ahead && position >= lane.next);
    }

    /** @return how many were found */
    long aside(Lane lane, Family family, int range, LocalDate date, int behind, long wanted, List<Place> given) {
        int size = family.ranges().get(range).size();
        int last = -1;
        for (int position = 0; position < lane.places.size(); position++) if (isApart(lane, position)) last = position;
        int position = Math.max(behind, last + 1);
        if (position >= size) position = behind;
        long found = 0;
        for (; position < size && found < wanted; position++) {
            if (lane.at(position) != null || family.isSkipped(range, position)) continue;
            var place = new Place(family, family.lane(range, date), range, position);
            place.ahead = true;
            given.add(place);
            found++;
        }
        return found;
    }

    Answer goOn(Act.Continue act) {
        Family family = model.families.get(act.series());
        if (act.reason().isEmpty()) return Model.refused("ReasonMissing");
        if (act.version() != model.version(act.series())) return Model.refused("NotContinued");
        LocalDate date = act.particulars().date();
        if (model.isClosed(family, date)) return Model.refused("DateClosed");
        if (of(act.series()).isPresent()) return Model.refused("PlanOpen");
        int range = act.lane().range() - 1;
        Lane lane = model.lane(family, range, date);
        if (act.next() <= lane.next) return Model.refused("NotContinued");
        long quantity = 0;
        for (int position = lane.next; position < act.next(); position++) {
            if (lane.at(position) != null) continue;
            place(lane, family, range, position, date).block = model.seq + 1;
            quantity++;
        }
        if (quantity > 0) later(lane, date);
        goOn(lane, (int) act.next());
        return model.done(List.of(), quantity);
    }

    /** The counter comes to a position, or behind what is ahead there. */
    private static void goOn(Lane lane, int position) {
        lane.next = position;
        while (lane.at(lane.next) != null && lane.at(lane.next).state != PositionState.RETURNED) lane.next++;
    }

    private static void later(Lane lane, LocalDate date) {
        if (lane.latest == null || date.isAfter(lane.latest)) lane.latest = date;
    }

    private Place place(Lane lane, Family family, int range, int position, LocalDate date) {
        Place there = lane.at(position);
        Place place = there != null ? there : new Place(family, family.lane(range, date), range, position);
        while (lane.places.size() <= position) lane.places.add(null);
        lane.places.set(position, place);
        String text = family.text(date, family.value(range, position));
        if (place.text != null && !place.text.equals(text)) place.former.add(place.text);
        place.text = text;
        place.date = date;
        place.taken = model.seq + 1;
        place.until = null;
        place.block = 0;
        place.state = PositionState.PREEXISTING;
        return place;
    }

    Answer step(Act.CarryOut act) {
        if (act.step() instanceof PlanStep.Begin begin) return begin(begin);
        if (act.step() instanceof PlanStep.Abandon abandon && abandon.reason().isEmpty())
            return Model.refused("ReasonMissing");
        long seq =
                switch (act.step()) {
                    case PlanStep.Begin begin -> 0;
                    case PlanStep.Record record -> record.plan();
                    case PlanStep.CloseGaps close -> close.plan();
                    case PlanStep.Complete complete -> complete.plan();
                    case PlanStep.Abandon abandon -> abandon.plan();
                };
        Open plan = open.get(seq);
        if (plan == null || !plan.plan.series().equals(act.series())) return Model.refused("UnknownPlan");
        return switch (act.step()) {
            case PlanStep.Begin begin -> throw new IllegalStateException("it is begun above");
            case PlanStep.Record record -> record(plan, record);
            case PlanStep.CloseGaps close -> closeGaps(plan);
            case PlanStep.Complete complete ->
                plan.recorded == plan.plan.stretches() && plan.numbered == plan.plan.rows() && !leavesGaps(plan)
                        ? end(plan)
                        : Model.refused("PlanMoved");
            case PlanStep.Abandon abandon -> end(plan);
        };
    }

    private Answer end(Open plan) {
        open.remove(plan.seq);
        return model.done(List.of(), 0);
    }

    /** It is always asked for by itself, with the ledger as it stands. */
    private Answer begin(PlanStep.Begin begin) {
        TablePlan plan = begin.plan();
        Family family = model.families.get(plan.series());
        if (of(family.key()).isPresent()) return Model.refused("PlanOpen");
        if (family.chronological() && plan.gaps() == TablePlan.Gaps.KEEP) return Model.refused("PlanRefused");
        if (plan.rows() > 0 && family.typed().equals("required")) return Model.refused("TypedNotAllowed");
        if (plan.gaps() == TablePlan.Gaps.CLOSE && begin.reason().isEmpty()) return Model.refused("ReasonMissing");
        Answer answer = model.done(List.of(), 0);
        open.put(answer.seq(), new Open(answer.seq(), plan));
        return answer;
    }

    private boolean isOld(Open plan) {
        return plan.plan.version() != model.version(plan.plan.series());
    }

    private Answer record(Open plan, PlanStep.Record step) {
        if (isOld(plan)) return Model.refused("PlanRefused");
        if (step.from() != plan.recorded) return Model.refused("PlanMoved");
        Family family = model.families.get(plan.plan.series());
        for (PlanStep.InUse inUse : step.stretches()) {
            int range = inUse.lane().range() - 1;
            LocalDate date = inUse.particulars().date();
            Lane lane = model.lane(family, range, date);
            boolean counted = false;
            for (int position = (int) inUse.from(); position <= inUse.to(); position++) {
                Place there = lane.at(position);
                boolean free = there == null && position >= lane.next;
                if (!free && (there == null || !Model.canRead(there, date) || family.isSkipped(range, position)))
                    continue;
                boolean ahead = free ? position != lane.next : there.ahead;
                Place place = place(lane, family, range, position, date);
                place.ahead = ahead;
                if (inUse.together() && free) place.block = model.seq + 1;
                if (free && !ahead) lane.next++;
                counted = true;
            }
            if (counted) later(lane, date);
        }
        plan.recorded += step.stretches().size();
        return model.done(List.of(), 0);
    }

    private List<Map.Entry<Lane, Integer>> ends(Open plan) {
        var ends = new ArrayList<Map.Entry<Lane, Integer>>();
        Map<String, Lane> own = model.lanes.get(plan.plan.series());
        plan.plan
                .ends()
                .forEach((key, end) ->
                        ends.add(Map.entry(own.computeIfAbsent(name(key), added -> new Lane()), end.intValue())));
        return ends;
    }

    private boolean leavesGaps(Open plan) {
        return plan.plan.gaps() == TablePlan.Gaps.CLOSE
                && ends(plan).stream().anyMatch(end -> end.getKey().next < end.getValue());
    }

    private Answer closeGaps(Open plan) {
        if (isOld(plan)) return Model.refused("PlanRefused");
        if (plan.plan.gaps() != TablePlan.Gaps.CLOSE || plan.recorded < plan.plan.stretches() || !leavesGaps(plan))
            return Model.refused("PlanMoved");
        for (Map.Entry<Lane, Integer> end : ends(plan)) {
            Lane lane = end.getKey();
            for (int position = lane.next; position < end.getValue(); position++) {
                if (lane.at(position) != null) continue;
                int above = position;
                while (lane.at(above) == null) above++;
                later(lane, lane.at(above).date);
            }
            if (lane.next < end.getValue()) goOn(lane, end.getValue());
        }
        return model.done(List.of(), 0);
    }

    Answer number(Act.NumberRows act, java.time.Instant now) {
        Open plan = open.get(act.plan());
        if (plan == null || !plan.plan.series().equals(act.series())) return Model.refused("UnknownPlan");
        if (isOld(plan)) return Model.refused("PlanRefused");
        if (plan.numbered != act.from() || plan.recorded < plan.plan.stretches() || leavesGaps(plan))
            return Model.refused("PlanMoved");
        Family family = model.families.get(act.series());
        var given = new ArrayList<Place>();
        var passing = new HashMap<Lane, Integer>();
        // All rows of a step are for one date.
        Act.PlanRow row = act.rows().getFirst();
        var allocate = new Act.Allocate(
                act.series(), Optional.of(row.date()), row.quantity(), Act.Form.SINGLES, Optional.empty(), act.mark());
        if (model.isClosed(family, row.date())
                || model.count(family, row.date(), allocate, given, passing, false) != null)
            return Model.refused("RowFaulty");
        for (Place place : given) model.give(place, row.date(), allocate, now, model.seq + 1);
        passing.forEach((lane, next) -> model.pass(lane, next, family, row.date()));
        plan.numbered += row.quantity();
        return model.done(given.stream().map(place -> place.text).toList(), row.quantity());
    }
}
