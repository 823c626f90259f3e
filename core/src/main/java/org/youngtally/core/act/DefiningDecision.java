package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.youngtally.core.act.Refusal.DraftFaults;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.check.CheckScheme;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.codebook.CodebookChange;
import org.youngtally.core.codebook.CodebookCheck;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.organisation.UnitChoices;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.proof.Proof;
import org.youngtally.core.proof.Prover;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.Order;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesChange;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.text.Comparison;

/**
 * Decides what becomes of definitions: all of them hold, and what they would give is proved never to clash, or none is
 * taken.
 */
final class DefiningDecision {
    /** The most that is defined in one act. */
    static final int MOST_AT_ONCE = 5_000;

    private final LedgerState state;
    private final Prover prover;
    private final List<DraftFaults> faults = new ArrayList<>();
    /** The place of each series' draft, by key. */
    private final Map<String, Integer> places = new LinkedHashMap<>();
    /** What is new or has a new version, by key. */
    private final Map<String, Namespace> namespaces = new LinkedHashMap<>();

    /** The rules by which namespaces are to be compared from now on, by key. */
    private final Map<String, Comparison> rules = new LinkedHashMap<>();

    private final Map<String, Codebook> books = new LinkedHashMap<>();
    private final Map<String, Series> changed = new LinkedHashMap<>();
    private OrganisationDefinitions organisation;

    private Drafts drafts = Drafts.NONE;

    /** The units as choices, before and as they will be. */
    private Codebook unitsBefore;

    private Codebook unitsNow;

    private DefiningDecision(LedgerState state, Prover prover) {
        this.state = state;
        this.prover = prover;
    }

    static Decision decide(LedgerState state, Act.Define act, Prover prover) {
        return new DefiningDecision(state, prover).decide(act);
    }

    private Decision decide(Act.Define act) {
        drafts = act.drafts();
        if (drafts.size() > MOST_AT_ONCE)
            return new Decision.Refused(new Refusal.TooManyDefinitions(drafts.size(), MOST_AT_ONCE));
        Optional<Decision> moved = act.expects().flatMap(this::moved);
        if (moved.isPresent()) return moved.get();
        unitsBefore = UnitChoices.of(state.organisation().units().values());
        unitsNow = UnitChoices.of(OrganisationDefinitions.units(state, drafts).values());
        for (int i = 0; i < drafts.namespaces().size(); i++)
            namespace(i, drafts.namespaces().get(i), drafts.namespaces());
        for (int i = 0; i < drafts.codebooks().size(); i++)
            codebook(i, drafts.codebooks().get(i), drafts.codebooks());
        for (int i = 0; i < drafts.series().size(); i++)
            series(i, drafts.series().get(i));
        if (faults.isEmpty()) affected();
        organisation = new OrganisationDefinitions(state, drafts, booksNamed(), seriesNow(), faults);
        organisation.check();
        if (faults.isEmpty()) retire();
        if (faults.isEmpty()) prove();
        if (faults.isEmpty()) compare();
        if (!faults.isEmpty()) return new Decision.Refused(new Refusal.DefinitionsFaulty(faults));
        var effects = new ArrayList<Effect>();
        rules.forEach((key, rule) -> {
            if (isComparedAnew(key)
                    || namespaces.containsKey(key)
                    || changed.values().stream()
                            .anyMatch(series -> series.namespace().equals(key)))
                effects.add(new Effect.ComparisonChanged(key, state.comparison(key), rule));
        });
        namespaces.values().forEach(namespace -> effects.add(new Effect.NamespaceDefined(namespace)));
        books.values().forEach(book -> effects.add(new Effect.CodebookDefined(book)));
        changed.values().forEach(series -> effects.add(new Effect.Defined(series)));
        effects.addAll(organisation.effects());
        act.files().stream()
                .filter(file -> !state.keptFile(file.name()).equals(Optional.of(file.text())))
                .forEach(file -> effects.add(new Effect.FileKept(file)));
        return new Decision.Done(effects);
    }

