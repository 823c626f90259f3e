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
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindCheck;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.RouteCheck;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.core.text.NearestName;

/** Decides what becomes of definitions of units, kinds and routes, on the codebooks and series as they will be. */
final class OrganisationDefinitions {
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
        for (int i = 0; i < drafts.kinds().size(); i++) kind(i, drafts.kinds().get(i));
        if (!faults.isEmpty()) return;
        var written = new HashMap<String, Integer>();
        for (int i = 0; i < drafts.routes().size(); i++)
            route(i, drafts.routes().get(i), written);
        if (!faults.isEmpty()) return;
        for (Route route : now.routes().values()) stands(route, written.getOrDefault(route.key(), -1));
        if (faults.isEmpty()) overlaps(written);
    }

    private void fault(What what, int index, String key, Fault fault) {
        faults.add(new DraftFaults(what, index, key, List.of(fault), Optional.empty()));
    }

    private void faults(What what, int index, String key, List<Fault> found) {
        faults.add(new DraftFaults(what, index, String.valueOf(key), found, Optional.empty()));
    }

    private static Fault twice(String key) {
        return new Fault("key", "‘" + key + "’ stands here twice", "give each a key of its own");
    }

    private void unit(int index, UnitDraft draft) {
        if (!draft.faults().isEmpty()) {
            faults(What.UNIT, index, draft.key(), draft.faults());
            return;
        }
        if (!named.add(draft.key())) fault(What.UNIT, index, draft.key(), twice(draft.key()));
        Unit before = units.get(draft.key());
        Unit after = draft.checked().withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        Unit unit = before == null ? after : after.withVersion(before.version() + 1);
        units.put(unit.key(), unit);
        effects.add(new Effect.UnitDefined(unit));
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
                                "there is no unit ‘" + above + "’",
                                NearestName.to(above, now.units().keySet())
                                        .map(near -> "did you mean " + near + "?")
                                        .orElse("define it as well, or leave below: out")));
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
                                "‘" + unit.code() + "’ stands for the unit ‘" + other.key() + "’",
                                "give each unit a code of its own")));
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
        Kind after = checked.kind().get().withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        Kind kind = before == null ? after : after.withVersion(before.version() + 1);
        now = now.with(kind);
        effects.add(new Effect.KindDefined(kind));
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
        if (written.putIfAbsent(route.key(), index) != null)
            fault(
                    What.ROUTE,
                    index,
                    route.key(),
                    new Fault(
                            "when",
                            "another route stands here for the same kind and unit, under the same condition",
                            "keep one of them"));
        Route before = now.routes().get(route.key());
        Route after = route.withVersion(before == null ? 1 : before.version());
        if (after.equals(before)) return;
        Route defined = before == null ? after : after.withVersion(before.version() + 1);
        now = now.with(defined);
        effects.add(new Effect.RouteDefined(defined));
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
                            "take the route away first, or add a field of another name"));
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
                        state::codebook)
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
