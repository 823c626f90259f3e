package org.youngtally.ledger;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Effect;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.RecordQueries;

/** Makes of what an act came to in its batch what it is answered with. */
final class Answers {
    private final Committed committed;

    Answers(Committed committed) {
        this.committed = committed;
    }

    /** The one place where the type of an act and that of its answer are put together. */
    @SuppressWarnings("unchecked")
    <A extends Answer> Outcome<A> of(Act<A> act, BatchWork.Result outcome) {
        return switch (outcome) {
            case BatchWork.Result.Refused refused -> new Outcome.Refused<>(refused.refusal());
            case BatchWork.Result.Unproved unproved -> throw new IllegalStateException("it is proved first");
            case BatchWork.Result.Done done -> (Outcome<A>) done(act, done.entry());
            case BatchWork.Result.Repeated repeated -> (Outcome<A>) repeated(act, repeated.seq());
            case BatchWork.Result.Known known ->
                (Outcome<A>) new Outcome.Recorded(record(known.record()), Optional.empty(), false, true);
        };
    }

    /** @param entry absent where nothing had to be done */
    private Outcome<?> done(Act<?> act, Optional<Entry> entry) {
        return switch (act) {
            case Act.Allocate allocate -> new Outcome.Taken(Taking.of(entry.orElseThrow(), committed), false);
            case Act.Settle settle -> settled(entry);
            case Act.Lapse lapse -> settled(entry);
            case Act.Split split -> settled(entry);
            case Act.Close close -> settled(entry);
            case Act.Reopen reopen -> settled(entry);
            case Act.Define define -> defined(entry);
            case Act.RemoveRoute remove -> defined(entry);
            case Act.ChangeAccount change ->
                new Outcome.Changed(entry.flatMap(made -> of(made.effects(), Effect.AccountChanged.class)
                                .map(Effect.AccountChanged::account)
                                .findFirst())
                        .orElseGet(() -> committed.snapshot().accounts().get(change.account())));
            case Act.SaveRecord save -> recorded(entry.orElseThrow());
            case Act.ChangeRecord change ->
                entry.map(Answers::recorded)
                        .orElseGet(() -> new Outcome.Recorded(record(change.record()), Optional.empty(), false, false));
            case Act.FillTable fill -> filled(entry.orElseThrow());
            case Act.NumberRows rows -> filled(entry.orElseThrow());
            case Act.NumberDocument number -> filled(entry.orElseThrow());
            case Act.Continue on -> settled(entry);
            case Act.StateHighest stated -> settled(entry);
            case Act.Resume resume -> settled(entry);
            case Act.CarryOut carry -> settled(entry);
            case Act.PrintLabels print ->
                new Outcome.Labelled(
                        EntryQueries.of(entry.orElseThrow()),
                        false,
                        entry.orElseThrow().seq());
            case Act.ChangeLabels change ->
                new Outcome.Labelled(EntryQueries.of(entry.orElseThrow()), false, change.job());
        };
    }

    /** @param seq the entry of the same act, which was done before */
    private Outcome<?> repeated(Act<?> act, long seq) {
        return committed.read(dsl -> {
            var queries = new EntryQueries(dsl);
            EntryQueries.Row row = queries.at(seq).orElseThrow();
            return switch (act) {
                case Act.Allocate allocate -> new Outcome.Taken(Taking.of(row, dsl), true);
                case Act.Settle settle -> new Outcome.Settled(row, true);
                case Act.Lapse lapse -> new Outcome.Settled(row, true);
                case Act.Split split -> new Outcome.Settled(row, true);
                case Act.Close close -> new Outcome.Settled(row, true);
                case Act.Reopen reopen -> new Outcome.Settled(row, true);
                case Act.SaveRecord save -> recorded(row, new RecordQueries(dsl));
                case Act.ChangeRecord change -> recorded(row, new RecordQueries(dsl));
                case Act.FillTable fill -> filled(row, queries);
                case Act.NumberRows rows -> filled(row, queries);
                case Act.NumberDocument number -> filled(row, queries);
                case Act.Continue on -> new Outcome.Settled(row, true);
                case Act.StateHighest stated -> new Outcome.Settled(row, true);
                case Act.Resume resume -> new Outcome.Settled(row, true);
                case Act.CarryOut carry -> new Outcome.Settled(row, true);
                case Act.PrintLabels print -> new Outcome.Labelled(row, true, row.seq());
                case Act.ChangeLabels change -> new Outcome.Labelled(row, true, change.job());
                case Act.Define define -> throw new IllegalStateException("definitions have no key");
                case Act.RemoveRoute remove -> throw new IllegalStateException("definitions have no key");
                case Act.ChangeAccount change ->
                    new Outcome.Changed(committed.snapshot().accounts().get(change.account()));
            };
        });
    }

    private static Outcome.Settled settled(Optional<Entry> entry) {
        return new Outcome.Settled(EntryQueries.of(entry.orElseThrow()), false);
    }

    private static Outcome.Filled filled(Entry entry) {
        return new Outcome.Filled(
                EntryQueries.of(entry),
                of(entry.effects(), Effect.Issued.class)
                        .flatMap(issued -> issued.texts().stream())
                        .toList(),
                false,
                0);
    }

    private static Outcome.Filled filled(EntryQueries.Row row, EntryQueries queries) {
        List<String> identifiers = queries.filled(row);
        return new Outcome.Filled(row, identifiers, true, identifiers.size() - queries.standing(row));
    }

    private static Outcome.Defined defined(Optional<Entry> entry) {
        return Outcome.Defined.by(entry.map(Entry::effects).orElse(List.of()));
    }

    private static Outcome.Recorded recorded(Entry entry) {
        return new Outcome.Recorded(
                of(entry.effects(), Effect.RecordKept.class)
                        .findFirst()
                        .orElseThrow()
                        .record(),
                Optional.of(EntryQueries.of(entry)),
                false,
                false);
    }

    private static Outcome.Recorded recorded(EntryQueries.Row row, RecordQueries records) {
        return new Outcome.Recorded(records.by(row.seq()).orElseThrow(), Optional.of(row), true, false);
    }

    private KeptRecord record(long id) {
        return committed.read(dsl -> new RecordQueries(dsl).at(id)).orElseThrow();
    }

    private static <E extends Effect> Stream<E> of(List<Effect> effects, Class<E> sort) {
        return effects.stream().filter(sort::isInstance).map(sort::cast);
    }
}
