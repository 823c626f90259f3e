package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.youngtally.core.organisation.FieldValues;
import org.youngtally.core.organisation.Keeping.Deleting;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.KeptRecord.Line;
import org.youngtally.core.record.KeptRecord.Numbered;
import org.youngtally.core.record.KeptRecord.UnitValues;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.record.RecordKeys;
import org.youngtally.core.series.FieldFault;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;

/**
 * Decides what becomes of records: the number of one is taken in the act that keeps it, and leaves it only in one that
 * says why.
 */
final class Recording {
    private final LedgerState state;
    private final SeriesAssignment placing;
    private final Instant now;
    private final LocalDate today;

    Recording(LedgerState state, Instant now, LocalDate today) {
        this.state = state;
        this.placing = new SeriesAssignment(state.organisation(), state::choices, state::series);
        this.now = now;
        this.today = today;
    }

    /** Ends a decision on the way: what is wrong is found deep down, and nothing has been done yet. */
    private static final class Stop extends RuntimeException {
        private static final long serialVersionUID = 1L;
        private final transient Decision decision;

        Stop(Decision decision) {
            super(null, null, false, false);
            this.decision = decision;
        }

        Stop(Refusal refusal) {
            this(new Decision.Refused(refusal));
        }
    }

    Decision save(Act.SaveRecord act) {
        try {
            return saved(act);
        } catch (Stop stop) {
            return stop.decision;
        }
    }

    private Decision saved(Act.SaveRecord act) {
        Kind kind = kind(act.kind());
        Unit unit = unit(act.unit());
        Optional<Long> known = known(kind, act.values());
        if (known.isPresent()) return new Decision.Known(known.get());
        SeriesAssignment.Assigned placed = placed(kind, unit, act.values(), Map.of());
        List<Line> lines = lines(kind, Optional.empty(), act.lines());
        Taken taken = take(placed, act.typed(), act.date(), act.series(), act.mark());
        var values = new TreeMap<>(placed.values());
        values.put(taken.number().into(), taken.number().text());
        var record = new KeptRecord(
                        state.nextRecord(),
                        kind.key(),
                        taken.number(),
                        List.of(new UnitValues(unit.key(), values)),
                        lines,
                        0,
                        false,
                        false,
                        List.of(),
                        1)
                .withLines(lines);
        return done(taken.effects(), record);
    }

    /** The record that is meant by what it is known by, whatever else is given. */
    private Optional<Long> known(Kind kind, Map<String, String> values) {
        var fields = new FieldValues(kind, state::codebook);
        return kind.keeping().knownBy().stream()
                .filter(name -> !values.getOrDefault(name, "").isBlank())
                .flatMap(name -> kind
                        .field(name)
                        .flatMap(field -> fields.alone(field, values.get(name).strip()))
                        .flatMap(value -> state.knownRecord(kind.key(), name, RecordKeys.key(value)))
                        .stream())
                .findFirst();
    }

    /** A number that is taken, and what that does. */
    private record Taken(Numbered number, List<Effect> effects) {}

    private Taken take(
            SeriesAssignment.Assigned placed,
            Optional<String> typed,
            Optional<LocalDate> date,
            String series,
            RequestMark mark) {
        if (!placed.route().series().equals(series))
            throw new Stop(new Refusal.RouteMoved(
                    placed.kind().key(), placed.unit().key(), placed.route().series()));
        Act.Form form = typed.<Act.Form>map(Act.Form.Typed::new).orElse(Act.Form.SINGLES);
        Decision decision = Decider.allocate(
                state,
                new Act.Allocate(
                        series,
                        date.or(() -> dated(placed)),
                        placed.given(),
                        1,
                        form,
                        Optional.empty(),
                        new Purpose(
                                Optional.of(placed.kind().key()),
                                Optional.of(placed.unit().key())),
                        mark),
                now,
                today);
        if (!(decision instanceof Decision.Done done)) throw new Stop(decision);
        String text = done.effects().stream()
                .filter(Effect.Issued.class::isInstance)
                .map(Effect.Issued.class::cast)
                .findFirst()
                .orElseThrow()
                .texts()
                .getFirst();
        return new Taken(new Numbered(series, text, placed.route().into()), done.effects());
    }

    /** The date that a record bears itself. */
    static Optional<LocalDate> dated(SeriesAssignment.Assigned placed) {
        return placed.kind().keeping().datedBy().map(placed.values()::get).map(LocalDate::parse);
    }

    Decision change(Act.ChangeRecord act) {
        try {
            return changed(act);
        } catch (Stop stop) {
            return stop.decision;
        }
    }

