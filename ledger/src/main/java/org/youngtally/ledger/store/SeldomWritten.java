package org.youngtally.ledger.store;

import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.jooq.DSLContext;
import org.youngtally.core.act.Effect;
import org.youngtally.ledger.journal.Entry;

/**
 * Answers that stay the same while nothing is done but the allocation of single numbers, kept between questions: which
 * blocks there are, and whether a text was ever retired. A question knows how often something else was committed before
 * it began; an answer is repeated to those alone for whom that is the same number.
 */
final class SeldomWritten {
    private static final String NAME = "seldom written";
    private static final String BEGAN_AT = "began at";

    /** How often something else was committed. */
    private volatile long commits;

    private volatile boolean written;
    private final Map<Object, Kept> kept = new ConcurrentHashMap<>();

    private record Kept(long commits, Object answer) {}

    /** To be called by the writing thread before the commit. */
    void write(List<Entry> entries) {
        written |= entries.stream().flatMap(entry -> entry.effects().stream()).anyMatch(effect -> !isUsual(effect));
    }

    private static boolean isUsual(Effect effect) {
        return effect instanceof Effect.LaneOpened
                || effect instanceof Effect.EpochBegun
                || effect instanceof Effect.Issued issued
                        && !issued.texts().isEmpty()
                        && issued.manner().formerly().isEmpty();
    }

    /** To be called behind the commit. */
    void committed() {
        if (written) commits++;
        written = false;
    }

    /** A question begins, before it has asked the tables anything. */
    void begin(DSLContext dsl) {
        dsl.configuration().data(NAME, this);
        dsl.configuration().data(BEGAN_AT, commits);
    }

    /**
     * What was answered before, or is asked now. The writer, who may take back what it wrote, always asks.
     *
     * @param question by which its answer is kept
     */
    @SuppressWarnings("unchecked")
    static <T> T answer(DSLContext dsl, Object question, Supplier<T> asked) {
        if (!(dsl.configuration().data(NAME) instanceof SeldomWritten seldom)) return asked.get();
        long began = (long) dsl.configuration().data(BEGAN_AT);
        Kept known = seldom.kept.get(question);
        if (known != null && known.commits() == began) return (T) known.answer();
        T answer = asked.get();
        seldom.kept.put(question, new Kept(began, answer));
        return answer;
    }
}
