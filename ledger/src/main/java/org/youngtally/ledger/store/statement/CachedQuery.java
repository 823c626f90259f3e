package org.youngtally.ledger.store.statement;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import org.jooq.CloseableResultQuery;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.Result;
import org.jooq.ResultQuery;

/**
 * A question that is asked often, rendered and made ready once for each connection: both took longer than answering it.
 * It is written with parameters, which are bound in the order in which they are in it; a value that is written into it
 * counts as one, too.
 */
public final class CachedQuery {
    /** By this name a connection's configuration has the questions that were made ready on it. */
    private static final String NAME = "ready";

    private final Function<DSLContext, ResultQuery<?>> question;

    public CachedQuery(Function<DSLContext, ResultQuery<?>> question) {
        this.question = question;
    }

    /** Has a connection keep the questions that are asked through it. */
    public static void keptOn(DSLContext dsl) {
        dsl.configuration().data(NAME, new HashMap<CachedQuery, CloseableResultQuery<?>>());
    }

    @SuppressWarnings("unchecked")
    public Result<? extends Record> ask(DSLContext dsl, Object... values) {
        var kept =
                (Map<CachedQuery, CloseableResultQuery<?>>) dsl.configuration().data(NAME);
        CloseableResultQuery<?> query =
                kept.computeIfAbsent(this, missing -> question.apply(dsl).keepStatement(true));
        for (int i = 0; i < values.length; i++) query.bind(i + 1, values[i]);
        return query.fetch();
    }
}
