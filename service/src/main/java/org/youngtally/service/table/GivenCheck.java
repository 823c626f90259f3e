package org.youngtally.service.table;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/**
 * Checks the numbers that are in a table already: each was given by a series of the kind, and stands for something
 * still.
 */
public final class GivenCheck {
    private GivenCheck() {}

    /**
     * @param given by line
     * @param series that number records of the kind
     * @param faults where each line with another number is told
     */
    public static void of(DSLContext dsl, Map<Integer, String> given, Set<String> series, LineFaults faults) {
        var queries = new IdentifierQueries(dsl);
        Collection<String> plain = queries.issued(given.values(), series);
        given.forEach((line, number) -> {
            if (plain.contains(number)) return;
            List<IdentifierQueries.Found> found = queries.find(number).stream()
                    .filter(each -> series.contains(each.series().key()))
                    .toList();
            if (found.stream()
                    .anyMatch(each ->
                            each.retired().isEmpty() && each.stretch().state().isLive())) return;
            String why = found.isEmpty()
                    ? "was never issued by " + String.join(" or ", series)
                    : "is " + Refusals.state(found.getFirst().stretch().state());
            faults.add(
                    line,
                    new Problem(Type.TABLE_FAULTY, "‘" + number + "’ " + why + ".")
                            .field("line " + line, "an issued number; or an empty cell, to allocate one"));
        });
    }
}
