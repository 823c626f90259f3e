package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.store.EntryQueries;

/**
 * The ledger's answer to an act, which is on disk when it is given.
 *
 * @param <A> what the act is answered with, unless it is refused
 */
public sealed interface Outcome<A extends Answer> {

    /**
     * Numbers were taken.
     *
     * @param repeated whether by an earlier act, whose answer this is
     */
    record Taken(Taking taking, boolean repeated) implements Outcome<Answer.Numbers> {}

    /** Definitions were taken; none where all stood so already. */
    record Defined(
            List<Namespace> namespaces,
            List<Codebook> codebooks,
            List<Series> series,
            List<Unit> units,
            List<Kind> kinds,
            List<Route> routes,
            List<KeptLayout> layouts)
            implements Outcome<Answer.Definitions> {
        /** Those among the effects of an act. */
        public static Defined by(List<Effect> effects) {
            return new Defined(
                    of(effects, Effect.NamespaceDefined.class, Effect.NamespaceDefined::namespace),
                    of(effects, Effect.CodebookDefined.class, Effect.CodebookDefined::codebook),
                    of(effects, Effect.Defined.class, Effect.Defined::series),
                    of(effects, Effect.UnitDefined.class, Effect.UnitDefined::unit),
                    of(effects, Effect.KindDefined.class, Effect.KindDefined::kind),
                    of(effects, Effect.RouteDefined.class, Effect.RouteDefined::route),
                    of(effects, Effect.LayoutDefined.class, Effect.LayoutDefined::layout));
        }

        private static <E extends Effect, T> List<T> of(List<Effect> effects, Class<E> sort, Function<E, T> defined) {
            return effects.stream()
                    .filter(sort::isInstance)
                    .map(sort::cast)
                    .map(defined)
                    .toList();
        }
    }

    /**
     * Something was done with numbers that were given, or with a period.
     *
     * @param repeated whether by an earlier act, whose answer this is
     */
    record Settled(EntryQueries.Row entry, boolean repeated) implements Outcome<Answer.Settlement> {}

    /** An account is so from now on. */
    record Changed(Account account) implements Outcome<Answer.AccountState> {}

    /**
     * A record is kept.
     *
     * @param record as the act left it
     * @param entry of the act; absent where nothing had to be done
     * @param known whether it was found by what it is known by, and nothing was allocated
     */
    record Recorded(KeptRecord record, Optional<EntryQueries.Row> entry, boolean repeated, boolean known)
            implements Outcome<Answer.Record> {}

    /**
     * The rows of a table have their numbers.
     *
     * @param identifiers in the order of the rows
     * @param repeated whether by an earlier act, whose answer this is
     * @param withdrawn how many of them are not what that act made of them any more
     */
    record Filled(EntryQueries.Row entry, List<String> identifiers, boolean repeated, long withdrawn)
            implements Outcome<Answer.Table> {}

    /**
     * Something was done with a job of labels.
     *
     * @param repeated whether by an earlier act, whose answer this is
     * @param job the entry that began it
     */
    record Labelled(EntryQueries.Row entry, boolean repeated, long job) implements Outcome<Answer.Labels> {}

    /** Nothing was done. */
    record Refused<A extends Answer>(Refusal refusal) implements Outcome<A> {}
}
