package org.youngtally.ledger;

import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Authority;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.LedgerState;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.series.Series;

/**
 * What is defined and who works here, as one entry left it; a value.
 *
 * @param series in their newest versions, by key
 * @param codebooks by key
 * @param accounts by name
 * @param byToken tokens and whose they are, by their hashes
 * @param authority what grants come to
 */
public record DefinitionSnapshot(
        Map<String, Series> series,
        Map<String, Codebook> codebooks,
        Organisation organisation,
        Map<String, Account> accounts,
        Map<String, Shown> byToken,
        Authority authority) {
    /** A token that may be shown, and the account that it stands for. */
    public record Shown(Account account, Token token) {}

    static DefinitionSnapshot of(LedgerState state) {
        return of(
                state.allSeries(),
                state.allCodebooks(),
                state.organisation(),
                state.accounts().values());
    }

    static DefinitionSnapshot of(
            Collection<Series> series,
            Collection<Codebook> codebooks,
            Organisation organisation,
            Collection<Account> accounts) {
        var byToken = new HashMap<String, Shown>();
        for (Account account : accounts)
            for (Token token : account.tokens()) byToken.put(token.hash(), new Shown(account, token));
        return new DefinitionSnapshot(
                byKey(series, Series::key),
                byKey(codebooks, Codebook::key),
                organisation,
                byKey(accounts, Account::name),
                byToken,
                new Authority(organisation));
    }

    private static <T> Map<String, T> byKey(Collection<T> all, Function<T, String> key) {
        var byKey = new LinkedHashMap<String, T>();
        for (T one : all) byKey.put(key.apply(one), one);
        return Collections.unmodifiableMap(byKey);
    }
}
