package org.youngtally.ledger;

import java.util.List;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.EntryQueries;

/** The ledger's answer to an act, which is on disk when it is given. */
public sealed interface Outcome {

    /** Numbers were taken. @param repeated whether by an earlier act, whose answer this is */
    record Taken(Taking taking, boolean repeated) implements Outcome {}

    /** Definitions were taken; none where all stood so already. */
    record Defined(List<Namespace> namespaces, List<Codebook> codebooks, List<Series> series, List<Unit> units, List<Kind> kinds, List<Route> routes) implements Outcome {
        /** Those among the effects of an act. */
        public static Defined by(List<Effect> effects) {
            return new Defined(of(effects, Effect.NamespaceDefined.class, Effect.NamespaceDefined::namespace), of(effects, Effect.CodebookDefined.class, Effect.CodebookDefined::codebook), of(effects, Effect.Defined.class, Effect.Defined::series),
                    of(effects, Effect.UnitDefined.class, Effect.UnitDefined::unit), of(effects, Effect.KindDefined.class, Effect.KindDefined::kind), of(effects, Effect.RouteDefined.class, Effect.RouteDefined::route));
        }

        private static <E extends Effect, T> List<T> of(List<Effect> effects, Class<E> sort, Function<E, T> defined) { return effects.stream().filter(sort::isInstance).map(sort::cast).map(defined).toList(); }
    }

    /** Something was done with numbers that were given, or with a period. @param repeated whether by an earlier act, whose answer this is */
    record Settled(EntryQueries.Row entry, boolean repeated) implements Outcome {}

    record Refused(Refusal refusal) implements Outcome {}

    static Outcome of(BatchWork.Outcome outcome, Ledger ledger) {
        return switch (outcome) {
            case BatchWork.Outcome.Refused refused -> new Refused(refused.refusal());
            case BatchWork.Outcome.Repeated repeated -> ledger.read(dsl -> of(new EntryQueries(dsl).at(repeated.seq()).orElseThrow(), true, dsl));
            case BatchWork.Outcome.Done done when done.entry().map(entry -> entry.kind() == Entry.Kind.DEFINE || entry.kind() == Entry.Kind.REMOVE).orElse(true) -> Defined.by(done.entry().map(Entry::effects).orElse(List.of()));
            case BatchWork.Outcome.Done done when done.entry().orElseThrow().kind().takes() -> new Taken(Taking.of(done.entry().get(), ledger), false);
            case BatchWork.Outcome.Done done -> new Settled(EntryQueries.of(done.entry().orElseThrow()), false);
        };
    }

    private static Outcome of(EntryQueries.Row row, boolean repeated, DSLContext dsl) { return row.kind().takes() ? new Taken(Taking.of(row, dsl), repeated) : new Settled(row, repeated); }
}