    private Optional<Decision> moved(int expected) {
        if (!drafts.routes().isEmpty())
            return OrganisationDefinitions.moved(state, drafts.routes().getFirst(), expected);
        boolean book = drafts.series().isEmpty();
        String key = String.valueOf(
                book
                        ? drafts.codebooks().getFirst().key()
                        : drafts.series().getFirst().key());
        int version = book
                ? state.codebook(key).map(Codebook::version).orElse(0)
                : state.series(key).map(Series::version).orElse(0);
        return version == expected
                ? Optional.empty()
                : Optional.of(new Decision.Refused(
                        new Refusal.VersionMoved(book ? What.CODEBOOK : What.SERIES, key, expected, version)));
    }

    private void fault(What what, int index, String key, List<Fault> found) {
        faults.add(new DraftFaults(what, index, String.valueOf(key), found, Optional.empty()));
    }

    private static Fault twice(String key) {
        return new Fault("key", "‘" + key + "’ occurs twice", "use a different key for each");
    }

    private void namespace(int index, NamespaceDraft draft, List<NamespaceDraft> all) {
        if (!draft.faults().isEmpty()) {
            fault(What.NAMESPACE, index, draft.key(), draft.faults());
            return;
        }
        if (all.subList(0, index).stream().anyMatch(other -> draft.key().equals(other.key())))
            fault(What.NAMESPACE, index, draft.key(), List.of(twice(draft.key())));
        rule(index, draft);
        Namespace before = namespace(draft.key());
        Namespace now = draft.checked().withVersion(before.version());
        boolean used = state.allSeries().stream()
                .anyMatch(series -> series.namespace().equals(draft.key())
                        && !state.uses(series.key()).isEmpty());
        if (used && now.repeats() != before.repeats())
            fault(
                    What.NAMESPACE,
                    index,
                    draft.key(),
                    List.of(new Fault(
                            "repeats",
                            "cannot change after the first number of the namespace was issued",
                            "keep it, and define another namespace")));
        if (!now.equals(before) || isComparedAnew(now.key()))
            namespaces.put(now.key(), now.withVersion(before.version() + 1));
    }

    private void rule(int index, NamespaceDraft draft) {
        Comparison before = comparison(draft.key());
        Comparison now = draft.rule().orElse(before);
        if (now.compareTo(before) < 0)
            fault(
                    What.NAMESPACE,
                    index,
                    draft.key(),
                    List.of(new Fault(
                            "comparison",
                            "cannot go back to " + now.number() + ", since the namespace compares by "
                                    + before.number(),
                            "write " + before.number() + ", or remove it")));
        else if (now != before) rules.put(draft.key(), now);
    }

    /** How a namespace compares from now on; one that begins does by the newest rule. */
    private Comparison comparison(String namespace) {
        Comparison known = rules.get(namespace);
        if (known != null) return known;
        Optional<Comparison> before = state.comparison(namespace);
        if (before.isEmpty()) rules.put(namespace, Comparison.NEWEST);
        return before.orElse(Comparison.NEWEST);
    }

    /** Whether it has series that were compared otherwise until now. */
    private boolean isComparedAnew(String namespace) {
        return rules.containsKey(namespace) && state.comparison(namespace).isPresent();
    }

    private Namespace namespace(String key) {
        return Optional.ofNullable(namespaces.get(key))
                .or(() -> state.namespace(key))
                .orElse(Namespace.usual(key));
    }

    private void codebook(int index, CodebookDraft draft, List<CodebookDraft> all) {
        CodebookCheck.Result checked = CodebookCheck.of(draft);
        if (checked.book().isEmpty()) {
            fault(What.CODEBOOK, index, draft.key(), checked.faults());
            return;
        }
        Codebook book = checked.book().get();
        if (all.subList(0, index).stream().anyMatch(other -> book.key().equals(other.key())))
            fault(What.CODEBOOK, index, book.key(), List.of(twice(book.key())));
        Optional<Codebook> before = state.codebook(book.key());
        if (before.isEmpty()) {
            books.put(book.key(), book);
            return;
        }
        CodebookChange.Result change = CodebookChange.of(before.get(), book);
        if (change.book().isEmpty()) fault(What.CODEBOOK, index, book.key(), change.faults());
        else if (!change.book().get().equals(before.get()))
            books.put(book.key(), change.book().get());
    }

