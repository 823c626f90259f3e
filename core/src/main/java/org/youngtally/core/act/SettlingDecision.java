package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import org.youngtally.core.act.LedgerState.Taken;
import org.youngtally.core.series.Series;

/**
 * Says what became of numbers that were given: which of them an act is about, whether it may, and what they are then.
 */
final class SettlingDecision {
    private final LedgerState state;
    private final long ownRecord;
    private final Map<Integer, TreeMap<Long, Stretch>> chosen = new LinkedHashMap<>();

    SettlingDecision(LedgerState state) {
        this(state, 0);
    }

    /** @param ownRecord the record whose number it is about, which may be given back with it; 0 for none */
    SettlingDecision(LedgerState state, long ownRecord) {
        this.state = state;
        this.ownRecord = ownRecord;
    }

    Decision decide(Act.Settle act, Series series) {
        if (act.deed() == Act.Deed.RETURN && !series.policy().returns())
            return refused(new Refusal.NoReturns(series.key()));
        if (act.deed() == Act.Deed.VOID && act.reason().isEmpty())
            return refused(new Refusal.ReasonMissing(act.deed().word()));
        Optional<Refusal> refusal =
                switch (act.selection()) {
                    case Selection.Identifiers each -> identifiers(act, series, each.texts());
                    case Selection.Through row -> row(act, series, row);
                    case Selection.Taken taken ->
                        taking(act, series, state.taking(taken.seq()), taken.seq(), "entry " + taken.seq());
                    case Selection.Reference named -> {
                        Optional<Long> holder = state.holder(series.key(), named.reference());
                        yield taking(
                                act,
                                series,
                                holder.flatMap(state::taking),
                                holder.orElse(0L),
                                "the reference ‘" + named.reference() + "’");
                    }
                };
        if (refusal.isPresent()) return refused(refusal.get());
        if (chosen.isEmpty()) return refused(new Refusal.NothingFit(series.key(), act.deed()));
        List<Effect> effects = settle(act.deed());
        return effects.size() > Decider.MOST_SETTLED
                ? refused(new Refusal.TooManyPieces(series.key(), effects.size(), Decider.MOST_SETTLED))
                : new Decision.Done(effects);
    }

    /** Ends holds whose time is up. */
    Decision lapse(List<Span> due) {
        for (Span span : due)
            state.stretches(span.lane(), span.from(), span.to()).stream()
                    .filter(stretch -> stretch.state() == PositionState.HELD)
                    .forEach(stretch -> choose(span.lane(), stretch));
        return new Decision.Done(settle(null));
    }

    /** Settles of some numbers those that can be: whatever somebody did with the others, it stays so. */
    List<Effect> settle(List<Span> spans, Act.Deed deed) {
        for (Span span : spans)
            for (Stretch stretch : state.stretches(span.lane(), span.from(), span.to()))
                if (deed == Act.Deed.VOID ? stretch.state().isLive() : stretch.state() == PositionState.ISSUED)
                    choose(span.lane(), stretch);
        return settle(deed);
    }

    private void choose(int lane, Stretch stretch) {
        chosen.computeIfAbsent(lane, added -> new TreeMap<>()).put(stretch.from(), stretch);
    }

    private Optional<Refusal> identifiers(Act.Settle act, Series series, List<String> texts) {
        if (texts.size() > Decider.MOST_SETTLED)
            return Optional.of(new Refusal.TooManyPieces(series.key(), texts.size(), Decider.MOST_SETTLED));
        for (String text : texts) {
            Optional<Span> spot = state.spot(series, text);
            if (spot.isEmpty()) return Optional.of(new Refusal.NeverGiven(series.key(), text));
            Optional<Refusal> refusal = each(act, series, spot.get());
            if (refusal.isPresent()) return refusal;
        }
        return Optional.empty();
    }

    private Optional<Refusal> row(Act.Settle act, Series series, Selection.Through row) {
        Optional<Span> first = state.spot(series, row.first());
        Optional<Span> last = state.spot(series, row.last());
        if (first.isEmpty() || last.isEmpty())
            return Optional.of(new Refusal.NeverGiven(series.key(), first.isEmpty() ? row.first() : row.last()));
        if (first.get().lane() != last.get().lane()
                || first.get().from() > last.get().from())
            return Optional.of(new Refusal.NotARow(series.key(), row.first(), row.last()));
        return each(
                act,
                series,
                new Span(first.get().lane(), first.get().from(), last.get().from()));
    }

