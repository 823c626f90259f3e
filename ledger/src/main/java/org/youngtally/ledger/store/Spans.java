package org.youngtally.ledger.store;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Span;
import org.youngtally.ledger.journal.Entry;

/** The positions that an entry is about, as text: lane:first-last, separated by blanks. */
final class Spans {
    private Spans() {}

    /** What follows on another is one with it. Those of a table are in the order of their lanes, where most do. */
    static List<Span> of(Entry entry) {
        if (entry.kind() != Entry.Kind.FILL) return inOrder(entry);
        var spans = new ArrayList<Span>();
        entry.effects().stream()
                .filter(Effect.Issued.class::isInstance)
                .map(Effect.Issued.class::cast)
                .sorted(Comparator.comparingInt(Effect.Issued::lane).thenComparingLong(Effect.Issued::from))
                .forEach(issued -> add(new Span(issued.lane(), issued.from(), issued.to()), spans));
        return spans;
    }

    /** The same in the order in which they were taken. */
    static List<Span> inOrder(Entry entry) {
        var spans = new ArrayList<Span>();
        for (Effect effect : entry.effects()) {
            if (effect instanceof Effect.Issued issued) add(new Span(issued.lane(), issued.from(), issued.to()), spans);
            if (effect instanceof Effect.Settled settled)
                add(new Span(settled.lane(), settled.from(), settled.to()), spans);
            if (effect instanceof Effect.Handed handed) add(new Span(handed.lane(), handed.from(), handed.to()), spans);
        }
        return spans;
    }

    private static void add(Span span, List<Span> to) {
        boolean goesOn = !to.isEmpty()
                && to.getLast().lane() == span.lane()
                && to.getLast().to() + 1 == span.from();
        if (goesOn) to.set(to.size() - 1, new Span(span.lane(), to.getLast().from(), span.to()));
        else to.add(span);
    }

    static String write(List<Span> spans) {
        return spans.stream()
                .map(span -> span.lane() + ":" + span.from() + "-" + span.to())
                .collect(Collectors.joining(" "));
    }

    static List<Span> read(String text) {
        var spans = new ArrayList<Span>();
        if (text == null || text.isEmpty()) return spans;
        for (String one : text.split(" ")) {
            int colon = one.indexOf(':');
            int dash = one.indexOf('-', colon);
            spans.add(new Span(
                    Integer.parseInt(one.substring(0, colon)),
                    Long.parseLong(one.substring(colon + 1, dash)),
                    Long.parseLong(one.substring(dash + 1))));
        }
        return spans;
    }
}