    private Decision changed(Act.ChangeRecord act) {
        KeptRecord record =
                state.record(act.record()).orElseThrow(() -> new Stop(new Refusal.UnknownRecord(act.record())));
        if (act.expects().filter(version -> version != record.version()).isPresent())
            throw new Stop(new Refusal.RecordMoved(
                    record.id(), record.number().text(), act.expects().get(), record.version()));
        if (record.deleted())
            throw new Stop(
                    new Refusal.RecordDeleted(record.id(), record.number().text()));
        Kind kind = kind(record.kind());
        Unit unit = unit(act.unit());
        if (act.change() instanceof RecordChange.TakeOver over) return takenOver(record, kind, unit, over);
        UnitValues standing = record.in(unit.key())
                .orElseThrow(() -> new Stop(
                        new Refusal.NotInUnit(record.id(), record.number().text(), unit.key(), record.units())));
        return switch (act.change()) {
            case RecordChange.Edit edit -> edited(record, kind, standing, edit);
            case RecordChange.Fix fix ->
                record.fixed() ? new Decision.Done(List.of()) : done(List.of(), next(record.asFixed()));
            case RecordChange.Renumber renumber -> renumbered(record, kind, unit, renumber, act.mark());
            case RecordChange.Delete delete -> deleted(record, kind, delete, act.mark());
            case RecordChange.Attach attach -> done(List.of(), next(record.withFile(attach.file())));
            case RecordChange.TakeOver over -> throw new IllegalStateException("shared above");
        };
    }

    private static KeptRecord next(KeptRecord changed) {
        return changed.withVersion(changed.version() + 1);
    }

    private Decision edited(KeptRecord record, Kind kind, UnitValues standing, RecordChange.Edit edit) {
        Map<String, String> values =
                switch (placing.read(kind, edit.values(), standing.values())) {
                    case FieldValues.Reading.Faulty faulty ->
                        throw new Stop(new Refusal.FieldFaulty(faulty.kind(), faulty.fault()));
                    case FieldValues.Reading.Understood understood -> understood.values();
                };
        Set<String> common = placing.common(kind, record.number().series());
        KeptRecord changed = record.withValues(each -> each.equals(standing)
                ? new UnitValues(each.unit(), values)
                : new UnitValues(each.unit(), with(each.values(), values, common)));
        if (edit.lines().isPresent())
            changed = changed.withLines(
                    lines(kind, Optional.of(record), edit.lines().get()));
        for (Map.Entry<String, String> known : RecordKeys.known(kind, changed).entrySet()) {
            Optional<Long> other = state.knownRecord(kind.key(), known.getKey(), known.getValue())
                    .filter(found -> found != record.id());
            if (other.isPresent())
                throw new Stop(new Refusal.KnownAlready(
                        known.getKey(),
                        changed.values().get(known.getKey()),
                        other.get(),
                        state.record(other.get()).orElseThrow().number().text()));
        }
        return changed.equals(record) ? new Decision.Done(List.of()) : done(List.of(), next(changed));
    }

    /** What is alike in all units goes with a change in one of them. */
    private static Map<String, String> with(Map<String, String> own, Map<String, String> changed, Set<String> common) {
        var values = new TreeMap<>(own);
        for (String name : common) {
            if (changed.containsKey(name)) values.put(name, changed.get(name));
            else values.remove(name);
        }
        return values;
    }

    private Decision renumbered(
            KeptRecord record, Kind kind, Unit unit, RecordChange.Renumber renumber, RequestMark mark) {
        if (renumber.reason().isEmpty()) throw new Stop(new Refusal.ReasonMissing("renumber a record"));
        Map<String, String> before = record.in(unit.key()).orElseThrow().values();
        SeriesAssignment.Assigned placed = placed(kind, unit, before, before);
        Taken taken = take(placed, renumber.typed(), Optional.empty(), renumber.series(), mark);
        var effects = new ArrayList<>(settled(record, Act.Deed.VOID, renumber.reason(), mark));
        effects.addAll(taken.effects());
        var filled = new TreeMap<>(placed.values());
        filled.put(taken.number().into(), taken.number().text());
        Set<String> common = placing.common(kind, taken.number().series());
        KeptRecord changed = record.withNumber(taken.number())
                .withValues(each -> new UnitValues(
                        each.unit(), each.unit().equals(unit.key()) ? filled : with(each.values(), filled, common)));
        return done(effects, next(changed));
    }

    private Decision deleted(KeptRecord record, Kind kind, RecordChange.Delete delete, RequestMark mark) {
        boolean returns = kind.keeping().deleting() == Deleting.RETURN
                && state.series(record.number().series()).orElseThrow().policy().returns();
        if (!returns && delete.reason().isEmpty())
            throw new Stop(new Refusal.ReasonMissing("delete a record whose number becomes void"));
        return done(
                settled(record, returns ? Act.Deed.RETURN : Act.Deed.VOID, delete.reason(), mark),
                next(record.asDeleted()));
    }