    /** All of them must be fit, but for what was passed over between them. */
    private Optional<Refusal> each(Act.Settle act, Series series, Span span) {
        for (Stretch stretch : state.stretches(span.lane(), span.from(), span.to())) {
            boolean passedOver =
                    stretch.state() == PositionState.SKIPPED || stretch.state() == PositionState.GAP_CLOSED;
            if (passedOver && span.from() < span.to()) continue;
            if (!fits(act.deed(), stretch.state(), true))
                return Optional.of(new Refusal.Unfit(
                        series.key(),
                        text(series, span.lane(), stretch),
                        stretch.state(),
                        act.deed(),
                        stretch.changed() == 0 ? stretch.origin().seq() : stretch.changed()));
            Optional<Refusal> inUse = inUse(act, series, span.lane(), stretch);
            if (inUse.isPresent()) return inUse;
            if (act.deed() == Act.Deed.USE && stretch.block() == 0 && stretch.state() != PositionState.IN_DOUBT)
                return Optional.of(new Refusal.NotOfABlock(series.key(), text(series, span.lane(), stretch)));
            choose(span.lane(), stretch);
        }
        return Optional.empty();
    }

    /** A number that is given back is given again, and a record or a label would have it beside another. */
    private Optional<Refusal> inUse(Act.Settle act, Series series, int lane, Stretch stretch) {
        if (act.deed() != Act.Deed.RETURN) return Optional.empty();
        Optional<Long> job = state.labelJob(stretch.origin().seq());
        if (job.isPresent())
            return Optional.of(new Refusal.OnALabel(series.key(), text(series, lane, stretch), job.get()));
        if (stretch.origin().text().isEmpty()) return Optional.empty();
        String text = stretch.origin().text().get();
        return state.numberedRecord(series, text)
                .filter(id -> id != ownRecord)
                .flatMap(state::record)
                .filter(record -> !record.deleted() && record.number().text().equals(text))
                .map(record -> new Refusal.OfARecord(series.key(), text, record.id()));
    }

    private String text(Series series, int lane, Stretch stretch) {
        return Identifiers.at(series, state.laneKey(lane), stretch, stretch.from());
    }

    /** Those of an entry that are fit; the others are left as they are. */
    private Optional<Refusal> taking(Act.Settle act, Series series, Optional<Taken> found, long seq, String what) {
        Optional<Taken> block = state.block(seq);
        Optional<Taken> taken = block.isPresent() ? block : found;
        if (taken.isEmpty() || !taken.get().series().equals(series.key()))
            return Optional.of(new Refusal.UnknownTaking(series.key(), what));
        for (Span span : taken.get().spans())
            for (Stretch stretch : state.stretches(span.lane(), span.from(), span.to())) {
                boolean own = block.isPresent()
                        ? stretch.block() == seq
                        : stretch.origin().seq() == seq;
                if (!own
                        || !fits(act.deed(), stretch.state(), false)
                        || act.deed() == Act.Deed.USE && stretch.block() == 0) continue;
                Optional<Refusal> inUse = inUse(act, series, span.lane(), stretch);
                if (inUse.isPresent()) return inUse;
                choose(span.lane(), stretch);
            }
        return Optional.empty();
    }

    /** @param named whether the number was named, and not only the entry that gave it */
    private static boolean fits(Act.Deed deed, PositionState now, boolean named) {
        return switch (deed) {
            case CONFIRM, RELEASE -> now == PositionState.HELD;
            case RETURN -> now == PositionState.ISSUED;
            case USE -> now == PositionState.ISSUED || named && now == PositionState.IN_DOUBT;
            case VOID ->
                named
                        ? now.isLive() || now == PositionState.RETURNED
                        : now == PositionState.HELD || now == PositionState.ISSUED;
        };
    }

