package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.youngtally.core.act.Refusal.DraftFaults;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindCheck;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.RouteCheck;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;

/** Decides what becomes of definitions of units, kinds and routes, on the codebooks and series as they will be. */
final class OrganisationDefinitions {
    private static final String RETIRED = "retired";

    private final LedgerState state;
    private final Drafts drafts;
    private final Map<String, Codebook> books;
    private final Map<String, Series> series;
    private final List<DraftFaults> faults;
    private final List<Effect> effects = new ArrayList<>();
    /** Every unit as it will be, by key, and by what its code is compared as. */
    private final Map<String, Unit> units;

    private final Map<String, List<Unit>> byCode = new HashMap<>();
    private final Set<String> named = new HashSet<>();
    /** As it will be. */
    private Organisation now;

    /**
     * @param books every codebook as it will be
     * @param series every series as it will be
     * @param faults where faults are put
     */
    OrganisationDefinitions(
            LedgerState state,
            Drafts drafts,
            Map<String, Codebook> books,
            Map<String, Series> series,
            List<DraftFaults> faults) {
        this.state = state;
        this.drafts = drafts;
        this.books = books;
        this.series = series;
        this.faults = faults;
        this.now = state.organisation();
        this.units = new LinkedHashMap<>(now.units());
    }

    /** Every unit as it would be, by key; those that have faults are left as they were. */
    static Map<String, Unit> units(LedgerState state, Drafts drafts) {
        var units = new LinkedHashMap<>(state.organisation().units());
        for (UnitDraft draft : drafts.units())
            if (draft.faults().isEmpty())
                units.put(draft.key(), draft.checked(Optional.ofNullable(units.get(draft.key()))));
        return units;
    }

    /** As it will be. */
    Organisation now() {
        return now;
    }

    /** What is new or changed. */
    List<Effect> effects() {
        return effects;
    }

    void check() {
        for (int i = 0; i < drafts.units().size(); i++) unit(i, drafts.units().get(i));
        now = now.withUnits(units);
        for (Unit unit : units.values())
            byCode.computeIfAbsent(Comparison.OF_NAMES.key(unit.code()), added -> new ArrayList<>())
                    .add(unit);
        for (int i = 0; i < drafts.units().size(); i++) tree(i, drafts.units().get(i));
        if (series.values().stream().anyMatch(each -> each.codebooks().contains(FieldRule.UNITS))) unambiguous();
        for (int i = 0; i < drafts.kinds().size(); i++) kind(i, drafts.kinds().get(i));
        for (int i = 0; i < drafts.layouts().size(); i++)
            layout(i, drafts.layouts().get(i));
        var written = new HashMap<String, Integer>();
        for (int i = 0; i < drafts.routes().size(); i++)
            if (!restsOnFaults(drafts.routes().get(i))) route(i, drafts.routes().get(i), written);
        if (!faults.isEmpty()) return;
        for (Route route : now.routes().values()) stands(route, written.getOrDefault(route.key(), -1));
        if (faults.isEmpty()) overlaps(written);
        if (faults.isEmpty()) retired();
    }

    /** What is retired is needed by nothing that is in use. */
    private void retired() {
        for (int i = 0; i < drafts.units().size(); i++) {
            Unit unit = now.units().get(drafts.units().get(i).key());
            if (unit.retired()) retired(What.UNIT, i, unit.key(), now.routesOf(unit));
            Optional<Unit> below = now.units().values().stream()
                    .filter(other -> !other.retired() && other.below().equals(Optional.of(unit.key())))
                    .findFirst();
            if (unit.retired() && below.isPresent())
                fault(
                        What.UNIT,
                        i,
                        unit.key(),
                        new Fault(
                                RETIRED,
                                "the unit ‘" + below.get().key() + "’ below it is in use",
                                "retire that unit too, or move it below another one"));
            unit.below()
                    .map(now.units()::get)
                    .filter(above -> above.retired() && !unit.retired())
                    .ifPresent(above -> fault(
                            What.UNIT,
                            drafts.units().indexOf(draftOf(unit)),
                            unit.key(),
                            new Fault(
                                    "below",
                                    "the unit ‘" + above.key() + "’ is retired",
                                    "name a unit that is in use, or bring that one back with retired: false")));
        }
        for (int i = 0; i < drafts.kinds().size(); i++) {
            Kind kind = now.kinds().get(drafts.kinds().get(i).key());
            if (kind.retired()) retired(What.KIND, i, kind.key(), now.routesOf(kind));
        }
    }

