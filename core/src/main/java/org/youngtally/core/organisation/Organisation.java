package org.youngtally.core.organisation;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.text.Comparison;

/**
 * Who works here and on what: units, kinds of records, the routes that find a record's series, and layouts of labels. A
 * value; each change makes a new one.
 *
 * @param units by key, in the order in which they were first defined
 * @param kinds by key
 * @param routes by {@link Route#key}
 * @param layouts by key
 */
public record Organisation(
        Map<String, Unit> units, Map<String, Kind> kinds, Map<String, Route> routes, Map<String, KeptLayout> layouts) {
    public static final Organisation NONE = new Organisation(Map.of(), Map.of(), Map.of(), Map.of());

    public Organisation {
        units = Collections.unmodifiableMap(new LinkedHashMap<>(units));
        kinds = Collections.unmodifiableMap(new LinkedHashMap<>(kinds));
        routes = Collections.unmodifiableMap(new LinkedHashMap<>(routes));
        layouts = Collections.unmodifiableMap(new LinkedHashMap<>(layouts));
    }

    public Organisation with(Unit unit) {
        return new Organisation(with(units, unit.key(), unit), kinds, routes, layouts);
    }

    /** @param all of them, by key */
    public Organisation withUnits(Map<String, Unit> all) {
        return new Organisation(all, kinds, routes, layouts);
    }

    public Organisation with(Kind kind) {
        return new Organisation(units, with(kinds, kind.key(), kind), routes, layouts);
    }

    public Organisation with(Route route) {
        return new Organisation(units, kinds, with(routes, route.key(), route), layouts);
    }

    public Organisation with(KeptLayout layout) {
        return new Organisation(units, kinds, routes, with(layouts, layout.key(), layout));
    }

    /** @param key of the route that goes */
    public Organisation withoutRoute(String key) {
        var left = new LinkedHashMap<>(routes);
        left.remove(key);
        return new Organisation(units, kinds, left, layouts);
    }

    private static <T> Map<String, T> with(Map<String, T> all, String key, T one) {
        var more = new LinkedHashMap<>(all);
        more.put(key, one);
        return more;
    }

    /** The unit that somebody means by its key or its code. */
    public Optional<Unit> unit(String text) {
        return Optional.ofNullable(units.get(text)).or(() -> units.values().stream()
                .filter(unit -> Comparison.OF_NAMES.key(unit.code()).equals(Comparison.OF_NAMES.key(text))
                        || Comparison.OF_NAMES.key(unit.key()).equals(Comparison.OF_NAMES.key(text)))
                .findFirst());
    }

    /** A unit and those above it, the nearest first; none for a unit that does not exist. */
    public List<String> upwards(String unit) {
        var path = new ArrayList<String>();
        for (Optional<Unit> at = Optional.ofNullable(units.get(unit));
                at.isPresent() && !path.contains(at.get().key());
                at = at.get().below().map(units::get)) path.add(at.get().key());
        return path;
    }

    /** Whether a unit is this other one or lies below it. */
    public boolean isWithin(String unit, String other) {
        return upwards(unit).contains(other);
    }

    /** The routes that lead to a series. */
    public List<Route> routesTo(String series) {
        return routes.values().stream()
                .filter(route -> route.series().equals(series))
                .toList();
    }

    /** The routes that name a unit itself. */
    public List<Route> routesOf(Unit unit) {
        return routes.values().stream()
                .filter(route -> route.unit().equals(unit.key()))
                .toList();
    }

    /** The routes for a kind. */
    public List<Route> routesOf(Kind kind) {
        return routes.values().stream()
                .filter(route -> route.kind().equals(kind.key()))
                .toList();
    }

    /** The routes of a kind that stand at a unit itself, those with a condition first. */
    public List<Route> routesAt(String kind, String unit) {
        return routes.values().stream()
                .filter(route -> route.kind().equals(kind) && route.unit().equals(unit))
                .sorted(Comparator.comparing((Route route) -> route.when().isAlways()))
                .toList();
    }
}