    private Map<String, Codebook> books() {
        var all = new LinkedHashMap<String, Codebook>();
        state.allCodebooks().forEach(book -> all.put(book.key(), book));
        all.putAll(books);
        all.put(FieldRule.UNITS, unitsNow);
        return all;
    }

    /** The same, with what was meant to be a codebook and has faults, so that nobody is told that it is missing. */
    private Map<String, Codebook> booksNamed() {
        Map<String, Codebook> all = books();
        for (CodebookDraft draft : drafts.codebooks())
            if (draft.key() != null) all.putIfAbsent(draft.key(), new Codebook(draft.key(), draft.key(), List.of(), 1));
        return all;
    }

    /** Whether a codebook that it names has faults, so that nothing can be said of its choices. */
    private boolean restsOnFaults(SeriesDraft draft) {
        return draft.get(SeriesProperties.FIELDS) != null
                && draft.get(SeriesProperties.FIELDS).stream().anyMatch(field -> faults.stream()
                        .anyMatch(fault ->
                                fault.what() == What.CODEBOOK && fault.key().equals(field.codebook())));
    }

    /** Whether what a field takes its choices from is new or changes. */
    private boolean isChanged(String key) {
        return key.equals(FieldRule.UNITS) ? !unitsNow.equals(unitsBefore) : books.containsKey(key);
    }

    private Map<String, Series> seriesNow() {
        var all = new LinkedHashMap<String, Series>();
        state.allSeries().forEach(series -> all.put(series.key(), series.comparedBy(comparison(series.namespace()))));
        all.putAll(changed);
        return all;
    }

    private void series(int index, SeriesDraft draft) {
        DraftCheck.Result checked = restsOnFaults(draft)
                ? DraftCheck.of(draft)
                : DraftCheck.of(draft, books(), comparison(String.valueOf(draft.namespace())));
        if (checked.series().isEmpty()) {
            fault(What.SERIES, index, draft.key(), checked.faults());
            return;
        }
        Series series = withSecret(draft.continued(checked.series().get(), state.series(String.valueOf(draft.key()))));
        if (places.putIfAbsent(series.key(), index) != null) {
            fault(What.SERIES, index, series.key(), List.of(twice(series.key())));
            return;
        }
        if (series.order().repeats() != namespace(series.namespace()).repeats()) {
            fault(
                    What.SERIES,
                    index,
                    series.key(),
                    List.of(
                            series.order().repeats()
                                    ? new Fault(
                                            "order",
                                            "the namespace ‘" + series.namespace()
                                                    + "’ does not say that its marks come round again",
                                            "define it under namespaces: with repeats: allowed, or count on")
                                    : new Fault(
                                            "namespace",
                                            "‘" + series.namespace() + "’ is for marks that come round again",
                                            "write order: " + Order.Kind.REPEATING.word()
                                                    + ", or name another namespace")));
            return;
        }
        Optional<Series> existing = state.series(series.key());
        // One that numbers were given by goes on as it is.
        Optional<CheckScheme> idle = existing.filter(old ->
                                old.pattern().toString().equals(series.pattern().toString()))
                        .isPresent()
                ? Optional.empty()
                : series.pattern().idleCheck();
        if (idle.isPresent()) {
            fault(
                    What.SERIES,
                    index,
                    series.key(),
                    List.of(new Fault(
                            SeriesProperties.PATTERN.name(),
                            "{check " + idle.get().name() + "} covers no symbol of the count, which is written in "
                                    + series.pattern().count().alphabet().symbols(),
                            "choose a scheme that reads letters, such as mod37-36, or a count in digits")));
            return;
        }
        if (existing.isEmpty()) {
            changed.put(series.key(), series);
            return;
        }
        SeriesChange.Result change = SeriesChange.of(existing.get(), series, state.uses(series.key()));
        if (change.series().isEmpty()) fault(What.SERIES, index, series.key(), change.faults());
        else if (!change.series().get().equals(existing.get()))
            changed.put(series.key(), change.series().get());
    }