    private UnitDraft draftOf(Unit unit) {
        return drafts.units().stream()
                .filter(draft -> unit.key().equals(draft.key()))
                .findFirst()
                .orElseThrow();
    }

    private void retired(What what, int index, String key, List<Route> routes) {
        routes.stream()
                .findFirst()
                .ifPresent(route -> fault(
                        what,
                        index,
                        key,
                        new Fault(RETIRED, "the route ‘" + route.key() + "’ needs it", "remove the route first")));
    }

    /** Whether what a route names has faults itself, so that nothing more can be said of it. */
    private boolean restsOnFaults(RouteDraft route) {
        return faults.stream()
                .anyMatch(fault -> fault.what() == What.SERIES && fault.key().equals(route.series())
                        || fault.what() == What.KIND && fault.key().equals(route.kind())
                        || fault.what() == What.UNIT && fault.key().equals(route.unit()));
    }

    private void fault(What what, int index, String key, Fault fault) {
        faults.add(new DraftFaults(what, index, key, List.of(fault), Optional.empty()));
    }

    private void faults(What what, int index, String key, List<Fault> found) {
        faults.add(new DraftFaults(what, index, String.valueOf(key), found, Optional.empty()));
    }

    private static Fault twice(String key) {
        return new Fault("key", "‘" + key + "’ occurs twice", "use a different key for each");
    }

    private void unit(int index, UnitDraft draft) {
        if (!draft.faults().isEmpty()) {
            faults(What.UNIT, index, draft.key(), draft.faults());
            return;
        }
        if (!named.add(draft.key())) fault(What.UNIT, index, draft.key(), twice(draft.key()));
        Unit before = units.get(draft.key());
        Unit after = draft.checked(Optional.ofNullable(before)).withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        if (before != null && !after.code().equals(before.code())) writtenCode(index, before);
        Unit unit = before == null ? after : after.withVersion(before.version() + 1);
        units.put(unit.key(), unit);
        effects.add(new Effect.UnitDefined(unit));
    }

