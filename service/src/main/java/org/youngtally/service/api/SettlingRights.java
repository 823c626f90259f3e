package org.youngtally.service.api;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;

/** Whether somebody may settle numbers: by the series, or by what the numbers were taken for. */
final class SettlingRights {
    private SettlingRights() {}

    /** @throws Problem that names the missing grant */
    static void need(Ledger ledger, Caller caller, Right right, String series, Selection selection) {
        Requests.series(caller, series);
        if (caller.may(right, Where.series(series))) return;
        Set<Purpose> purposes = ledger.read(dsl -> purposes(dsl, series, selection));
        if (purposes.isEmpty()) caller.need(right, Where.series(series));
        for (Purpose purpose : purposes)
            caller.need(right, new Where(Optional.of(series), purpose.kind(), purpose.unit()));
    }

    /** What numbers were taken for; empty for numbers that were never given. */
    private static Set<Purpose> purposes(DSLContext dsl, String series, Selection selection) {
        return switch (selection) {
            case Selection.Identifiers identifiers ->
                identifiers.texts().stream()
                        .flatMap(text -> entries(dsl, series, text))
                        .map(EntryQueries.Row::purpose)
                        .collect(Collectors.toSet());
            case Selection.Through through -> {
                List<EntryQueries.Row> ends = Stream.of(through.first(), through.last())
                        .flatMap(text -> entries(dsl, series, text))
                        .distinct()
                        .toList();
                // What lies between two acts may have been taken for anything.
                yield ends.size() == 1
                        ? Set.of(ends.getFirst().purpose())
                        : ends.isEmpty() ? Set.of() : Set.of(Purpose.NONE);
            }
            case Selection.Taken taken ->
                new EntryQueries(dsl)
                        .at(taken.seq()).stream().map(EntryQueries.Row::purpose).collect(Collectors.toSet());
            case Selection.Reference reference ->
                new StateQueries(dsl)
                        .holder(series, reference.reference()).flatMap(seq -> new EntryQueries(dsl).at(seq)).stream()
                                .map(EntryQueries.Row::purpose)
                                .collect(Collectors.toSet());
        };
    }

    private static Stream<EntryQueries.Row> entries(DSLContext dsl, String series, String text) {
        return new IdentifierQueries(dsl)
                .find(text).stream()
                        .filter(found -> found.series().key().equals(series))
                        .map(IdentifierQueries.Found::entry);
    }
}