    /** No route may lead to a series that is retired, when all that is defined at once is in force. */
    private void retire() {
        changed.values().stream()
                .filter(Series::retired)
                .forEach(series -> organisation.now().routesTo(series.key()).stream()
                        .findFirst()
                        .ifPresent(route -> fault(
                                What.SERIES,
                                places.getOrDefault(series.key(), -1),
                                series.key(),
                                List.of(new Fault(
                                        SeriesProperties.RETIRED.name(),
                                        "the route ‘" + route.key() + "’ leads to the series",
                                        "remove the route first, or point it to another series")))));
    }

    private Series withSecret(Series series) {
        return series.order().scatters() ? series.withScatter(state.scatter(series.key())) : series;
    }

    /** The series that stand already, and rest on something that changes. */
    private void affected() {
        Map<String, Codebook> all = books();
        for (Series series : state.allSeries()) {
            if (changed.containsKey(series.key())) continue;
            if (series.order().repeats() != namespace(series.namespace()).repeats())
                faults.add(new DraftFaults(
                        What.NAMESPACE,
                        -1,
                        series.namespace(),
                        List.of(new Fault(
                                "repeats",
                                "the series ‘" + series.key() + "’ of this namespace is defined otherwise",
                                "change the two together, or define another namespace")),
                        Optional.empty()));
            boolean anew = isComparedAnew(series.namespace());
            if (!anew && series.codebooks().stream().noneMatch(this::isChanged)) continue;
            List<Fault> found = DraftCheck.of(SeriesDraft.of(series), all, comparison(series.namespace()))
                    .faults();
            for (Fault fault : found) {
                if (anew) {
                    faults.add(comparedAnew(
                            series.namespace(),
                            "the series ‘" + series.key() + "’ could not be kept: " + fault.path() + ": "
                                    + fault.problem(),
                            Optional.empty()));
                    continue;
                }
                faults.add(atChoices(
                        series,
                        "the series ‘" + series.key() + "’ could not be kept: "
                                + (fault.path().isEmpty() ? "" : fault.path() + ": ") + fault.problem(),
                        fault.accepted(),
                        Optional.empty()));
            }
        }
    }

    private static DraftFaults comparedAnew(String namespace, String problem, Optional<Clash> clash) {
        return new DraftFaults(
                What.NAMESPACE,
                -1,
                namespace,
                List.of(new Fault("comparison", problem, "remove comparison; the namespace stays unchanged")),
                clash);
    }

    /** Whether all that was ever given stays apart where a namespace is to be compared by another rule. */
    private void compare() {
        rules.forEach((namespace, rule) -> {
            if (!isComparedAnew(namespace)) return;
            List<Series> members = state.allSeries().stream()
                    .filter(series -> series.namespace().equals(namespace))
                    .map(series -> series.comparedBy(rule))
                    .toList();
            state.against(members, rule)
                    .ifPresent(found -> faults.add(comparedAnew(
                            namespace,
                            found.other().isPresent()
                                    ? "‘" + found.one() + "’ and ‘"
                                            + found.other().get() + "’ were both issued, and would be one"
                                    : "‘" + found.one()
                                            + "’ was issued in a block, whose numbers are not kept one by one, so that it cannot be proved that they differ from all others",
                            Optional.empty())));
        });
    }

