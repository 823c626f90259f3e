package org.youngtally.service.api;

import java.util.Optional;
import org.youngtally.core.access.Authority;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.ledger.House;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;

/** Whether somebody may define what an act defines: each thing where it stands before the act and after it. */
final class DefiningRights {
    private DefiningRights() {}

    /** @throws Problem that names the missing grant */
    static void need(Caller caller, Ledger ledger, Act.Define act) {
        if (caller.may(Right.DEFINE, Where.EVERYWHERE)) return;
        // What is refused anyway changes nothing.
        if (!(ledger.decide(act) instanceof Decision.Done done)) return;
        House before = caller.house();
        Organisation organisation = before.organisation();
        for (Effect effect : done.effects()) {
            if (effect instanceof Effect.UnitDefined defined) organisation = organisation.with(defined.unit());
            if (effect instanceof Effect.KindDefined defined) organisation = organisation.with(defined.kind());
            if (effect instanceof Effect.RouteDefined defined) organisation = organisation.with(defined.route());
        }
        var after = new Caller(
                caller.account(),
                new House(
                        before.series(),
                        before.codebooks(),
                        organisation,
                        before.accounts(),
                        before.byToken(),
                        new Authority(organisation)),
                caller.token());
        for (Effect effect : done.effects()) {
            where(effect).ifPresent(where -> {
                if (existed(before, effect)) caller.need(Right.DEFINE, where);
                after.need(Right.DEFINE, where);
            });
        }
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
            // A namespace that begins with a series belongs to whoever may define that.
            case Effect.Compared compared -> compared.before().map(rule -> Where.EVERYWHERE);
            case Effect.NamespaceDefined defined -> Optional.of(Where.EVERYWHERE);
            // A file holds what the act defines, and no more.
            case Effect.FileKept kept -> Optional.empty();
            default -> throw new IllegalStateException("a definition has no such effect: " + effect);
        };
    }

    static Where of(Route route) {
        return new Where(Optional.empty(), Optional.of(route.kind()), Optional.of(route.unit()));
    }

    private static boolean existed(House before, Effect effect) {
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
