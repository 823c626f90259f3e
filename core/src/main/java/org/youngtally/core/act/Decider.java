package org.youngtally.core.act;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.access.AccountDecision;
import org.youngtally.core.act.LedgerState.Closed;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.proof.Prover;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Policy;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;

/**
 * Decides what an act does. A pure function of the state, the act and today's date: it reads no clock and changes
 * nothing.
 */
public final class Decider {
    /** The most numbers that stand alone, taken in one request; more are taken as a block. */
    public static final long MOST_SINGLES = 10_000;

    /** The most numbers, or runs of numbers, that one act settles: no more than a batch does. */
    public static final int MOST_SETTLED = 1_000;

    private Decider() {}

    /** The longest that a number can be held. */
    public static final Duration LONGEST_HOLD = Duration.ofDays(366);

    /**
     * @param now the time, from which a hold is counted
     * @param today the date of an act that names none
     */
    public static Decision decide(LedgerState state, Act<?> act, Instant now, LocalDate today) {
        return decide(state, act, now, today, Prover.LOOKING);
    }

    /** @param prover what definitions are proved by */
    public static Decision decide(LedgerState state, Act<?> act, Instant now, LocalDate today, Prover prover) {
        Optional<Decision> earlier = act.known().flatMap(mark -> earlier(state, mark));
        if (earlier.isPresent()) return earlier.get();
        return switch (act) {
            case Act.Allocate allocate ->
                byReference(state, allocate).orElseGet(() -> allocate(state, allocate, now, today));
            case Act.Settle settle ->
                state.series(settle.series())
                        .map(series -> new SettlingDecision(state).decide(settle, series))
                        .orElseGet(() -> unknown(state, settle.series()));
            case Act.Lapse lapse -> new SettlingDecision(state).lapse(state.due(lapse.now(), MOST_LAPSES));
            case Act.Split split -> new SettlingDecision(state).split(split);
            case Act.Close close -> new Closing(state).close(close);
            case Act.Reopen reopen -> new Closing(state).reopen(reopen);
            case Act.Define define -> DefiningDecision.decide(state, define, prover);
            case Act.RemoveRoute remove -> OrganisationDefinitions.remove(state, remove);
            case Act.ChangeAccount change -> account(state, change);
            case Act.SaveRecord save -> new Recording(state, now, today).save(save);
            case Act.ChangeRecord change -> new Recording(state, now, today).change(change);
            case Act.FillTable fill -> new TableFilling(state, fill, now, today).decide();
            case Act.Continue on -> new ContinueDecision(state, on).decide();
            case Act.StateHighest stated -> new StatingDecision(state, stated).decide();
            case Act.Resume resume -> new Decision.Done(List.of(new Effect.EpochBegun(resume.epoch())));
            case Act.CarryOut carry -> new PlanDecision(state, carry.series()).decide(carry.step());
            case Act.NumberRows rows -> new PlanDecision(state, rows.series()).number(rows, now);
            case Act.NumberDocument number -> new DocumentDecision(state, number, now, today).decide();
            case Act.PrintLabels print -> new LabelDecision(state, now, today).print(print);
            case Act.ChangeLabels change -> new LabelDecision(state, now, today).change(change);
        };
    }

    /** The most holds that lapse in one act. */
    private static final int MOST_LAPSES = 1_000;

    /** Takes numbers, whatever they were taken for before. */
    static Decision allocate(LedgerState state, Act.Allocate act, Instant now, LocalDate today) {
        Optional<Series> known = state.series(act.series());
        if (known.isEmpty()) return unknown(state, act.series());
        Series series = known.get();
        if (series.retired()) return refused(new Refusal.Retired(Refusal.What.SERIES, series.key()));
        Optional<String> retired = act.purpose().unit().filter(unit -> Optional.ofNullable(
                        state.organisation().units().get(unit))
                .filter(Unit::retired)
                .isPresent());
        if (retired.isPresent()) return refused(new Refusal.Retired(Refusal.What.UNIT, retired.get()));
        long most = act.form().isBlock() ? Long.MAX_VALUE : act.form() instanceof Act.Form.Typed ? 1 : MOST_SINGLES;
        if (act.quantity() < 1 || act.quantity() > most)
            return refused(new Refusal.QuantityOutOfBounds(act.quantity(), most, act.form()));
        if (act.form().isBlock() && (series.proofWaived() || series.order().repeats()))
            return refused(new Refusal.NoBlocks(act.series(), series.order().repeats()));
        if (act.form() instanceof Act.Form.Held held
                && (held.time().isNegative()
                        || held.time().isZero()
                        || held.time().compareTo(LONGEST_HOLD) > 0))
            return refused(new Refusal.HoldOutOfBounds(act.series(), held.time(), LONGEST_HOLD));
        Policy.Typed typed = series.policy().typed();
        if (act.form() instanceof Act.Form.Typed ? typed == Policy.Typed.REFUSED : typed == Policy.Typed.REQUIRED)
            return refused(new Refusal.TypedNotAllowed(act.series(), typed == Policy.Typed.REQUIRED));
        return switch (Fields.of(series, state::choices).read(act.fields())) {
            case Fields.Reading.Faulty faulty -> refused(new Refusal.FieldFaulty(act.series(), faulty.fault()));
            case Fields.Reading.Understood understood ->
                take(
                        state,
                        series,
                        act,
                        new Particulars(
                                act.date().orElseGet(() -> today(state, act.purpose(), now, today)),
                                understood.fields()),
                        now);
        };
    }