    private void prove() {
        Map<String, Series> members = seriesNow();
        var touched = new LinkedHashSet<>(changed.keySet());
        members.values().stream()
                .filter(series -> series.codebooks().stream().anyMatch(this::isChanged))
                .forEach(series -> touched.add(series.key()));
        members.values().stream()
                .filter(series -> isComparedAnew(series.namespace()))
                .forEach(series -> touched.add(series.key()));
        Map<String, Codebook> all = books();
        for (String namespace : touched.stream()
                .map(key -> members.get(key).namespace())
                .distinct()
                .toList()) {
            // Marks that come round again need not be unique.
            if (namespace(namespace).repeats()) continue;
            List<Fields> inside = members.values().stream()
                    .filter(series -> series.namespace().equals(namespace))
                    .map(series -> Fields.of(series, key -> Optional.ofNullable(all.get(key))))
                    .toList();
            switch (prover.of(inside, touched)) {
                case Proof.Disjoint disjoint -> {}
                case Proof.Clashing clashing -> faults.add(clashing(namespace, clashing.clash(), touched));
                case Proof.Undecided undecided -> faults.add(undecided(namespace, undecided, touched));
            }
        }
    }

    private DraftFaults clashing(String namespace, Clash clash, Set<String> touched) {
        // The fault is shown at a series that is being changed; the other may be one that stands already.
        String key = touched.contains(clash.one().series())
                ? clash.one().series()
                : clash.other().series();
        return at(
                key,
                new Fault(
                        "pattern",
                        "‘" + clash.text() + "’ would arise in two ways in the namespace ‘" + namespace + "’",
                        remedy(clash)),
                Optional.of(clash));
    }

    private DraftFaults undecided(String namespace, Proof.Undecided undecided, Set<String> touched) {
        String key = touched.contains(undecided.one()) ? undecided.one() : undecided.other();
        String which = undecided.one().equals(undecided.other())
                ? "two numbers of ‘" + key + "’"
                : "a number of ‘" + undecided.one() + "’ and one of ‘" + undecided.other() + "’";
        return at(
                key,
                new Fault(
                        "pattern",
                        "it cannot be proved that " + which + " are never alike in the namespace ‘" + namespace + "’: "
                                + undecided.cause(),
                        undecided.remedy()
                                + "; or write proof: waived, where it is enough that each number is looked up when it is allocated"),
                Optional.empty());
    }

    /** At the draft of a series, or at the codebook that changes beneath it. */
    private DraftFaults at(String key, Fault fault, Optional<Clash> clash) {
        if (places.containsKey(key)) return new DraftFaults(What.SERIES, places.get(key), key, List.of(fault), clash);
        String namespace = state.series(key)
                .map(Series::namespace)
                .filter(this::isComparedAnew)
                .orElse("");
        if (!namespace.isEmpty()) return comparedAnew(namespace, fault.problem(), clash);
        return atChoices(
                seriesNow().get(key), "in the series ‘" + key + "’ " + fault.problem(), fault.accepted(), clash);
    }

    /** At the codebook or the unit that changes, and that a series rests on. */
    private DraftFaults atChoices(Series series, String problem, String accepted, Optional<Clash> clash) {
        Optional<String> book =
                series.codebooks().stream().filter(books::containsKey).findFirst();
        List<String> units = unitsNow.choices().stream()
                .filter(unit -> !unitsBefore.choices().contains(unit))
                .map(Choice::name)
                .toList();
        if (book.isPresent() || units.isEmpty() || !series.codebooks().contains(FieldRule.UNITS))
            return new DraftFaults(
                    What.CODEBOOK,
                    -1,
                    book.or(() -> books.keySet().stream().findFirst()).orElse(series.key()),
                    List.of(new Fault("choices", problem, accepted)),
                    clash);
        return new DraftFaults(
                What.UNIT,
                drafts.units().stream().map(UnitDraft::key).toList().indexOf(units.getFirst()),
                units.getFirst(),
                List.of(new Fault("code", problem, accepted)),
                clash);
    }

    private static String remedy(Clash clash) {
        if (!clash.one().series().equals(clash.other().series()))
            return "use patterns that differ in a literal part, or a separate namespace for each series";
        if (clash.one().range() == clash.other().range())
            return "let the pattern show what separates the lanes (the year, or the year and month), and keep fields and parts of varying length apart with a literal";
        return "let the two ranges differ in their values, or let the pattern show the dates that separate them";
    }
}
