package org.youngtally.ledger.store;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.youngtally.core.act.Effect;
import org.youngtally.ledger.journal.Entry;

/** A stretch of positions of a lane that one act took, both ends included. */
public record Span(int lane, long from, long to) {

    static List<Span> of(Entry entry) {
        var spans = new ArrayList<Span>();
        for (Effect effect : entry.effects()) if (effect instanceof Effect.Issued issued) spans.add(new Span(issued.lane(), issued.from(), issued.to()));
        return spans;
    }

    static String write(List<Span> spans) {
        return spans.stream().map(span -> span.lane + ":" + span.from + "-" + span.to).collect(Collectors.joining(" "));
    }

    static List<Span> read(String text) {
        var spans = new ArrayList<Span>();
        if (text == null || text.isEmpty()) return spans;
        for (String one : text.split(" ")) {
            int colon = one.indexOf(':');
            int dash = one.indexOf('-', colon);
            spans.add(new Span(Integer.parseInt(one.substring(0, colon)), Long.parseLong(one.substring(colon + 1, dash)), Long.parseLong(one.substring(dash + 1))));
        }
        return spans;
    }
}
