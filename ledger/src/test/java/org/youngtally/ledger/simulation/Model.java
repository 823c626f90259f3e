package org.youngtally.ledger.simulation;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Act.Deed;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;

/**
 * What the ledger should do, worked out in the plainest way there is: a list of positions for each lane, looked through
 * from its beginning.
 */
public final class Model {

    /** One position. */
    public static final class Place {
        public final Family family;
        public final String lane;
        public final int range;
        public final int position;
        public PositionState state;
        public String text;
        public LocalDate date;
        public Instant until;
        public long taken;
        public long block;
        public boolean ahead;
        /** The record that stands with it; 0 for none. */
        public long record;

        final Set<String> former = new HashSet<>();

        Place(Family family, String lane, int range, int position) {
            this.family = family;
            this.lane = lane;
            this.range = range;
            this.position = position;
        }
    }

    public static final class Lane {
        /** Absent where nothing was given; those behind the counter were typed. */
        public final List<Place> places = new ArrayList<>();

        public int next;
        LocalDate latest;
        boolean opened;

        public Place at(int position) {
            return position < places.size() ? places.get(position) : null;
        }
    }

    /** What an act comes to: a refusal by its name, or what was answered. */
    public record Answer(String refusal, long seq, boolean repeated, List<String> texts, long quantity) {
        static Answer refused(Class<?> refusal) {
            return new Answer(refusal.getSimpleName(), 0, false, List.of(), 0);
        }

        public boolean isDone() {
            return refusal.isEmpty();
        }
    }

    private record Closed(Period period) {}

    private record Known(String digest, long seq) {}

    private record Taking(String series, String reference, boolean block, List<Place> places) {}

    public final Map<String, Family> families = new LinkedHashMap<>();
    public final Map<String, Map<String, Lane>> lanes = new LinkedHashMap<>();
    private final Map<Long, Taking> takings = new HashMap<>();
    private final Map<Long, Act.Allocate> asked = new HashMap<>();
    private final Map<Long, Closed> closed = new LinkedHashMap<>();
    private final Map<String, Known> keys = new HashMap<>();
    private final Map<String, Known> references = new HashMap<>();
    private final Map<Long, Answer> answers = new HashMap<>();
    /** The place of each record's number, in the order of the records; absent once it is deleted. */
    private final List<Place> records = new ArrayList<>();

    /** What tables from before are done about. */
    final Plans plans = new Plans(this);

    /** Labels, and what was done with them. */
    public final Labels labels = new Labels(this);

    private final Map<String, Integer> versions = new HashMap<>();
    public long seq;

    static Answer refused(String name) {
        return new Answer(name, 0, false, List.of(), 0);
    }

    public Answer perform(Act<?> act, Instant now) {
        if (act.known().isPresent()) {
            RequestMark mark = act.known().get();
            Known known =
                    mark.key().map(key -> keys.get(mark.account() + "/" + key)).orElse(null);
            if (known != null)
                return known.digest().equals(mark.digest()) ? repeated(known.seq()) : refused("KeyReused");
        }
        Answer answer =
                switch (act) {
                    case Act.Allocate allocate -> allocate(allocate, now);
                    case Act.Settle settle -> settle(settle);
                    case Act.Split split -> split(split);
                    case Act.Close close -> close(close);
                    case Act.Reopen reopen ->
                        closed.remove(reopen.closing()) == null ? refused("NotClosed") : done(List.of(), 0);
                    case Act.Lapse lapse -> lapse(lapse.now());
                    case Act.RemoveRoute remove -> throw new IllegalStateException("the simulation has no routes");
                    case Act.ChangeAccount change -> throw new IllegalStateException("the simulation has no accounts");
                    case Act.SaveRecord save -> save(save, now);
                    case Act.ChangeRecord change ->
                        delete(change.record(), ((RecordChange.Delete) change.change()).reason());
                    case Act.FillTable fill -> fill(fill, now);
                    case Act.Continue on -> plans.goOn(on);
                    case Act.StateHighest stated -> throw new IllegalArgumentException("nothing is restored here");
                    case Act.Resume resume -> throw new IllegalArgumentException("nothing is restored here");
                    case Act.CarryOut carry -> plans.step(carry);
                    case Act.NumberRows rows -> plans.number(rows, now);
                    case Act.NumberDocument number ->
                        throw new IllegalStateException("the simulation has no documents");
                    case Act.PrintLabels print ->
                        print.job().layout().equals(Family.LAYOUT)
                                ? labels.print(print, now)
                                : refused("LayoutChanged");
                    case Act.ChangeLabels change -> labels.change(change, now);
                    case Act.Define define -> refused("DefinitionsFaulty");
                };
        if (answer.isDone() && !answer.repeated() && answer.seq() > 0) {
            answers.put(answer.seq(), answer);
            act.known().ifPresent(mark -> mark.key()
                    .ifPresent(key -> keys.put(mark.account() + "/" + key, new Known(mark.digest(), answer.seq()))));
        }
        return answer;
    }

