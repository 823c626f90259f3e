package org.youngtally.service.api;

import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.access.Caller;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Whether somebody may define what an act defines: each thing where it stands before the act and after it. */
final class DefiningRights {
    private final Caller before;
    /** The same on the organisation as it would be. */
    private final Caller after;

    private DefiningRights(Caller before, Caller after) {
        this.before = before;
        this.after = after;
    }

    /** @throws Problem that names the missing grant */
    static void need(Caller caller, Ledger ledger, Act.Define act) {
        if (caller.may(Right.DEFINE, Where.EVERYWHERE)) return;
        // What is refused anyway changes nothing.
        if (!(ledger.decide(act) instanceof Decision.Done done)) return;
        LedgerSnapshot before = caller.snapshot();
        Organisation organisation = before.organisation();
        for (Effect effect : done.effects()) {
            if (effect instanceof Effect.UnitDefined defined) organisation = organisation.with(defined.unit());
            if (effect instanceof Effect.KindDefined defined) organisation = organisation.with(defined.kind());
            if (effect instanceof Effect.RouteDefined defined) organisation = organisation.with(defined.route());
        }
        var after = new Caller(caller.account(), before.with(organisation), caller.token());
        var rights = new DefiningRights(caller, after);
        for (Effect effect : done.effects()) rights.need(effect);
    }

    /** Does it, with a look at the rights first; where it has to be proved, by a thread for such work. */
    static Outcome.Defined define(Caller caller, Ledger ledger, HeavyWork work, Act.Define act) {
        return work.run(Sort.PROOF, caller.name(), () -> {
            need(caller, ledger, act);
            return Requests.defined(ledger, act, caller.name());
        });
    }

    private void need(Effect effect) {
        where(effect).ifPresent(where -> {
            if (existed(before.snapshot(), effect)) needToDefine(before, where);
            needToDefine(after, where);
        });
        switch (effect) {
            case Effect.UnitDefined defined -> place(defined.unit());
            case Effect.RouteDefined defined -> series(defined.route().series());
            case Effect.Defined defined -> {
                Series was = before.snapshot().series().get(defined.series().key());
                defined.series().codebooks().stream()
                        .filter(book -> was == null || !was.codebooks().contains(book))
                        .forEach(this::codebook);
            }
            case Effect.KindDefined defined -> {
                Kind was = before.snapshot()
                        .organisation()
                        .kinds()
                        .get(defined.kind().key());
                Set<String> had = was == null ? Set.of() : was.codebooks();
                defined.kind().codebooks().stream()
                        .filter(book -> !had.contains(book))
                        .forEach(this::codebook);
            }
            default -> {}
        }
    }

    /** Whoever puts a unit below another lets those above see what is in it, and it what stands above. */
    private void place(Unit unit) {
        Unit was = before.snapshot().organisation().units().get(unit.key());
        if (was != null && was.below().equals(unit.below())) return;
        Stream.concat(Stream.of(unit.below()), Stream.ofNullable(was).map(Unit::below))
                .map(above -> above.map(Where::unit).orElse(Where.EVERYWHERE))
                .forEach(where -> needToDefine(after, where));
    }

    /** Whoever leads a route to a series may give it to others: it must be theirs to define, as it was before. */
    private void series(String key) {
        if (before.snapshot().series().containsKey(key)) needToDefine(before, Where.series(key));
    }

    /** Which keys are taken is told to whoever defines: they could not choose one otherwise. */
    static void needToDefine(Caller caller, Where where) {
        if (!caller.may(Right.DEFINE, where)) throw caller.missing(Right.DEFINE, where);
    }

    /** Whoever draws a codebook in shows its choices to others: it must be theirs to read. */
    private void codebook(String key) {
        if (before.snapshot().codebooks().containsKey(key) && !before.readsCodebook(key))
            throw new Problem(
                            Type.GRANT_MISSING,
                            "‘" + before.name() + "’ may not use the codebook ‘" + key
                                    + "’: no series or kind that it may read uses it.")
                    .field("grant", "‘read for all’, or read for a series or a kind that uses the codebook")
                    .with("right", Right.READ.word());
    }

    private static Optional<Where> where(Effect effect) {
        return switch (effect) {
            case Effect.Defined defined ->
                Optional.of(Where.series(defined.series().key()));
            case Effect.UnitDefined defined ->
                Optional.of(Where.unit(defined.unit().key()));
            case Effect.KindDefined defined ->
                Optional.of(Where.kind(defined.kind().key()));
            case Effect.RouteDefined defined -> Optional.of(of(defined.route()));
            case Effect.CodebookDefined defined -> Optional.of(Where.EVERYWHERE);
            case Effect.LayoutDefined defined -> Optional.of(Where.EVERYWHERE);
            // A namespace that begins with a series belongs to whoever may define that.
            case Effect.ComparisonChanged compared -> compared.before().map(rule -> Where.EVERYWHERE);
            case Effect.NamespaceDefined defined -> Optional.of(Where.EVERYWHERE);
            // A file holds what the act defines, and no more.
            case Effect.FileKept kept -> Optional.empty();
            default -> throw new IllegalStateException("a definition has no such effect: " + effect);
        };
    }

    static Where of(Route route) {
        return new Where(Optional.empty(), Optional.of(route.kind()), Optional.of(route.unit()));
    }

    private static boolean existed(LedgerSnapshot before, Effect effect) {
        return switch (effect) {
            case Effect.Defined defined ->
                before.series().containsKey(defined.series().key());
            case Effect.UnitDefined defined ->
                before.organisation().units().containsKey(defined.unit().key());
            case Effect.KindDefined defined ->
                before.organisation().kinds().containsKey(defined.kind().key());
            case Effect.RouteDefined defined ->
                before.organisation().routes().containsKey(defined.route().key());
            default -> true;
        };
    }
}
