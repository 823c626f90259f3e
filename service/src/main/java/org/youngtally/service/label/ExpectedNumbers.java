package org.youngtally.service.label;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.youngtally.core.act.Effect;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.LedgerSnapshot;

/**
 * The numbers that an act would issue, by their place among them; rendered when they are asked for, however many there
 * are.
 */
public final class ExpectedNumbers {
    private final Series series;
    private final LedgerSnapshot snapshot;
    private final TreeMap<Long, Effect.Issued> issued = new TreeMap<>();
    private final Map<Integer, LaneKey> opened = new TreeMap<>();
    private final long quantity;

    /** @param effects of an act that was decided and not done */
    public ExpectedNumbers(Series series, LedgerSnapshot snapshot, List<Effect> effects) {
        this.series = series;
        this.snapshot = snapshot;
        long from = 0;
        for (Effect effect : effects) {
            if (effect instanceof Effect.LaneOpened lane) opened.put(lane.lane(), lane.key());
            if (!(effect instanceof Effect.Issued each)) continue;
            issued.put(from, each);
            from += each.quantity();
        }
        quantity = from;
    }

    public long quantity() {
        return quantity;
    }

    /** The business date of the first. */
    public LocalDate date() {
        return issued.firstEntry().getValue().particulars().date();
    }

    /** @param index from 0 */
    public String identifier(long index) {
        Map.Entry<Long, Effect.Issued> found = issued.floorEntry(index);
        Effect.Issued each = found.getValue();
        long offset = index - found.getKey();
        Range range = range(each);
        // Nobody is to know beforehand what a sealed series issues: its first value stands for all of them.
        if (series.order().isSealed()) return series.pattern().render(each.particulars(), range.first());
        if (!each.isBlock()) return each.texts().get((int) offset);
        return series.render(range, each.particulars(), each.from() + offset);
    }

    private Range range(Effect.Issued each) {
        LaneKey key =
                opened.getOrDefault(each.lane(), snapshot.counters().keys().get(each.lane()));
        return series.range(key.range()).orElseThrow();
    }
}