    public void define(Family family) {
        seq++;
        versions.merge(family.key(), 1, Integer::sum);
        families.put(family.key(), family);
        lanes.computeIfAbsent(family.key(), added -> new LinkedHashMap<>());
    }

    /** The version of a series. */
    public int version(String series) {
        return versions.get(series);
    }

    Answer done(List<String> texts, long quantity) {
        return new Answer("", ++seq, false, texts, quantity);
    }

    private Answer repeated(long before) {
        Answer earlier = answers.get(before);
        return new Answer("", before, true, earlier.texts(), earlier.quantity());
    }

    boolean isClosed(Family family, LocalDate date) {
        return closed.values().stream()
                .anyMatch(each -> each.period().includes(date)
                        && each.period()
                                .key()
                                .equals(each.period().scope() == Period.Scope.SERIES ? family.key() : "all"));
    }

    private boolean givesAgain(Family family) {
        return !families.get(family.key()).gaps() && !family.chronological();
    }

    Answer allocate(Act.Allocate act, Instant now) {
        Known held = act.reference()
                .map(reference -> references.get(act.series() + "/" + reference))
                .orElse(null);
        if (held != null)
            return held.digest().equals(act.mark().digest()) || asksForTheSame(act, asked.get(held.seq()))
                    ? repeated(held.seq())
                    : refused("ReferenceReused");
        Family family = families.get(act.series());
        if (act.quantity() < 1) return refused("QuantityOutOfBounds");
        boolean typing = act.form() instanceof Act.Form.Typed;
        if (typing ? family.typed().equals("refused") : family.typed().equals("required"))
            return refused("TypedNotAllowed");
        LocalDate date = act.date().orElseThrow();
        if (isClosed(family, date)) return refused("DateClosed");
        var given = new ArrayList<Place>();
        var passing = new HashMap<Lane, Integer>();
        String refusal = typing
                ? type(family, date, ((Act.Form.Typed) act.form()).text(), given, passing)
                : count(family, date, act, given, passing);
        if (refusal != null) return refused(refusal);
        long entry = seq + 1;
        for (Place place : given) give(place, date, act, now, entry);
        passing.forEach((lane, next) -> pass(lane, next, family, date));
        boolean block = act.form().isBlock();
        asked.put(entry, act);
        takings.put(entry, new Taking(family.key(), act.reference().orElse(null), block, List.copyOf(given)));
        act.reference()
                .ifPresent(reference -> references.put(
                        family.key() + "/" + reference, new Known(act.mark().digest(), entry)));
        List<String> texts = given.stream().map(place -> place.text).toList();
        return done(block ? List.of(texts.getFirst(), texts.getLast()) : texts, act.quantity());
    }

    private static boolean asksForTheSame(Act.Allocate act, Act.Allocate earlier) {
        return act.date().equals(earlier.date())
                && act.quantity() == earlier.quantity()
                && act.form().getClass() == earlier.form().getClass()
                && (!(act.form() instanceof Act.Form.Typed typed)
                        || typed.text().equalsIgnoreCase(((Act.Form.Typed) earlier.form()).text()));
    }

