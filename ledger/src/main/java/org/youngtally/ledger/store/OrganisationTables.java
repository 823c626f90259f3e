package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.ORGANISATION_PART;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.Effect;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.ledger.journal.OrganisationJson;

/** Writes and reads units, kinds, layouts, routes and accounts: few, small, and kept whole. */
public final class OrganisationTables {
    private static final String UNIT = "unit";
    private static final String KIND = "kind";
    static final String LAYOUT = "layout";
    private static final String ROUTE = "route";
    private static final String ACCOUNT = "account";

    private final DSLContext dsl;

    public OrganisationTables(DSLContext dsl) {
        this.dsl = dsl;
    }

    /**
     * One of them as an effect defines it.
     *
     * @param definition absent where it is taken away
     */
    public record Part(String sort, String name, Optional<String> definition) {
        /** What an effect defines. */
        public static Part of(Effect.Organising effect) {
            return switch (effect) {
                case Effect.UnitDefined defined -> new Part(UNIT, defined.unit().key(), json(defined.unit()));
                case Effect.KindDefined defined -> new Part(KIND, defined.kind().key(), json(defined.kind()));
                case Effect.LayoutDefined defined ->
                    new Part(LAYOUT, defined.layout().key(), json(defined.layout()));
                case Effect.RouteDefined defined ->
                    new Part(ROUTE, defined.route().key(), json(defined.route()));
                case Effect.RouteRemoved removed -> new Part(ROUTE, removed.route(), Optional.empty());
                case Effect.AccountChanged changed ->
                    new Part(ACCOUNT, changed.account().name(), json(changed.account()));
            };
        }

        private static Optional<String> json(Object part) {
            return Optional.of(OrganisationJson.write(part));
        }
    }

    /** @param place among those of the entry */
    void write(long seq, int place, Part part) {
        // One act defines each of them once at the most.
        dsl.insertInto(ORGANISATION_PART)
                .values(part.sort(), part.name(), seq, place, part.definition().orElse(null))
                .execute();
    }

    public Organisation organisation() {
        Organisation organisation = Organisation.NONE;
        for (String json : newest(UNIT)) organisation = organisation.with(OrganisationJson.unit(json));
        for (String json : newest(KIND)) organisation = organisation.with(OrganisationJson.kind(json));
        for (String json : newest(LAYOUT)) organisation = organisation.with(OrganisationJson.layout(json));
        for (String json : newest(ROUTE)) organisation = organisation.with(OrganisationJson.route(json));
        return organisation;
    }

    public List<Account> accounts() {
        return newest(ACCOUNT).stream().map(OrganisationJson::account).toList();
    }

    /** Those that stand now, in the order in which they were first defined. */
    private List<String> newest(String sort) {
        var newest = new LinkedHashMap<String, String>();
        dsl.select(ORGANISATION_PART.NAME, ORGANISATION_PART.DEFINITION)
                .from(ORGANISATION_PART)
                .where(ORGANISATION_PART.SORT.eq(sort))
                .orderBy(ORGANISATION_PART.SEQ, ORGANISATION_PART.PLACE)
                .fetch()
                .forEach(row -> {
                    // What was removed and is defined again is behind all others.
                    if (row.value2() == null) newest.remove(row.value1());
                    else newest.put(row.value1(), row.value2());
                });
        return List.copyOf(newest.values());
    }

    /** What the tables hold of a part at an entry; empty where nothing is kept there. */
    public Optional<Part> at(long seq, String sort, String name) {
        return dsl.select(ORGANISATION_PART.DEFINITION)
                .from(ORGANISATION_PART)
                .where(ORGANISATION_PART.SORT.eq(sort), ORGANISATION_PART.NAME.eq(name), ORGANISATION_PART.SEQ.eq(seq))
                .fetchOptional(row -> new Part(sort, name, Optional.ofNullable(row.value1())));
    }

    /** How many definitions the tables keep, of any time. */
    public int size() {
        return dsl.fetchCount(ORGANISATION_PART);
    }

    /** What an entry defined or took away, as its sort and name. */
    List<String> defined(long seq) {
        return dsl.select(ORGANISATION_PART.SORT, ORGANISATION_PART.NAME)
                .from(ORGANISATION_PART)
                .where(ORGANISATION_PART.SEQ.eq(seq))
                .orderBy(ORGANISATION_PART.SORT.desc(), ORGANISATION_PART.NAME)
                .fetch(row -> row.value1() + " " + row.value2());
    }
}
