package org.youngtally.core.access;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.text.NearestName;

/** Decides what becomes of an account. Pure: it changes nothing. */
public final class AccountDecision {
    /** Names under which the service itself acts. */
    public static final Set<String> OWN_NAMES = Set.of("clock", "first-start", "owner");

    /** The most tokens of an account, those that ended lately among them. */
    private static final int MOST_TOKENS = 500;
    /** For how many days a token that ended is still listed. */
    private static final int REMEMBERED_DAYS = 30;

    private final Map<String, Account> accounts;
    private final Organisation organisation;
    private final Collection<String> series;

    private AccountDecision(Map<String, Account> accounts, Organisation organisation, Collection<String> series) {
        this.accounts = accounts;
        this.organisation = organisation;
        this.series = series;
    }

    /** What became of it. */
    public sealed interface Result {
        /** @param account as it is from now on; the same as before where nothing had to be done */
        record Done(Account account) implements Result {}

        record Refused(AccountRefusal refusal) implements Result {}
    }

    /**
     * @param accounts all of them, by name
     * @param series the keys of all series
     */
    public static Result decide(
            Map<String, Account> accounts,
            Organisation organisation,
            Collection<String> series,
            String name,
            AccountChange change) {
        return new AccountDecision(accounts, organisation, series).decide(name, change);
    }

    private Result decide(String name, AccountChange change) {
        if (change instanceof AccountChange.Open open) return open(name, open);
        Account account = accounts.get(name);
        if (account == null) return refused(new AccountRefusal.Unknown(name, NearestName.to(name, accounts.keySet())));
        boolean restoring = change instanceof AccountChange.Reopen
                || change instanceof AccountChange.Close
                || change instanceof AccountChange.Withdraw
                || change instanceof AccountChange.Revoke;
        if (account.closed() && !restoring) return refused(new AccountRefusal.Closed(name));
        return switch (change) {
            case AccountChange.Open open -> throw new IllegalStateException("handled above");
            case AccountChange.NewPassword password ->
                account.sort() == Account.Sort.PROGRAM
                        ? refused(new AccountRefusal.NoPassword(name))
                        : new Result.Done(account.withPassword(password.hash())
                                .withTokens(account.tokens().stream()
                                        .map(token -> token.revoked().isPresent()
                                                        || password.shown().equals(Optional.of(token.id()))
                                                ? token
                                                : token.revokedAt(password.at()))
                                        .toList()));
            case AccountChange.Give give -> give(account, give.grants());
            case AccountChange.Withdraw withdraw -> {
                List<Grant> left = account.grants().stream()
                        .filter(grant -> !withdraw.grants().contains(grant))
                        .toList();
                yield kept(left.size() == account.grants().size() ? account : account.withGrants(left));
            }
            case AccountChange.Close close -> kept(account.closed() ? account : account.withClosed(true));
            case AccountChange.Reopen reopen -> new Result.Done(account.closed() ? account.withClosed(false) : account);
            case AccountChange.Issue issue -> {
                // Those that ended long ago are left to the ledger, or an account would grow for ever.
                LocalDate today = LocalDate.ofInstant(issue.token().issued(), ZoneOffset.UTC);
                var tokens = new ArrayList<>(account.tokens().stream()
                        .filter(token -> token.revoked()
                                .map(at -> LocalDate.ofInstant(at, ZoneOffset.UTC))
                                .orElse(token.expires())
                                .isAfter(today.minusDays(REMEMBERED_DAYS)))
                        .toList());
                if (tokens.size() >= MOST_TOKENS) yield refused(new AccountRefusal.TooManyTokens(name, MOST_TOKENS));
                tokens.add(issue.token());
                yield new Result.Done(account.withTokens(tokens));
            }
            case AccountChange.Revoke revoke -> {
                Optional<Token> token = account.token(revoke.token());
                if (token.isEmpty()) yield refused(new AccountRefusal.UnknownToken(name, revoke.token()));
                yield new Result.Done(
                        token.get().revoked().isPresent()
                                ? account
                                : account.withTokens(account.tokens().stream()
                                        .map(each -> each.equals(token.get()) ? each.revokedAt(revoke.at()) : each)
                                        .toList()));
            }
        };
    }

    private Result open(String name, AccountChange.Open open) {
        Optional<Fault> fault = DefinitionName.fault("name", name)
                .or(() -> OWN_NAMES.contains(name)
                        ? Optional.of(
                                new Fault("name", "‘" + name + "’ is reserved for the service", "choose another name"))
                        : DefinitionName.titleFault("title", open.title()));
        if (fault.isPresent()) return refused(new AccountRefusal.NameFaulty(fault.get()));
        if (accounts.containsKey(name)) return refused(new AccountRefusal.Exists(name));
        if (open.sort() == Account.Sort.PROGRAM && open.password().isPresent())
            return refused(new AccountRefusal.NoPassword(name));
        return give(
                new Account(
                        name,
                        open.title().isBlank() ? name : open.title().strip(),
                        open.sort(),
                        open.password(),
                        false,
                        List.of(),
                        List.of(),
                        0),
                open.grants());
    }

    private Result give(Account account, List<Grant> grants) {
        for (Grant grant : grants) {
            Collection<String> known =
                    switch (grant.scope().sort()) {
                        case ALL -> List.of("");
                        case UNIT -> organisation.units().keySet();
                        case KIND -> organisation.kinds().keySet();
                        case SERIES -> series;
                    };
            if (!known.contains(grant.scope().key()))
                return refused(new AccountRefusal.UnknownScope(
                        grant.scope(), NearestName.to(grant.scope().key(), known)));
        }
        var all = new LinkedHashSet<>(account.grants());
        boolean more = all.addAll(grants);
        return new Result.Done(more || account.version() == 0 ? account.withGrants(List.copyOf(all)) : account);
    }

    /** Somebody must be left who can open accounts and give grants, for all. */
    private Result kept(Account changed) {
        boolean left = isKeeper(changed)
                || accounts.values().stream()
                        .anyMatch(other -> !other.name().equals(changed.name()) && isKeeper(other));
        return left || !isKeeper(accounts.get(changed.name()))
                ? new Result.Done(changed)
                : refused(new AccountRefusal.LastKeeper(changed.name()));
    }

    private static boolean isKeeper(Account account) {
        return !account.closed()
                && account.sort() == Account.Sort.PERSON
                && account.grants().contains(new Grant(Right.ACCESS, Scope.ALL));
    }

    private static Result refused(AccountRefusal refusal) {
        return new Result.Refused(refusal);
    }
}