    /** The places that an entry took, which nobody can name by the entry. */
    List<Place> taken(long entry) {
        return takings.remove(entry).places();
    }

    /**
     * Voids some, and takes as many in the same act.
     *
     * @return why it cannot be; null where it is done
     */
    String replacements(
            String series, LocalDate date, List<Place> voided, int quantity, Instant now, List<Place> given) {
        Family family = families.get(series);
        if (isClosed(family, date)) return "DateClosed";
        var passing = new HashMap<Lane, Integer>();
        var act = new Act.Allocate(
                series,
                Optional.of(date),
                quantity,
                Act.Form.SINGLES,
                Optional.empty(),
                new RequestMark("", Optional.empty(), ""));
        String refusal = count(family, date, act, given, passing);
        if (refusal != null) return refusal;
        settle(voided, Deed.VOID);
        for (Place place : given) give(place, date, act, now, seq + 1);
        passing.forEach((lane, next) -> pass(lane, next, family, date));
        return null;
    }

    public int records() {
        return records.size();
    }

    /** A number, and the record that it is for. */
    private Answer save(Act.SaveRecord act, Instant now) {
        Act.Form form = act.typed().<Act.Form>map(Act.Form.Typed::new).orElse(Act.Form.SINGLES);
        Answer answer = allocate(
                new Act.Allocate(
                        act.series(),
                        Optional.of(LocalDate.parse(act.values().get("dated"))),
                        1,
                        form,
                        Optional.empty(),
                        act.mark()),
                now);
        if (!answer.isDone()) return answer;
        Place place = taken(answer.seq()).getFirst();
        records.add(place);
        place.record = records.size();
        return answer;
    }

    private Answer delete(long record, Optional<String> reason) {
        if (record > records.size()) return refused("UnknownRecord");
        Place place = records.get((int) record - 1);
        if (place == null) return refused("RecordDeleted");
        if (!place.family.returns() && reason.isEmpty()) return refused("ReasonMissing");
        records.set((int) record - 1, null);
        place.record = 0;
        return place.state.isLive()
                ? change(new ArrayList<>(List.of(place)), place.family.returns() ? Deed.RETURN : Deed.VOID)
                : done(List.of(), 0);
    }

    /**
     * Numbers for rows, those of one year behind those of another: they count in lanes of their own, so that what one
     * year comes to does not rest on the other.
     */
    private Answer fill(Act.FillTable act, Instant now) {
        if (act.rows().isEmpty()) return refused("QuantityOutOfBounds");
        Family family = families.get(act.kind());
        if (family.typed().equals("required")) return refused("RowFaulty");
        var quantities = new LinkedHashMap<LocalDate, Integer>();
        for (Map<String, String> row : act.rows()) quantities.merge(LocalDate.parse(row.get("dated")), 1, Integer::sum);
        var given = new LinkedHashMap<LocalDate, List<Place>>();
        var passing = new LinkedHashMap<LocalDate, Map<Lane, Integer>>();
        for (Map.Entry<LocalDate, Integer> run : quantities.entrySet()) {
            var places = new ArrayList<Place>();
            var next = new HashMap<Lane, Integer>();
            if (isClosed(family, run.getKey())
                    || count(family, run.getKey(), singles(act, run.getValue()), places, next) != null)
                return refused("RowFaulty");
            given.put(run.getKey(), places);
            passing.put(run.getKey(), next);
        }
        given.forEach((date, places) ->
                places.forEach(place -> give(place, date, singles(act, places.size()), now, seq + 1)));
        passing.forEach((date, lanes) -> lanes.forEach((lane, next) -> pass(lane, next, family, date)));
        return done(
                given.values().stream()
                        .flatMap(List::stream)
                        .map(place -> place.text)
                        .toList(),
                act.rows().size());
    }

    private static Act.Allocate singles(Act.FillTable act, int quantity) {
        return new Act.Allocate(act.kind(), Optional.empty(), quantity, Act.Form.SINGLES, Optional.empty(), act.mark());
    }