    /** Today where the numbers are for: a unit may have a time zone of its own. */
    private static LocalDate today(LedgerState state, Purpose purpose, Instant now, LocalDate today) {
        return purpose.unit()
                .map(unit -> state.organisation().units().get(unit))
                .flatMap(Unit::zone)
                .map(zone -> LocalDate.ofInstant(now, zone))
                .orElse(today);
    }

    private static Decision account(LedgerState state, Act.ChangeAccount act) {
        return switch (AccountDecision.decide(
                state.accounts(),
                state.organisation(),
                state.allSeries().stream().map(Series::key).toList(),
                act.account(),
                act.change())) {
            case AccountDecision.Result.Refused refused -> refused(new Refusal.AccountFaulty(refused.refusal()));
            case AccountDecision.Result.Done done ->
                new Decision.Done(
                        done.account().equals(state.accounts().get(act.account()))
                                ? List.of()
                                : List.of(new Effect.AccountChanged(done.account())));
        };
    }

    /** Takes numbers for particulars that are understood. */
    static Decision take(LedgerState state, Series series, Act.Allocate act, Particulars particulars, Instant now) {
        Optional<Closed> closed = state.closedAt(series, particulars.date());
        if (closed.isPresent())
            return refused(new Refusal.DateClosed(
                    series.key(),
                    particulars.date(),
                    closed.get().period(),
                    closed.get().closing()));
        if (act.form() instanceof Act.Form.Typed typed)
            return new TypedTake(state, series, particulars, typed.text()).decide();
        return new Take(state, series, act, particulars, now).decide();
    }

    private static Decision unknown(LedgerState state, String key) {
        return refused(new Refusal.UnknownSeries(
                key,
                NearestName.to(key, state.allSeries().stream().map(Series::key).toList())));
    }

    private static Optional<Decision> earlier(LedgerState state, RequestMark mark) {
        return mark.key()
                .flatMap(key -> state.byKey(mark.account(), key))
                .map(found -> found.digest().equals(mark.digest())
                        ? new Decision.Repeated(found.seq())
                        : refused(new Refusal.KeyReused(mark.key().orElseThrow(), found.seq())));
    }

    private static Optional<Decision> byReference(LedgerState state, Act.Allocate act) {
        return act.reference()
                .flatMap(reference -> state.byReference(act.series(), reference))
                .map(found -> found.digest().equals(act.mark().digest()) || asksForTheSame(state, act, found)
                        ? new Decision.Repeated(found.seq())
                        : refused(new Refusal.ReferenceReused(
                                act.series(), act.reference().orElseThrow(), found.seq())));
    }

    /**
     * Whether a request means what an earlier one with its reference meant, though it is written otherwise: the same
     * series, date, fields, unit, quantity and form. A date that it does not name is that of the earlier one.
     */
    private static boolean asksForTheSame(LedgerState state, Act.Allocate act, LedgerState.EarlierAct found) {
        Optional<LedgerState.AskedFor> asked = found.asked();
        Optional<Series> series = state.series(act.series());
        Optional<LedgerState.Taken> taken = state.taking(found.seq());
        if (asked.isEmpty() || series.isEmpty() || taken.isEmpty()) return false;
        if (asked.get().way() != LedgerState.Way.of(act.form())
                || !asked.get().unit().equals(act.purpose().unit())
                || taken.get().spans().stream().mapToLong(Span::quantity).sum() != act.quantity()) return false;
        Optional<Map<String, String>> fields =
                Fields.of(series.get(), state::choices).kept(act.fields());
        Optional<Stretch> kept = taken.get().spans().stream()
                .flatMap(span -> state.stretches(span.lane(), span.from(), span.to()).stream())
                .filter(stretch -> stretch.origin().seq() == found.seq())
                .findFirst();
        return fields.isPresent()
                && kept.isPresent()
                && kept.get().origin().particulars().fields().equals(fields.get())
                && act.date()
                        .map(kept.get().origin().particulars().date()::equals)
                        .orElse(true)
                && (!(act.form() instanceof Act.Form.Typed typed)
                        || kept.get()
                                .origin()
                                .text()
                                .filter(text -> series.get().comparison().alike(text, typed.text()))
                                .isPresent());
    }

    private static Decision refused(Refusal refusal) {
        return new Decision.Refused(refusal);
    }
}