    /** What becomes of the number of a record; nothing where it is void already. */
    private List<Effect> settled(KeptRecord record, Act.Deed deed, Optional<String> reason, RequestMark mark) {
        Series series = state.series(record.number().series()).orElseThrow();
        Span spot = state.spot(series, record.number().text()).orElseThrow();
        if (!state.stretches(spot.lane(), spot.from(), spot.from())
                .getFirst()
                .state()
                .isLive()) return List.of();
        Decision decision = new SettlingDecision(state, record.id())
                .decide(
                        new Act.Settle(
                                series.key(),
                                new Selection.Identifiers(
                                        List.of(record.number().text())),
                                deed,
                                reason,
                                mark),
                        series);
        if (!(decision instanceof Decision.Done done)) throw new Stop(decision);
        return done.effects();
    }

    private Decision takenOver(KeptRecord record, Kind kind, Unit unit, RecordChange.TakeOver over) {
        if (record.in(unit.key()).isPresent())
            throw new Stop(
                    new Refusal.InUnitAlready(record.id(), record.number().text(), unit.key()));
        Map<String, String> theirs = record.values();
        var wanted = new TreeMap<>(theirs);
        over.values().forEach((name, text) -> {
            if (!text.isBlank()) wanted.put(name, text);
        });
        Map<String, String> values =
                switch (placing.read(kind, wanted, theirs)) {
                    case FieldValues.Reading.Faulty faulty ->
                        throw new Stop(new Refusal.FieldFaulty(faulty.kind(), faulty.fault()));
                    case FieldValues.Reading.Understood understood -> understood.values();
                };
        for (String name : placing.common(kind, record.number().series())) {
            String there = theirs.getOrDefault(name, "");
            String here = values.getOrDefault(name, "");
            if (!here.equals(there))
                throw new Stop(new Refusal.Disagreeing(record.number().text(), name, record.home(), there, here));
        }
        var standings = new ArrayList<>(record.standings());
        standings.add(new UnitValues(unit.key(), values));
        return done(List.of(), next(record.withStandings(standings)));
    }

    private List<Line> lines(Kind kind, Optional<KeptRecord> before, List<LineOrder.Wanted> wanted) {
        if (!wanted.isEmpty() && kind.lines().isEmpty()) throw new Stop(new Refusal.NoLines(kind.key()));
        var read = new ArrayList<LineOrder.Wanted>();
        FieldValues fields = FieldValues.ofLines(kind, state::codebook);
        for (int i = 0; i < wanted.size(); i++) {
            Optional<Integer> number = wanted.get(i).number();
            Map<String, String> held = before.stream()
                    .flatMap(record -> record.lines().stream())
                    .filter(line -> number.filter(own -> own == line.number()).isPresent())
                    .map(Line::values)
                    .findFirst()
                    .orElse(Map.of());
            switch (fields.read(wanted.get(i).values(), Set.of(), held)) {
                case FieldValues.Reading.Faulty faulty ->
                    throw new Stop(new Refusal.FieldFaulty(kind.key(), inLine(i, faulty.fault())));
                case FieldValues.Reading.Understood understood ->
                    read.add(new LineOrder.Wanted(number, understood.values()));
            }
        }
        return switch (LineOrder.arrange(before, read, kind.keeping().lineStep())) {
            case LineOrder.Result.Faulty faulty ->
                throw new Stop(new Refusal.LineFaulty(faulty.index(), faulty.number(), faulty.twice()));
            case LineOrder.Result.Arranged arranged -> arranged.lines();
        };
    }

    private static FieldFault inLine(int index, FieldFault fault) {
        return new FieldFault(
                "lines[" + index + "]." + fault.field(), fault.kind(), fault.text(), fault.nearest(), fault.accepted());
    }

    private SeriesAssignment.Assigned placed(
            Kind kind, Unit unit, Map<String, String> values, Map<String, String> before) {
        return switch (placing.place(kind, unit, values, before)) {
            case SeriesAssignment.Faulty faulty ->
                throw new Stop(new Refusal.FieldFaulty(faulty.kind(), faulty.fault()));
            case SeriesAssignment.NoRoute none ->
                throw new Stop(
                        new Refusal.NoRoute(none.kind().key(), none.unit().key()));
            case SeriesAssignment.Assigned placed -> placed;
        };
    }

    private Kind kind(String key) {
        return Optional.ofNullable(state.organisation().kinds().get(key))
                .orElseThrow(() -> new Stop(new Refusal.UnknownKind(
                        key, NearestName.to(key, state.organisation().kinds().keySet()))));
    }

    private Unit unit(String key) {
        return Optional.ofNullable(state.organisation().units().get(key))
                .orElseThrow(() -> new Stop(new Refusal.UnknownUnit(
                        key, NearestName.to(key, state.organisation().units().keySet()))));
    }

    private static Decision done(List<Effect> effects, KeptRecord record) {
        var all = new ArrayList<>(effects);
        all.add(new Effect.RecordKept(record));
        return new Decision.Done(all);
    }
}