    void give(Place place, LocalDate date, Act.Allocate act, Instant now, long entry) {
        Lane lane = lanes.get(place.family.key()).get(place.lane);
        while (lane.places.size() <= place.position) lane.places.add(null);
        lane.places.set(place.position, place);
        String text = place.family.text(date, place.family.value(place.range, place.position));
        if (place.text != null && !place.text.equals(text)) place.former.add(place.text);
        place.text = text;
        place.date = date;
        place.taken = entry;
        place.until = act.form() instanceof Act.Form.Held hold ? now.plus(hold.time()) : null;
        place.state = place.until == null ? PositionState.ISSUED : PositionState.HELD;
        place.block = act.form().isBlock() ? entry : 0;
        if (lane.latest == null || date.isAfter(lane.latest)) lane.latest = date;
    }

    /** The counter goes on; what it leaves out behind it is skipped. */
    void pass(Lane lane, int next, Family family, LocalDate date) {
        lane.next = next;
        if (lane.latest == null || date.isAfter(lane.latest)) lane.latest = date;
    }

    Lane lane(Family family, int range, LocalDate date) {
        return lanes.get(family.key()).computeIfAbsent(family.lane(range, date), added -> new Lane());
    }

    private boolean canGiveAgain(Place place, LocalDate date) {
        return givesAgain(place.family) && canRead(place, date);
    }

    /** Whether a returned position can be somebody's again with the text that it has on a date. */
    static boolean canRead(Place place, LocalDate date) {
        String text = place.family.text(date, place.family.value(place.range, place.position));
        return place.state == PositionState.RETURNED && (text.equals(place.text) || !place.former.contains(text));
    }

    private String count(
            Family family, LocalDate date, Act.Allocate act, List<Place> given, Map<Lane, Integer> passing) {
        return count(family, date, act, given, passing, true);
    }

    /** @param aside whether a plan for a table is kept clear of */
    String count(
            Family family,
            LocalDate date,
            Act.Allocate act,
            List<Place> given,
            Map<Lane, Integer> passing,
            boolean aside) {
        long wanted = act.quantity();
        boolean block = act.form().isBlock();
        for (int range = 0; range < family.ranges().size(); range++) {
            Lane lane = lane(family, range, date);
            int behind = aside ? plans.end(family, family.lane(range, date)) : 0;
            if (behind > lane.next) {
                if (block) return "PlanOpen";
                if (family.chronological() && lane.latest != null && lane.latest.isAfter(date))
                    return "NotChronological";
                wanted -= plans.aside(lane, family, range, date, behind, wanted, given);
                if (wanted == 0) return null;
                continue;
            }
            for (int position = 0; position < lane.next && wanted > 0 && !block && behind == 0; position++) {
                Place place = lane.at(position);
                if (place == null || !canGiveAgain(place, date)) continue;
                given.add(place);
                wanted--;
            }
            if (wanted == 0) return null;
            int size = family.ranges().get(range).size();
            if (lane.next == size) continue;
            if (family.chronological() && lane.latest != null && lane.latest.isAfter(date)) return "NotChronological";
            int next = lane.next;
            for (; next < size && wanted > 0; next++) {
                Place there = lane.at(next);
                if (there == null && family.isSkipped(range, next)) continue;
                if (there != null && (block || !canGiveAgain(there, date))) continue;
                given.add(there != null ? there : new Place(family, family.lane(range, date), range, next));
                wanted--;
            }
            passing.put(lane, next);
            if (wanted == 0) return null;
        }
        passing.clear();
        return "Exhausted";
    }

    private String type(Family family, LocalDate date, String typed, List<Place> given, Map<Lane, Integer> passing) {
        for (int range = 0; range < family.ranges().size(); range++) {
            for (int position = 0; position < family.ranges().get(range).size(); position++) {
                if (!family.text(date, family.value(range, position)).equalsIgnoreCase(typed)) continue;
                if (family.isSkipped(range, position)) return "TypedFaulty";
                Lane lane = lane(family, range, date);
                if (position < plans.end(family, family.lane(range, date))) return "PlanOpen";
                Place there = lane.at(position);
                if (there != null && !canGiveAgain(there, date) || there == null && position < lane.next)
                    return "TypedFaulty";
                Place place = there != null ? there : new Place(family, family.lane(range, date), range, position);
                if (there == null && position > lane.next) place.ahead = true;
                if (there == null && position == lane.next) passing.put(lane, position + 1);
                given.add(place);
                return null;
            }
        }
        return "TypedFaulty";
    }

