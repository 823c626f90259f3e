package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ALLOCATION;
import static org.youngtally.ledger.store.db.Tables.BLOCK_STRETCH;
import static org.youngtally.ledger.store.db.Tables.LANE;
import static org.youngtally.ledger.store.db.Tables.RECORD_NUMBER;
import static org.youngtally.ledger.store.db.Tables.RETIRED;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.youngtally.core.act.RowReader.MergedIdentifiers;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.FieldsJson;

/**
 * A namespace that is compared by another rule. Between the first rule and the second only texts with a capital sharp s
 * differ: their key holds a small one, which no other key does, and becomes two s.
 */
final class ComparisonTables {
    private static final String SYMBOL = "\u1E9E";
    private static final String IN_KEY = "\u00DF";

    private final DSLContext dsl;

    ComparisonTables(DSLContext dsl) {
        this.dsl = dsl;
    }

    private static Select<Record1<Integer>> lanes(Condition of) {
        return DSL.select(LANE.ID)
                .from(LANE)
                .join(SERIES)
                .on(SERIES.ID.eq(LANE.SERIES_ID))
                .where(of);
    }

    /** Files every identifier of a namespace under its key by the new rule. */
    void rekey(int namespace, Comparison rule) {
        Condition inside = SERIES.NAMESPACE_ID.eq(namespace);
        dsl.update(ALLOCATION)
                .set(ALLOCATION.TEXT_KEY, anew(ALLOCATION.TEXT_KEY, rule))
                .where(ALLOCATION.NAMESPACE_ID.eq(namespace), ALLOCATION.TEXT_KEY.contains(IN_KEY))
                .execute();
        dsl.update(RETIRED)
                .set(RETIRED.TEXT_KEY, anew(RETIRED.TEXT_KEY, rule))
                .where(RETIRED.LANE_ID.in(lanes(inside)), RETIRED.TEXT_KEY.contains(IN_KEY))
                .execute();
        dsl.update(RECORD_NUMBER)
                .set(RECORD_NUMBER.TEXT_KEY, anew(RECORD_NUMBER.TEXT_KEY, rule))
                .where(
                        RECORD_NUMBER.SERIES_ID.in(
                                DSL.select(SERIES.ID).from(SERIES).where(inside)),
                        RECORD_NUMBER.TEXT_KEY.contains(IN_KEY))
                .execute();
    }

    private static Field<String> anew(Field<String> key, Comparison rule) {
        return DSL.replace(key, IN_KEY, rule.fold(SYMBOL));
    }

    /** Two identifiers that were given by these series, all of one namespace, and would be one. */
    Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule) {
        List<String> names = members.stream().map(Series::key).toList();
        Map<Integer, Series> byRow = new HashMap<>();
        dsl.select(SERIES.ID, SERIES.NAME)
                .from(SERIES)
                .where(SERIES.NAME.in(names))
                .forEach(row -> members.stream()
                        .filter(series -> series.key().equals(row.value2()))
                        .forEach(series -> byRow.put(row.value1(), series)));
        Optional<MergedIdentifiers> block = inBlock(byRow);
        return block.isPresent() ? block : amongTexts(members, lanes(SERIES.NAME.in(names)), rule);
    }

    private Optional<MergedIdentifiers> amongTexts(
            Collection<Series> members, Select<Record1<Integer>> lanes, Comparison rule) {
        // Marks that come round again need not be unique.
        if (members.stream().allMatch(series -> series.order().repeats())) return Optional.empty();
        Set<String> touched = new HashSet<>();
        touched.addAll(dsl.select(ALLOCATION.TEXT)
                .from(ALLOCATION)
                .where(ALLOCATION.LANE_ID.in(lanes), ALLOCATION.TEXT.contains(SYMBOL))
                .fetchSet(ALLOCATION.TEXT));
        touched.addAll(dsl.select(RETIRED.TEXT)
                .from(RETIRED)
                .where(RETIRED.LANE_ID.in(lanes), RETIRED.TEXT.contains(SYMBOL))
                .fetchSet(RETIRED.TEXT));
        Map<String, String> byKey = new HashMap<>();
        for (String text : touched) {
            String key = rule.key(text);
            String other = byKey.putIfAbsent(key, text);
            if (other != null && !Comparison.FIRST.alike(other, text))
                return Optional.of(new MergedIdentifiers(other, Optional.of(text)));
            Optional<String> stored = stored(key, lanes).or(() -> given(key, members));
            if (stored.isPresent()) return Optional.of(new MergedIdentifiers(text, stored));
        }
        return Optional.empty();
    }

    private Optional<String> stored(String key, Select<Record1<Integer>> lanes) {
        return dsl.select(ALLOCATION.TEXT)
                .from(ALLOCATION)
                .where(ALLOCATION.TEXT_KEY.eq(key), ALLOCATION.LANE_ID.in(lanes))
                .union(DSL.select(RETIRED.TEXT)
                        .from(RETIRED)
                        .where(RETIRED.TEXT_KEY.eq(key), RETIRED.LANE_ID.in(lanes)))
                .limit(1)
                .fetchOptional()
                .map(Record1::value1);
    }

    /** The same text as a number of a block. */
    private Optional<String> given(String key, Collection<Series> members) {
        var queries = new IdentifierQueries(dsl);
        return members.stream()
                .filter(series -> queries.spot(series, key).isPresent())
                .findFirst()
                .map(series -> key);
    }

    /** A number of a block that the rules compare differently; such blocks cannot be looked through. */
    private Optional<MergedIdentifiers> inBlock(Map<Integer, Series> byRow) {
        for (var row : dsl.selectFrom(BLOCK_STRETCH)
                .where(BLOCK_STRETCH.SERIES_ID.in(byRow.keySet()))
                .fetch()) {
            Series series = byRow.get(row.get(BLOCK_STRETCH.SERIES_ID));
            int rangeId = dsl.select(LANE.RANGE_ID)
                    .from(LANE)
                    .where(LANE.ID.eq(row.get(BLOCK_STRETCH.LANE_ID)))
                    .fetchSingle(LANE.RANGE_ID);
            Optional<Range> range = series.range(rangeId);
            if (range.isEmpty() || series.order().isSealed()) continue;
            String text = series.render(
                    range.get(),
                    new Particulars(
                            row.get(BLOCK_STRETCH.BUSINESS_DATE), FieldsJson.read(row.get(BLOCK_STRETCH.FIELDS))),
                    row.get(BLOCK_STRETCH.FIRST_POSITION));
            if (Comparison.matters(text)) return Optional.of(new MergedIdentifiers(text, Optional.empty()));
        }
        return Optional.empty();
    }
}
