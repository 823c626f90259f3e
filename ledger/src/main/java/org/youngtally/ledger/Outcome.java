package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.RecordQueries;

/** The ledger's answer to an act, which is on disk when it is given. */
public sealed interface Outcome {

    /**
     * Numbers were taken.
     *
     * @param repeated whether by an earlier act, whose answer this is
     */
    record Taken(Taking taking, boolean repeated) implements Outcome {}

    /** Definitions were taken; none where all stood so already. */
    record Defined(
            List<Namespace> namespaces,
            List<Codebook> codebooks,
            List<Series> series,
            List<Unit> units,
            List<Kind> kinds,
            List<Route> routes)
            implements Outcome {
        /** Those among the effects of an act. */
        public static Defined by(List<Effect> effects) {
            return new Defined(
                    of(effects, Effect.NamespaceDefined.class, Effect.NamespaceDefined::namespace),
                    of(effects, Effect.CodebookDefined.class, Effect.CodebookDefined::codebook),
                    of(effects, Effect.Defined.class, Effect.Defined::series),
                    of(effects, Effect.UnitDefined.class, Effect.UnitDefined::unit),
                    of(effects, Effect.KindDefined.class, Effect.KindDefined::kind),
                    of(effects, Effect.RouteDefined.class, Effect.RouteDefined::route));
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
    record Settled(EntryQueries.Row entry, boolean repeated) implements Outcome {}

    /**
     * A record is kept.
     *
     * @param record as the act left it
     * @param entry of the act; absent where nothing had to be done
     * @param known whether it was found by what it is known by, and nothing was taken
     */
    record Recorded(KeptRecord record, Optional<EntryQueries.Row> entry, boolean repeated, boolean known)
            implements Outcome {}

    /**
     * The rows of a table have their numbers.
     *
     * @param identifiers in the order of the rows
     * @param repeated whether by an earlier act, whose answer this is
     * @param withdrawn how many of them are not what that act made of them any more
     */
    record Filled(EntryQueries.Row entry, List<String> identifiers, boolean repeated, long withdrawn)
            implements Outcome {}

    record Refused(Refusal refusal) implements Outcome {}

    /** @param act that it is the outcome of */
    static Outcome of(BatchWork.Outcome outcome, Act act, Ledger ledger) {
        return switch (outcome) {
            case BatchWork.Outcome.Refused refused -> new Refused(refused.refusal());
            case BatchWork.Outcome.Unproved unproved -> throw new IllegalStateException("it is proved first");
            case BatchWork.Outcome.Repeated repeated ->
                ledger.read(dsl -> of(new EntryQueries(dsl).at(repeated.seq()).orElseThrow(), true, dsl));
            case BatchWork.Outcome.Known known ->
                ledger.read(dsl -> new Recorded(
                        new RecordQueries(dsl).at(known.record()).orElseThrow(), Optional.empty(), false, true));
            case BatchWork.Outcome.Done done
            when done.entry().filter(entry -> entry.kind().keeps()).isPresent() ->
                recorded(done.entry().get());
            case BatchWork.Outcome.Done done
            when done.entry().filter(entry -> entry.kind() == Entry.Kind.FILL).isPresent() ->
                new Filled(
                        EntryQueries.of(done.entry().get()),
                        of(done.entry().get().effects(), Effect.Issued.class)
                                .flatMap(issued -> issued.texts().stream())
                                .toList(),
                        false,
                        0);
            case BatchWork.Outcome.Done done
            when act instanceof Act.ChangeRecord change && done.entry().isEmpty() ->
                ledger.read(dsl -> new Recorded(
                        new RecordQueries(dsl).at(change.record()).orElseThrow(), Optional.empty(), false, false));
            case BatchWork.Outcome.Done done
            when done.entry()
                    .map(entry -> entry.kind() == Entry.Kind.DEFINE || entry.kind() == Entry.Kind.REMOVE)
                    .orElse(true) -> Defined.by(done.entry().map(Entry::effects).orElse(List.of()));
            case BatchWork.Outcome.Done done
            when done.entry().orElseThrow().kind().takes() ->
                new Taken(Taking.of(done.entry().get(), ledger), false);
            case BatchWork.Outcome.Done done ->
                new Settled(EntryQueries.of(done.entry().orElseThrow()), false);
        };
    }

    private static Recorded recorded(Entry entry) {
        return new Recorded(
                of(entry.effects(), Effect.RecordKept.class)
                        .findFirst()
                        .orElseThrow()
                        .record(),
                Optional.of(EntryQueries.of(entry)),
                false,
                false);
    }

    private static <E extends Effect> Stream<E> of(List<Effect> effects, Class<E> sort) {
        return effects.stream().filter(sort::isInstance).map(sort::cast);
    }

    private static Outcome of(EntryQueries.Row row, boolean repeated, DSLContext dsl) {
        if (row.kind().keeps())
            return new Recorded(new RecordQueries(dsl).by(row.seq()).orElseThrow(), Optional.of(row), repeated, false);
        if (row.kind() == Entry.Kind.FILL) {
            var queries = new EntryQueries(dsl);
            List<String> identifiers = queries.filled(row);
            return new Filled(row, identifiers, repeated, identifiers.size() - queries.standing(row));
        }
        return row.kind().takes() ? new Taken(Taking.of(row, dsl), repeated) : new Settled(row, repeated);
    }
}