    private Place find(String series, String text) {
        for (Lane lane : lanes.get(series).values())
            for (Place place : lane.places) if (place != null && place.text.equalsIgnoreCase(text)) return place;
        return null;
    }

    private Answer settle(Act.Settle act) {
        Family family = families.get(act.series());
        if (act.deed() == Deed.RETURN && !family.returns()) return refused("NoReturns");
        if (act.deed() == Deed.VOID && act.reason().isEmpty()) return refused("ReasonMissing");
        var chosen = new LinkedHashSet<Place>();
        String refusal =
                switch (act.selection()) {
                    case Selection.Identifiers each -> {
                        String found = null;
                        for (String text : each.texts())
                            if (found == null) found = choose(find(family.key(), text), act.deed(), chosen);
                        yield found;
                    }
                    case Selection.Through row -> row(family, row, act.deed(), chosen);
                    case Selection.Taken taken -> taking(family, taken.seq(), act.deed(), chosen);
                    case Selection.Reference named ->
                        taking(
                                family,
                                Optional.ofNullable(references.get(family.key() + "/" + named.reference()))
                                        .map(Known::seq)
                                        .orElse(0L),
                                act.deed(),
                                chosen);
                };
        if (refusal != null) return refused(refusal);
        if (chosen.isEmpty()) return refused("NothingFit");
        return change(new ArrayList<>(chosen), act.deed());
    }

    private String choose(Place place, Deed deed, Set<Place> chosen) {
        if (place == null) return "NeverGiven";
        boolean fits =
                switch (deed) {
                    case CONFIRM, RELEASE -> place.state == PositionState.HELD;
                    case RETURN, USE -> place.state == PositionState.ISSUED;
                    case VOID -> place.state.isLive() || place.state == PositionState.RETURNED;
                };
        if (!fits) return "Unfit";
        if (deed == Deed.RETURN && labels.allocatedBy(place.taken)) return "OnALabel";
        if (deed == Deed.RETURN && place.record != 0) return "OfARecord";
        if (deed == Deed.USE && place.block == 0) return "NotOfABlock";
        chosen.add(place);
        return null;
    }

    private String row(Family family, Selection.Through row, Deed deed, Set<Place> chosen) {
        Place first = find(family.key(), row.first());
        Place last = find(family.key(), row.last());
        if (first == null || last == null) return "NeverGiven";
        if (!first.lane.equals(last.lane) || first.position > last.position) return "NotARow";
        Lane lane = lanes.get(family.key()).get(first.lane);
        for (int position = first.position; position <= last.position; position++) {
            if (lane.at(position) == null) continue;
            String refusal = choose(lane.at(position), deed, chosen);
            if (refusal != null) return refusal;
        }
        return null;
    }

    private String taking(Family family, long entry, Deed deed, Set<Place> chosen) {
        Taking taking = takings.get(entry);
        if (taking == null || !taking.series().equals(family.key())) return "UnknownTaking";
        for (Place place : taking.places()) {
            boolean own = taking.block() ? place.block == entry : place.taken == entry;
            boolean fits = deed == Deed.VOID
                    ? place.state == PositionState.HELD || place.state == PositionState.ISSUED
                    : deed == Deed.CONFIRM || deed == Deed.RELEASE
                            ? place.state == PositionState.HELD
                            : place.state == PositionState.ISSUED;
            if (own && fits && (deed != Deed.USE || place.block != 0)) chosen.add(place);
        }
        return null;
    }

    private Answer change(List<Place> chosen, Deed deed) {
        settle(chosen, deed);
        return done(List.of(), chosen.size());
    }

