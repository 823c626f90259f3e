package org.youngtally.ledger;

import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Authority;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.Counters;
import org.youngtally.core.act.RowReader;
import org.youngtally.core.act.StateInMemory;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.UnitChoices;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/**
 * What is defined, who works here and how far everything is counted, as one entry left it; a value.
 *
 * @param series in their newest versions, by key
 * @param codebooks by key
 * @param namespaces that were defined, by key
 * @param comparisons how each namespace compares its identifiers, by its key
 * @param accounts by name
 * @param byToken tokens and whose they are, by their hashes
 * @param authority what grants come to
 * @param counters how far everything is counted
 */
public record LedgerSnapshot(
        Map<String, Series> series,
        Map<String, Codebook> codebooks,
        Map<String, Namespace> namespaces,
        Map<String, Comparison> comparisons,
        Organisation organisation,
        Map<String, Account> accounts,
        Map<String, Shown> byToken,
        Authority authority,
        Counters counters) {
    /** A token that may be shown, and the account that it stands for. */
    public record Shown(Account account, Token token) {}

    static LedgerSnapshot of(StateInMemory state) {
        var byToken = new HashMap<String, Shown>();
        for (Account account : state.accounts().values())
            for (Token token : account.tokens()) byToken.put(token.hash(), new Shown(account, token));
        return new LedgerSnapshot(
                byKey(state.allSeries(), Series::key),
                byKey(state.allCodebooks(), Codebook::key),
                byKey(state.allNamespaces(), Namespace::key),
                Map.copyOf(state.allComparisons()),
                state.organisation(),
                byKey(state.accounts().values(), Account::name),
                byToken,
                new Authority(state.organisation()),
                state.counters());
    }

    /** What a field takes its choices from, by its key: a codebook, or the units. */
    public Optional<Codebook> choices(String key) {
        return UnitChoices.orCodebook(key, organisation, book -> Optional.ofNullable(codebooks.get(book)));
    }

    /** The same definitions, counted further. */
    LedgerSnapshot with(Counters further) {
        return new LedgerSnapshot(
                series, codebooks, namespaces, comparisons, organisation, accounts, byToken, authority, further);
    }

    /** The same, with an organisation as it may become. */
    public LedgerSnapshot with(Organisation other) {
        return new LedgerSnapshot(
                series, codebooks, namespaces, comparisons, other, accounts, byToken, new Authority(other), counters);
    }

    /** A state that stands as this snapshot does, and can take in effects; single numbers are looked up in the rows. */
    StateInMemory state(RowReader rows) {
        var state = new StateInMemory(rows, counters);
        comparisons.forEach(state::remember);
        series.values().forEach(state::remember);
        codebooks.values().forEach(state::remember);
        namespaces.values().forEach(state::remember);
        accounts.values().forEach(state::remember);
        state.remember(organisation);
        return state;
    }

    private static <T> Map<String, T> byKey(Collection<T> all, Function<T, String> key) {
        var byKey = new LinkedHashMap<String, T>();
        for (T one : all) byKey.put(key.apply(one), one);
        return Collections.unmodifiableMap(byKey);
    }
}
