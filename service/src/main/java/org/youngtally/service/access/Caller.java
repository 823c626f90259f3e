package org.youngtally.service.access;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.core.access.Where;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * The account of this request, and what it may do: the account as it stood when the request came in.
 *
 * @param token that was shown; absent for one who shows the session of a browser
 */
public record Caller(Account account, LedgerSnapshot snapshot, Optional<Token> token) {
    public boolean bySession() {
        return token.isEmpty();
    }

    public String name() {
        return account.name();
    }

    public boolean may(Right right, Where place) {
        return snapshot.authority().may(account, right, place);
    }

    public boolean maySomewhere(Right right) {
        return snapshot.authority().mayAnywhere(account, right);
    }

    /** Whether it may see a series. */
    public boolean reads(String series) {
        return may(Right.READ, Where.series(series));
    }

    public boolean readsAll() {
        return may(Right.READ, Where.EVERYWHERE);
    }

    /** Whether it may see a codebook: who reads a series that uses it, or anything of a kind that does. */
    public boolean readsCodebook(String codebook) {
        return readsAll()
                || snapshot.series().values().stream()
                        .anyMatch(series -> series.codebooks().contains(codebook) && reads(series.key()))
                || snapshot.organisation().kinds().values().stream()
                        .anyMatch(kind -> kind.codebooks().contains(codebook) && seesKind(kind.key()));
    }

    /** Whether it may read or take numbers for records of a kind somewhere, so that it has to know what they hold. */
    public boolean seesKind(String kind) {
        return snapshot.organisation().routes().values().stream()
                .filter(route -> route.kind().equals(kind))
                .anyMatch(route -> reads(route.series())
                        || may(
                                Right.ALLOCATE,
                                new Where(Optional.of(route.series()), Optional.of(kind), Optional.of(route.unit()))));
    }

    /** @throws Problem that names the missing grant, where it may not; or a series that it may not know of */
    public void need(Right right, Where place) {
        if (may(right, place)) return;
        boolean hidden = place.series().filter(series -> !knows(series)).isPresent();
        if (hidden && place.kind().isEmpty() && place.unit().isEmpty())
            throw unknownSeries(place.series().get());
        throw missing(right, hidden ? new Where(Optional.empty(), place.kind(), place.unit()) : place);
    }

    /** Whether it may know that there is such a series. */
    public boolean knows(String series) {
        return snapshot.authority().knows(account, series);
    }

    /** That it may not do this there, and by which grant it could. */
    public Problem missing(Right right, Where place) {
        return missing(right, place, snapshot.authority().wouldDo(right, place));
    }

    /** One answer for a series that there is not and for one that it has no grant at, so that neither is told. */
    public Problem unknownSeries(String series) {
        Optional<String> near = NearestName.to(
                series, snapshot.series().keySet().stream().filter(this::reads).toList());
        return new Problem(
                        Type.UNKNOWN_SERIES,
                        "Series ‘" + series + "’ not found"
                                + (readsAll() ? "." : " among those that ‘" + name() + "’ may see.")
                                + near.map(name -> " Did you mean ‘" + name + "’?")
                                        .orElse("")
                                + (readsAll()
                                        ? ""
                                        : " It can be granted by " + String.join(", ", keepers(List.of(Scope.ALL)))
                                                + "."))
                .field("series", near.orElse("the key of an existing series"))
                .with("nearest", near.orElse(null));
    }

    public void needSomewhere(Right right) {
        if (!maySomewhere(right)) throw missing(right, Where.EVERYWHERE, List.of());
    }

    /** That it may give and take grants for all that these scopes stand for. */
    public void needToManage(Collection<Scope> scopes) {
        for (Scope scope : scopes)
            if (!manages(scope))
                throw missing(
                        Right.ACCESS,
                        Where.EVERYWHERE,
                        Stream.of(scope, Scope.ALL).distinct().toList());
    }

    /**
     * That it may do with an account what it likes: it manages all that the account may do. One that may do nothing is
     * nobody's but theirs who manage everything.
     */
    public void needToManage(Account other) {
        needToManage(
                other.grants().isEmpty()
                        ? List.of(Scope.ALL)
                        : other.grants().stream().map(Grant::scope).toList());
    }

    public boolean manages(Scope scope) {
        return snapshot.authority().mayManage(account, scope);
    }

    private Problem missing(Right right, Where place, List<Scope> wouldDo) {
        List<String> grants = wouldDo.stream()
                .map(scope -> new Grant(right, scope).toString())
                .toList();
        List<String> keepers = keepers(wouldDo);
        List<String> units = unitsThatWouldDo(right, place);
        String where = place.equals(Where.EVERYWHERE) ? "" : " at " + place;
        if (!units.isEmpty())
            return new Problem(
                            Type.GRANT_MISSING,
                            "‘" + name() + "’ may not " + deed(right) + where
                                    + " without a unit, because several units use it. Name the unit: "
                                    + String.join(" or ", units) + ".")
                    .field("unit", String.join(" or ", units))
                    .with("right", right.word())
                    .with("units", units)
                    .with("wouldDo", grants)
                    .with("givenBy", keepers);
        String smallest = grants.isEmpty() ? right.word() + " for any series, kind or unit" : grants.getFirst();
        return new Problem(
                        Type.GRANT_MISSING,
                        "‘" + name() + "’ may not " + deed(right) + where + ". Missing grant: ‘" + smallest + "’."
                                + (keepers.isEmpty()
                                        ? ""
                                        : " It can be granted by " + String.join(", ", keepers) + "."))
                .field("grant", grants.isEmpty() ? right.word() : String.join(", or ", grants))
                .with("right", right.word())
                .with("wouldDo", grants)
                .with("givenBy", keepers);
    }

    /** The units for which it may do this as it is, where none was named. */
    private List<String> unitsThatWouldDo(Right right, Where place) {
        if (place.series().isEmpty() || place.unit().isPresent() || right == Right.READ) return List.of();
        return snapshot.organisation().units().values().stream()
                .filter(unit -> !unit.retired())
                .map(Unit::key)
                .filter(unit -> may(right, new Where(place.series(), place.kind(), Optional.of(unit))))
                .toList();
    }

    /**
     * The unit of an act that names none, where the account may not do it without one: the only unit for which it has
     * the right. What it could do while a single route led to a series goes on when a second one does.
     */
    public Optional<String> onlyUnit(Right right, Where place) {
        if (may(right, place)) return Optional.empty();
        List<String> own = account.grants().stream()
                .filter(grant -> grant.right() == right && grant.scope().sort() == Scope.Sort.UNIT)
                .map(grant -> grant.scope().key())
                .distinct()
                .toList();
        return own.size() == 1 && unitsThatWouldDo(right, place).equals(own)
                ? Optional.of(own.getFirst())
                : Optional.empty();
    }

    private List<String> keepers(List<Scope> scopes) {
        List<Scope> wanted = scopes.isEmpty() ? List.of(Scope.ALL) : scopes;
        return snapshot.accounts().values().stream()
                .filter(other -> other.sort() == Account.Sort.PERSON
                        && wanted.stream()
                                .anyMatch(scope -> snapshot.authority().mayManage(other, scope)))
                .map(Account::name)
                .sorted()
                .toList();
    }

    private static String deed(Right right) {
        return switch (right) {
            case DEFINE -> "change definitions";
            case ALLOCATE -> "allocate numbers";
            case HOLD -> "hold numbers or end holds";
            case VOID -> "void or return numbers";
            case READ -> "read this";
            case AUDIT -> "run an audit";
            case ACCESS -> "manage access";
        };
    }
}