    /** A code stays once a series that takes the units has given a number. */
    private void writtenCode(int index, Unit unit) {
        state.allSeries().stream()
                .filter(each -> each.codebooks().contains(FieldRule.UNITS)
                        && !state.uses(each.key()).isEmpty())
                .findFirst()
                .ifPresent(each -> fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "code",
                                "is fixed at ‘" + unit.code() + "’, because the series ‘" + each.key()
                                        + "’ writes the codes of units and has issued numbers",
                                "keep it, or define a new unit")));
    }

    /** Whether the tree is one, and codes are told apart; once all units are known. */
    private void tree(int index, UnitDraft draft) {
        Unit unit = now.units().get(draft.key());
        if (unit == null || !draft.faults().isEmpty()) return;
        unit.below().ifPresent(above -> {
            if (!now.units().containsKey(above))
                fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "below",
                                "unit ‘" + above + "’ not found",
                                NearestName.to(above, now.units().keySet())
                                        .map(near -> "did you mean " + near + "?")
                                        .orElse("define it as well, or remove below")));
            else if (now.isWithin(above, unit.key()))
                fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "below",
                                "‘" + above + "’ lies below ‘" + unit.key() + "’ itself",
                                "name a unit that does not"));
        });
        byCode.get(Comparison.OF_NAMES.key(unit.code())).stream()
                .filter(other -> !other.key().equals(unit.key()))
                .findFirst()
                .ifPresent(other -> fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "code",
                                "‘" + unit.code() + "’ is the code of the unit ‘" + other.key() + "’",
                                "use a different code for each unit")));
        unit.prefix().ifPresent(prefix -> prefix(index, unit, prefix));
    }

    /** A company prefix is that of one unit, and others are told from it by their first digits. */
    private void prefix(int index, Unit unit, String prefix) {
        for (Unit other : now.units().values())
            if (!other.key().equals(unit.key())
                    && other.prefix()
                            .filter(each -> each.startsWith(prefix) || prefix.startsWith(each))
                            .isPresent())
                fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "company-prefix",
                                "‘" + prefix + "’ clashes with "
                                        + other.prefix().get() + ", that of the unit ‘" + other.key() + "’",
                                "enter the prefix at one unit, and name the other ones as prefix-users"));
        for (String user : unit.prefixUsers())
            if (!now.units().containsKey(user))
                fault(
                        What.UNIT,
                        index,
                        unit.key(),
                        new Fault(
                                "prefix-users",
                                "unit ‘" + user + "’ not found",
                                NearestName.to(user, now.units().keySet())
                                        .map(near -> "did you mean " + near + "?")
                                        .orElse("define it as well, or remove it")));
    }

    /** Where units are choices, whoever names one by its key must not mean another by its code. */
    private void unambiguous() {
        List<String> drafted = drafts.units().stream().map(UnitDraft::key).toList();
        for (Unit unit : now.units().values())
            byCode.getOrDefault(Comparison.OF_NAMES.key(unit.key()), List.of()).stream()
                    .filter(other -> !other.key().equals(unit.key()))
                    .findFirst()
                    .ifPresent(other -> fault(
                            What.UNIT,
                            drafted.indexOf(other.key()),
                            other.key(),
                            new Fault(
                                    "code",
                                    "‘" + other.code() + "’ is the key of the unit ‘" + unit.key()
                                            + "’, and a series has the units as choices",
                                    "use a code that is no key of another unit")));
    }

    private void kind(int index, KindDraft draft) {
        KindCheck.Result checked = KindCheck.of(draft, books);
        if (checked.kind().isEmpty()) {
            faults(What.KIND, index, draft.key(), checked.faults());
            return;
        }
        if (drafts.kinds().subList(0, index).stream()
                .anyMatch(other -> draft.key().equals(other.key())))
            fault(What.KIND, index, draft.key(), twice(draft.key()));
        Kind before = now.kinds().get(draft.key());
        Kind found = checked.kind().get();
        Kind after = (draft.retired() == null && before != null ? found.withRetired(before.retired()) : found)
                .withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        Kind kind = before == null ? after : after.withVersion(before.version() + 1);
        now = now.with(kind);
        effects.add(new Effect.KindDefined(kind));
    }

    private void layout(int index, LayoutDraft draft) {
        LayoutCheck.Result checked = LayoutCheck.of(draft);
        if (checked.layout().isEmpty()) {
            faults(What.LAYOUT, index, draft.key(), checked.faults());
            return;
        }
        if (drafts.layouts().subList(0, index).stream()
                .anyMatch(other -> draft.key().equals(other.key())))
            fault(What.LAYOUT, index, draft.key(), twice(draft.key()));
        KeptLayout before = now.layouts().get(draft.key());
        if (before != null && before.draft().equals(draft)) return;
        var layout = new KeptLayout(draft, before == null ? 1 : before.version() + 1);
        now = now.with(layout);
        effects.add(new Effect.LayoutDefined(layout));
    }

    private RouteCheck.Result checked(RouteDraft draft) {
        return RouteCheck.of(draft, now, series, key -> Optional.ofNullable(books.get(key)));
    }

    private void route(int index, RouteDraft draft, Map<String, Integer> written) {
        RouteCheck.Result checked = checked(draft);
        if (checked.route().isEmpty()) {
            faults(What.ROUTE, index, draft.called(), checked.faults());
            return;
        }
        Route route = checked.route().get();
        if (series.get(route.series()).retired()) retiredBehind(index, route, "series", route.series());
        if (now.units().get(route.unit()).retired()) retiredBehind(index, route, "unit", route.unit());
        if (now.kinds().get(route.kind()).retired()) retiredBehind(index, route, "kind", route.kind());
        if (written.putIfAbsent(route.key(), index) != null)
            fault(
                    What.ROUTE,
                    index,
                    route.key(),
                    new Fault("when", "another route has the same kind, unit and condition", "keep one of them"));
        Route before = now.routes().get(route.key());
        Route after = route.withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        Route defined = before == null ? after : after.withVersion(before.version() + 1);
        now = now.with(defined);
        effects.add(new Effect.RouteDefined(defined));
    }

    private void retiredBehind(int index, Route route, String what, String key) {
        fault(
                What.ROUTE,
                index,
                route.key(),
                new Fault(
                        what,
                        "the " + what + " ‘" + key + "’ is retired",
                        "name one that is in use, or bring that one back with retired: false"));
    }

    /** A route that stands already may rest on a kind, a series or a codebook that changes. */
    private void stands(Route route, int index) {
        if (index >= 0) return;
        RouteCheck.Result again = checked(RouteDraft.of(route));
        if (again.route()
                .filter(now -> !now.withVersion(route.version()).equals(route))
                .isPresent())
            fault(
                    What.ROUTE,
                    -1,
                    route.key(),
                    new Fault(
                            "when",
                            "the route ‘" + route.key() + "’ tests a field whose type would be another",
                            "remove the route first, or add a field of another name"));
        for (Fault fault : again.faults())
            fault(
                    What.ROUTE,
                    -1,
                    route.key(),
                    new Fault(
                            fault.path(),
                            "the route ‘" + route.key() + "’ could not be kept: " + fault.problem(),
                            fault.accepted()));
    }

    private void overlaps(Map<String, Integer> written) {
        for (String key : written.keySet()) {
            Route route = now.routes().get(key);
            if (route.when().isAlways()) continue;
            for (Route other : now.routesAt(route.kind(), route.unit())) {
                if (other.when().isAlways()
                        || other.key().equals(key)
                        || written.getOrDefault(other.key(), -1) > written.get(key)) continue;
                route.when()
                        .common(other.when())
                        .ifPresent(values -> fault(
                                What.ROUTE,
                                written.get(key),
                                key,
                                new Fault(
                                        "when",
                                        "a record with "
                                                + values.entrySet().stream()
                                                        .map(value -> value.getKey() + "=" + value.getValue())
                                                        .collect(Collectors.joining(", "))
                                                + " would be numbered by ‘" + route.series() + "’ and, by the route ‘"
                                                + other.key() + "’, by ‘" + other.series() + "’",
                                        "let the conditions rule each other out")));
            }
        }
    }

    static Optional<Decision> moved(LedgerState state, RouteDraft draft, int expected) {
        Optional<Route> route = RouteCheck.of(
                        draft,
                        state.organisation(),
                        state.allSeries().stream().collect(Collectors.toMap(Series::key, Function.identity())),
                        state::choices)
                .route();
        // One that has faults is refused for them.
        if (route.isEmpty()) return Optional.empty();
        String key = route.get().key();
        int version = Optional.ofNullable(state.organisation().routes().get(key))
                .map(Route::version)
                .orElse(0);
        return version == expected
                ? Optional.empty()
                : Optional.of(new Decision.Refused(new Refusal.VersionMoved(What.ROUTE, key, expected, version)));
    }

    static Decision remove(LedgerState state, Act.RemoveRoute act) {
        Route route = state.organisation().routes().get(act.route());
        if (route == null)
            return new Decision.Refused(new Refusal.UnknownRoute(
                    act.route(),
                    NearestName.to(act.route(), state.organisation().routes().keySet())));
        if (act.expects().filter(version -> version != route.version()).isPresent())
            return new Decision.Refused(new Refusal.VersionMoved(
                    What.ROUTE, route.key(), act.expects().get(), route.version()));
        return new Decision.Done(List.of(new Effect.RouteRemoved(route.key())));
    }
}