    /** @param deed absent where holds lapse */
    private List<Effect> settle(Act.Deed deed) {
        var effects = new ArrayList<Effect>();
        var ended = new TreeSet<Long>();
        chosen.forEach((lane, stretches) -> {
            Series series = state.series(state.laneKey(lane).series()).orElseThrow();
            Effect.Settled run = null;
            for (Stretch stretch : stretches.values()) {
                PositionState now = then(deed, series, stretch);
                if (!now.isLive() && stretch.state().isLive())
                    ended.add(stretch.origin().seq());
                String first = Identifiers.at(series, state.laneKey(lane), stretch, stretch.from());
                String last = stretch.from() == stretch.to()
                        ? first
                        : Identifiers.at(series, state.laneKey(lane), stretch, stretch.to());
                boolean goesOn = run != null
                        && run.to() + 1 == stretch.from()
                        && run.was() == stretch.state()
                        && run.since() == stretch.changed()
                        && run.now() == now;
                if (run != null && !goesOn) effects.add(run);
                run = new Effect.Settled(
                        lane,
                        goesOn ? run.from() : stretch.from(),
                        stretch.to(),
                        stretch.state(),
                        stretch.changed(),
                        now,
                        goesOn ? run.first() : first,
                        last);
            }
            effects.add(run);
        });
        ended.forEach(seq -> freed(seq).ifPresent(effects::add));
        return effects;
    }

    private PositionState then(Act.Deed deed, Series series, Stretch stretch) {
        if (deed == Act.Deed.CONFIRM) return PositionState.ISSUED;
        if (deed == Act.Deed.USE) return stretch.block() == 0 ? PositionState.ISSUED : PositionState.USED;
        if (deed == Act.Deed.VOID) return PositionState.VOIDED;
        if (state.closedAt(series, stretch.origin().particulars().date()).isPresent()) return PositionState.CLOSED;
        boolean known = stretch.origin().seq() > state.statedAt(series.key());
        if (known && series.policy().givesAgain()) return PositionState.RETURNED;
        return deed == null
                ? PositionState.LAPSED
                : deed == Act.Deed.RELEASE ? PositionState.RELEASED : PositionState.UNUSED;
    }

    /** The reference of an entry none of whose numbers stands for anything once this is done. */
    private Optional<Effect> freed(long seq) {
        Optional<Taken> taken = state.taking(seq);
        if (taken.isEmpty() || taken.get().reference().isEmpty()) return Optional.empty();
        String reference = taken.get().reference().get();
        for (Span span : taken.get().spans())
            for (Stretch stretch : state.stretches(span.lane(), span.from(), span.to()))
                if (stretch.origin().seq() == seq && stretch.state().isLive() && !isChosen(span.lane(), stretch))
                    return Optional.empty();
        return Optional.of(new Effect.ReferenceFreed(taken.get().series(), reference, seq));
    }

    /** Whether all of a stretch is among the chosen, perhaps in pieces. */
    private boolean isChosen(int lane, Stretch stretch) {
        TreeMap<Long, Stretch> own = chosen.getOrDefault(lane, new TreeMap<>());
        for (long at = stretch.from(); at <= stretch.to(); ) {
            Map.Entry<Long, Stretch> floor = own.floorEntry(at);
            if (floor == null || floor.getValue().to() < at) return false;
            at = floor.getValue().to() + 1;
        }
        return true;
    }

    /** Hands the first numbers of a block that were not reported yet to somebody else. */
    Decision split(Act.Split act) {
        Optional<Taken> block = state.block(act.block());
        if (block.isEmpty()) return refused(new Refusal.UnknownTaking("", "block " + act.block()));
        if (act.quantity() < 1)
            return refused(new Refusal.QuantityOutOfBounds(act.quantity(), Long.MAX_VALUE, Act.Form.BLOCK));
        var effects = new ArrayList<Effect>();
        long wanted = act.quantity();
        for (Span span : block.get().spans())
            for (Stretch stretch : state.stretches(span.lane(), span.from(), span.to())) {
                if (stretch.block() != act.block() || stretch.state() != PositionState.ISSUED || wanted == 0) continue;
                long quantity = Math.min(wanted, stretch.quantity());
                effects.add(new Effect.Handed(span.lane(), stretch.from(), stretch.from() + quantity - 1, act.block()));
                wanted -= quantity;
            }
        return wanted > 0
                ? refused(new Refusal.BlockTooSmall(act.block(), act.quantity(), act.quantity() - wanted))
                : new Decision.Done(effects);
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
