package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import java.util.OptionalLong;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Series;

/** A ledger in memory, for tests: acts are decided on it one by one, and what they do is taken in. */
public final class MemoryLedger {
    final StateInMemory state = new StateInMemory(new NoRows() {
        /** A block keeps no texts: its numbers are read, here as those of today. */
        @Override
        public Optional<Span> spot(Series series, String text) {
            return inBlock(series, text);
        }
    });
    private LocalDate day;
    private long seq;

    Decision decide(Act<?> act, Instant now, LocalDate today) {
        day = today;
        Decision decision = Decider.decide(state, act, now, today);
        if (!(decision instanceof Decision.Done done) || done.effects().isEmpty()) return decision;
        seq++;
        Optional<String> reference = act instanceof Act.Allocate allocate ? allocate.reference() : Optional.empty();
        state.take(seq, reference, done.effects());
        act.known().ifPresent(mark -> mark.key()
                .ifPresent(key -> state.rememberKey(mark.account(), key, new EarlierAct(seq, mark.digest()))));
        reference.ifPresent(name -> state.rememberReference(
                ((Act.Allocate) act).series(),
                name,
                new EarlierAct(
                        seq,
                        act.known().orElseThrow().digest(),
                        Optional.of(new LedgerState.AskedFor(
                                LedgerState.Way.of(((Act.Allocate) act).form()),
                                ((Act.Allocate) act).purpose().unit())))));
        return decision;
    }

    private Optional<Span> inBlock(Series series, String text) {
        var particulars = Particulars.on(day);
        OptionalLong value = series.pattern().read(text, particulars);
        return value.isEmpty()
                ? Optional.empty()
                : series.serving(day).stream()
                        .flatMap(range -> state.lane(series.lane(range, particulars)).stream()
                                .filter(lane -> range.positionOf(value.getAsLong()) >= 0
                                        && range.positionOf(value.getAsLong()) < lane.next())
                                .map(lane -> new Span(
                                        lane.lane(),
                                        range.positionOf(value.getAsLong()),
                                        range.positionOf(value.getAsLong()))))
                        .findFirst();
    }

    long seq() {
        return seq;
    }

    /** Performs an act on a day on which nothing depends. */
    public Decision perform(Act<?> act) {
        return decide(act, Instant.parse("2026-03-02T09:00:00Z"), LocalDate.of(2026, 3, 2));
    }

    public LedgerState state() {
        return state;
    }
}