    /** @param deed absent where holds lapse */
    void settle(List<Place> chosen, Deed deed) {
        var ended = new TreeSet<Long>();
        for (Place place : chosen) {
            boolean lived = place.state.isLive();
            place.state = deed == Deed.CONFIRM
                    ? PositionState.ISSUED
                    : deed == Deed.USE
                            ? PositionState.USED
                            : deed == Deed.VOID
                                    ? PositionState.VOIDED
                                    : isClosed(place.family, place.date)
                                            ? PositionState.CLOSED
                                            : givesAgain(place.family)
                                                    ? PositionState.RETURNED
                                                    : deed == null
                                                            ? PositionState.LAPSED
                                                            : deed == Deed.RELEASE
                                                                    ? PositionState.RELEASED
                                                                    : PositionState.UNUSED;
            if (lived && !place.state.isLive()) ended.add(place.taken);
        }
        for (long entry : ended) {
            // Those of records and tables are taken for no reference.
            Taking taking = takings.get(entry);
            if (taking != null
                    && taking.reference() != null
                    && taking.places().stream().noneMatch(place -> place.taken == entry && place.state.isLive()))
                references.remove(taking.series() + "/" + taking.reference());
        }
    }

    private Answer lapse(Instant now) {
        List<Place> due = all().stream()
                .filter(place -> place.state == PositionState.HELD && !place.until.isAfter(now))
                .toList();
        return due.isEmpty() ? new Answer("", 0, false, List.of(), 0) : change(due, null);
    }

    /** Whether a hold's time is up. */
    public boolean isDue(Instant now) {
        return all().stream().anyMatch(place -> place.state == PositionState.HELD && !place.until.isAfter(now));
    }

    /** Every position of a family that was given. */
    public List<Place> of(Family family) {
        var own = new ArrayList<Place>();
        for (Lane lane : lanes.get(family.key()).values())
            for (Place place : lane.places) if (place != null) own.add(place);
        return own;
    }

    public List<Place> all() {
        var all = new ArrayList<Place>();
        for (Map<String, Lane> own : lanes.values())
            for (Lane lane : own.values()) for (Place place : lane.places) if (place != null) all.add(place);
        return all;
    }

    private Answer split(Act.Split act) {
        Taking block = takings.get(act.block());
        if (block == null || !block.block()) return refused("UnknownTaking");
        if (act.quantity() < 1) return refused("QuantityOutOfBounds");
        List<Place> left = block.places().stream()
                .filter(place -> place.block == act.block() && place.state == PositionState.ISSUED)
                .limit(act.quantity())
                .toList();
        if (left.size() < act.quantity()) return refused("BlockTooSmall");
        long entry = seq + 1;
        left.forEach(place -> place.block = entry);
        takings.put(entry, new Taking(block.series(), null, true, left));
        return done(List.of(), act.quantity());
    }

    private Answer close(Act.Close act) {
        Period period = act.period();
        if (period.scope() == Period.Scope.SERIES
                ? !families.containsKey(period.key())
                : !period.key().equals("all")) return refused("UnknownScope");
        for (Closed each : closed.values())
            if (each.period().scope() == period.scope()
                    && each.period().key().equals(period.key())
                    && !each.period().from().isAfter(period.to())
                    && !each.period().to().isBefore(period.from())) return refused("ClosedAlready");
        List<Place> inside = all().stream()
                .filter(place -> period.includes(place.date)
                        && (period.scope() == Period.Scope.NAMESPACE
                                || period.key().equals(place.family.key())))
                .toList();
        if (inside.stream().anyMatch(place -> place.state == PositionState.HELD)) return refused("StillHeld");
        List<Place> returned = inside.stream()
                .filter(place -> place.state == PositionState.RETURNED)
                .toList();
        returned.forEach(place -> place.state = PositionState.CLOSED);
        Answer answer = done(List.of(), returned.size());
        closed.put(answer.seq(), new Closed(period));
        return answer;
    }

    public List<Long> closings() {
        return List.copyOf(closed.keySet());
    }

    public List<Long> takings() {
        return List.copyOf(new TreeSet<>(takings.keySet()));
    }
}
