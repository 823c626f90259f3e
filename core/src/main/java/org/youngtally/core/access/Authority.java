package org.youngtally.core.access;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;

/**
 * Tells what grants cover, on an organisation as it stands. A series belongs to the units and kinds whose routes lead
 * to it: a grant for a unit covers what is done for that unit or one below, and, where no unit is named, a series that
 * is routed from there alone. Reading is wider: a series can be read from every unit that it serves.
 */
public final class Authority {
    private final Organisation organisation;
    private final Map<String, List<Route>> routes;

    public Authority(Organisation organisation) {
        this.organisation = organisation;
        this.routes = organisation.routes().values().stream().collect(Collectors.groupingBy(Route::series));
    }

    /** Whether an account may do this there. */
    public boolean may(Account account, Right right, Where place) {
        if (account.closed()) return false;
        for (Grant grant : account.grants())
            if (grant.right() == right && covers(grant.scope(), right, place)) return true;
        return false;
    }

    /** Whether it may do this anywhere at all. */
    public boolean mayAnywhere(Account account, Right right) {
        return !account.closed() && account.grants().stream().anyMatch(grant -> grant.right() == right);
    }

    /** Whether any of its grants reaches a series, so that it may know that there is one. */
    public boolean knows(Account account, String series) {
        return !account.closed()
                && account.grants().stream().anyMatch(grant -> covers(grant.scope(), Right.READ, Where.series(series)));
    }

    private boolean covers(Scope scope, Right right, Where place) {
        return switch (scope.sort()) {
            case ALL -> true;
            case SERIES -> place.series().filter(scope.key()::equals).isPresent();
            case UNIT -> coversUnit(scope.key(), right, place);
            case KIND -> coversKind(scope.key(), right, place);
        };
    }

    private boolean coversUnit(String top, Right right, Where place) {
        List<Route> leading = leading(place);
        if (place.unit().isPresent()) {
            String unit = place.unit().get();
            return organisation.isWithin(unit, top)
                    && (place.series().isEmpty()
                            || leading.stream().anyMatch(route -> organisation.isWithin(unit, route.unit())));
        }
        if (place.series().isEmpty() || leading.isEmpty()) return false;
        if (right == Right.READ)
            return leading.stream()
                    .anyMatch(route ->
                            organisation.isWithin(route.unit(), top) || organisation.isWithin(top, route.unit()));
        return leading.stream().allMatch(route -> organisation.isWithin(route.unit(), top));
    }

    private boolean coversKind(String kind, Right right, Where place) {
        List<Route> leading = leading(place);
        if (place.kind().isPresent())
            return place.kind().get().equals(kind)
                    && (place.series().isEmpty()
                            || leading.stream().anyMatch(route -> route.kind().equals(kind)));
        if (place.series().isEmpty() || leading.isEmpty()) return false;
        if (right == Right.READ)
            return leading.stream().anyMatch(route -> route.kind().equals(kind));
        return leading.stream().allMatch(route -> route.kind().equals(kind));
    }

    private List<Route> leading(Where place) {
        return place.series()
                .map(series -> routes.getOrDefault(series, List.of()))
                .orElse(List.of());
    }

    /** Where a grant could hold that would cover this, the narrowest first. */
    public List<Scope> wouldDo(Right right, Where place) {
        var scopes = new LinkedHashSet<Scope>();
        place.series().ifPresent(series -> scopes.add(Scope.series(series)));
        var units = new LinkedHashSet<String>();
        place.unit().ifPresentOrElse(unit -> units.addAll(organisation.upwards(unit)), () -> leading(place)
                .forEach(route -> units.addAll(organisation.upwards(route.unit()))));
        Stream.concat(
                        units.stream().map(Scope::unit),
                        Stream.concat(
                                        place.kind().stream(),
                                        leading(place).stream().map(Route::kind))
                                .distinct()
                                .map(Scope::kind))
                .filter(scope -> covers(scope, right, place))
                .forEach(scopes::add);
        scopes.add(Scope.ALL);
        return List.copyOf(scopes);
    }

    /**
     * Whether all that a scope stands for lies within another, so that who manages access there may give grants for it.
     */
    public boolean isWithin(Scope scope, Scope outer) {
        if (outer.equals(Scope.ALL) || outer.equals(scope)) return true;
        List<Route> leading =
                scope.sort() == Scope.Sort.SERIES ? routes.getOrDefault(scope.key(), List.of()) : List.of();
        return switch (outer.sort()) {
            case ALL, SERIES -> false;
            case UNIT ->
                scope.sort() == Scope.Sort.UNIT
                        ? organisation.isWithin(scope.key(), outer.key())
                        : !leading.isEmpty()
                                && leading.stream().allMatch(route -> organisation.isWithin(route.unit(), outer.key()));
            case KIND ->
                !leading.isEmpty()
                        && leading.stream().allMatch(route -> route.kind().equals(outer.key()));
        };
    }

    /** Whether an account may manage access to all that a scope stands for. */
    public boolean mayManage(Account account, Scope scope) {
        return !account.closed()
                && account.grants().stream()
                        .anyMatch(grant -> grant.right() == Right.ACCESS && isWithin(scope, grant.scope()));
    }
}
