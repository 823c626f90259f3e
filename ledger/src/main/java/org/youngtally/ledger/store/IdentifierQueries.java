package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK;
import static org.youngtally.ledger.store.db.Tables.LANE;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;

/** Finds what an identifier stands for. */
public final class IdentifierQueries {
    private final DSLContext dsl;
    private final Definitions definitions;

    public IdentifierQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new Definitions(dsl);
    }

    /**
     * An identifier that was given.
     *
     * @param identifier as it was rendered
     * @param lane the period of its lane; empty where the count does not restart
     * @param block whether it was given as one of a block
     */
    public record Found(String identifier, Series series, Range range, String lane, long position, LocalDate date, boolean block, EntryQueries.Row entry) {}

    /** Everything that goes by this text: one in a namespace at the most, and perhaps in several namespaces. */
    public List<Found> find(String text) {
        var found = new ArrayList<Found>();
        for (Record row : dsl.selectFrom(ALLOCATION).where(ALLOCATION.TEXT_KEY.eq(IdentifierKey.of(text)))) found.add(found(row, row.get(ALLOCATION.FIRST_POSITION), row.get(ALLOCATION.TEXT), false));
        found.addAll(inBlocks(text));
        return found;
    }

    private record BlockLook(int seriesId, int version, LocalDate date) {}

    /** A block keeps no texts: the text is read by every pattern and date that blocks were taken with. */
    private List<Found> inBlocks(String text) {
        var found = new ArrayList<Found>();
        List<BlockLook> looks = dsl.selectDistinct(BLOCK.SERIES_ID, BLOCK.VERSION, BLOCK.BUSINESS_DATE).from(BLOCK).fetch(row -> new BlockLook(row.value1(), row.value2(), row.value3()));
        for (BlockLook look : looks) {
            Series series = definitions.version(look.seriesId(), look.version());
            OptionalLong value = series.pattern().read(text, look.date());
            if (value.isEmpty()) continue;
            for (Range range : series.ranges()) {
                long position = range.positionOf(value.getAsLong());
                if (position >= 0) holding(look, range, position).ifPresent(row -> found.add(found(row, position, series.render(range, look.date(), position), true)));
            }
        }
        return found;
    }

    private Optional<Record> holding(BlockLook look, Range range, long position) {
        return Optional.ofNullable(dsl.select(ALLOCATION.fields()).from(ALLOCATION).join(LANE).on(LANE.ID.eq(ALLOCATION.LANE_ID))
                .where(LANE.SERIES_ID.eq(look.seriesId()), LANE.RANGE_ID.eq(range.id()), ALLOCATION.FIRST_POSITION.le(position), ALLOCATION.LAST_POSITION.ge(position),
                        ALLOCATION.TEXT.isNull(), ALLOCATION.VERSION.eq(look.version()), ALLOCATION.BUSINESS_DATE.eq(look.date())).fetchOne());
    }

    private Found found(Record row, long position, String text, boolean block) {
        Definitions.Lane lane = definitions.lane(row.get(ALLOCATION.LANE_ID));
        Series series = definitions.version(lane.seriesId(), row.get(ALLOCATION.VERSION));
        return new Found(text, series, series.range(lane.range()).orElseThrow(), lane.period(), position, row.get(ALLOCATION.BUSINESS_DATE), block, new EntryQueries(dsl).at(row.get(ALLOCATION.SEQ)).orElseThrow());
    }
}
