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
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.IdentifierKey;
import org.youngtally.ledger.journal.FieldsJson;

/** Finds what an identifier stands for. */
public final class IdentifierQueries {
    private final DSLContext dsl;
    private final Definitions definitions;

    public IdentifierQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new Definitions(dsl);
    }

    /** The most marks that come round again, and go by one text, which are shown. */
    private static final int MOST_ROUNDS = 100;

    /**
     * An identifier that was given.
     *
     * @param identifier as it was rendered
     * @param lane what its lane counts for; empty where the count does not restart
     * @param round of a mark that comes round again, from 1; 0 for an identifier
     * @param block whether it was given as one of a block
     */
    public record Found(String identifier, Series series, Range range, String lane, long position, long round, Particulars particulars, boolean block, EntryQueries.Row entry) {}

    /** Everything that goes by this text: one in a namespace at the most, and perhaps in several namespaces; of marks that come round again the newest. */
    public List<Found> find(String text) {
        var found = new ArrayList<Found>();
        String key = IdentifierKey.of(text);
        for (Record row : dsl.selectFrom(ALLOCATION).where(ALLOCATION.TEXT_KEY.eq(key)).fetch()) found.add(found(row, row.get(ALLOCATION.FIRST_POSITION), row.get(ALLOCATION.TEXT), false));
        // The range of keys that begin with this one and the separator, read off the index.
        for (Record row : dsl.selectFrom(ALLOCATION).where(ALLOCATION.TEXT_KEY.gt(key + RoundKey.SEPARATOR), ALLOCATION.TEXT_KEY.lt(key + (char) (RoundKey.SEPARATOR + 1))).orderBy(ALLOCATION.SEQ.desc()).limit(MOST_ROUNDS).fetch())
            found.add(found(row, row.get(ALLOCATION.FIRST_POSITION), row.get(ALLOCATION.TEXT), false));
        found.addAll(inBlocks(text));
        return found;
    }

    private record BlockLook(int seriesId, int version, LocalDate date, String fields) {
        Particulars particulars() { return new Particulars(date, FieldsJson.read(fields)); }
    }

    /** A block keeps no texts: the text is read by every pattern, date and set of fields that blocks were taken with. */
    private List<Found> inBlocks(String text) {
        var found = new ArrayList<Found>();
        List<BlockLook> looks = dsl.selectDistinct(BLOCK.SERIES_ID, BLOCK.VERSION, BLOCK.BUSINESS_DATE, BLOCK.FIELDS).from(BLOCK).fetch(row -> new BlockLook(row.value1(), row.value2(), row.value3(), row.value4()));
        for (BlockLook look : looks) {
            Series series = definitions.version(look.seriesId(), look.version());
            Particulars particulars = look.particulars();
            OptionalLong value = series.pattern().read(text, particulars);
            if (value.isEmpty() || series.order().isSealed()) continue;
            for (Range range : series.ranges()) {
                long position = series.order().positionOf(range, series.lane(range, particulars), value.getAsLong());
                if (position >= 0) holding(look, range, series.lane(range, particulars), position).ifPresent(row -> found.add(found(row, position, series.render(range, particulars, position), true)));
            }
        }
        return found;
    }

    private Optional<Record> holding(BlockLook look, Range range, LaneKey lane, long position) {
        return Optional.ofNullable(dsl.select(ALLOCATION.fields()).from(ALLOCATION).join(LANE).on(LANE.ID.eq(ALLOCATION.LANE_ID))
                .where(LANE.SERIES_ID.eq(look.seriesId()), LANE.RANGE_ID.eq(range.id()), LANE.PERIOD.eq(lane.period()), ALLOCATION.FIRST_POSITION.le(position), ALLOCATION.LAST_POSITION.ge(position),
                        ALLOCATION.TEXT.isNull(), ALLOCATION.STATE.eq(PositionState.ISSUED.code()), ALLOCATION.VERSION.eq(look.version()), ALLOCATION.BUSINESS_DATE.eq(look.date()), ALLOCATION.FIELDS.isNotDistinctFrom(look.fields())).fetchOne());
    }

    private Found found(Record row, long position, String text, boolean block) {
        Definitions.Lane lane = definitions.lane(row.get(ALLOCATION.LANE_ID));
        Series series = definitions.version(lane.seriesId(), row.get(ALLOCATION.VERSION));
        Range range = series.range(lane.range()).orElseThrow();
        var particulars = new Particulars(row.get(ALLOCATION.BUSINESS_DATE), FieldsJson.read(row.get(ALLOCATION.FIELDS)));
        return new Found(text, series, range, lane.period(), position, series.order().repeats() ? series.order().round(range, position) : 0, particulars, block, new EntryQueries(dsl).at(row.get(ALLOCATION.SEQ)).orElseThrow());
    }
}
