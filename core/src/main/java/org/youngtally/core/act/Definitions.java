package org.youngtally.core.act;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.act.Refusal.SeriesFaults;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.proof.Proof;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.Fault;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesChange;
import org.youngtally.core.series.SeriesDraft;

/** Decides what becomes of definitions: all of them hold, and what they would give is proved never to clash, or none is taken. */
final class Definitions {
    private final LedgerState state;
    private final List<SeriesFaults> faults = new ArrayList<>();
    /** The series as they would stand, by key; the value is the place of the draft. */
    private final Map<String, Integer> places = new LinkedHashMap<>();
    private final Map<String, Series> changed = new LinkedHashMap<>();

    private Definitions(LedgerState state) {
        this.state = state;
    }

    static Decision decide(LedgerState state, Act.Define act) {
        return new Definitions(state).decide(act);
    }

    private Decision decide(Act.Define act) {
        if (act.expects().isPresent()) {
            String key = act.drafts().getFirst().key();
            int version = state.series(String.valueOf(key)).map(Series::version).orElse(0);
            if (version != act.expects().get()) return new Decision.Refused(new Refusal.VersionMoved(key, act.expects().get(), version));
        }
        for (int i = 0; i < act.drafts().size(); i++) check(i, act.drafts().get(i));
        if (faults.isEmpty()) prove();
        if (!faults.isEmpty()) return new Decision.Refused(new Refusal.DefinitionsFaulty(faults));
        Stream<Effect> kept = act.files().stream().filter(file -> !state.keptFile(file.name()).equals(Optional.of(file.text()))).map(Effect.FileKept::new);
        return new Decision.Done(Stream.concat(changed.values().stream().map(Effect.Defined::new), kept).toList());
    }

    private void check(int index, SeriesDraft draft) {
        DraftCheck.Result checked = DraftCheck.of(draft);
        if (checked.series().isEmpty()) {
            faults.add(new SeriesFaults(index, String.valueOf(draft.key()), checked.faults()));
            return;
        }
        Series series = checked.series().get();
        if (places.putIfAbsent(series.key(), index) != null) {
            faults.add(new SeriesFaults(index, series.key(), List.of(new Fault("key", "‘" + series.key() + "’ stands here twice", "give each series a key of its own"))));
            return;
        }
        Optional<Series> existing = state.series(series.key());
        if (existing.isEmpty()) {
            changed.put(series.key(), series);
            return;
        }
        SeriesChange.Result change = SeriesChange.of(existing.get(), series, state.uses(series.key()));
        if (change.series().isEmpty()) faults.add(new SeriesFaults(index, series.key(), change.faults()));
        else if (!change.series().get().equals(existing.get())) changed.put(series.key(), change.series().get());
    }

    private void prove() {
        var namespaces = changed.values().stream().map(Series::namespace).distinct().toList();
        for (String namespace : namespaces) {
            var members = new LinkedHashMap<String, Series>();
            for (Series series : state.allSeries()) members.put(series.key(), series);
            members.putAll(changed);
            List<Series> inside = members.values().stream().filter(series -> series.namespace().equals(namespace)).collect(Collectors.toList());
            switch (Proof.of(inside, changed.keySet())) {
                case Proof.Disjoint disjoint -> { }
                case Proof.Clashing clashing -> faults.add(clashing(namespace, clashing.clash()));
                case Proof.Undecided undecided -> faults.add(undecided(namespace, undecided));
            }
        }
    }

    private SeriesFaults clashing(String namespace, Clash clash) {
        // The fault is shown at a series that is being changed; the other may be one that stands already.
        String key = changed.containsKey(clash.one().series()) ? clash.one().series() : clash.other().series();
        return new SeriesFaults(places.get(key), key, List.of(new Fault("pattern",
                "‘" + clash.text() + "’ would arise in two ways in the namespace ‘" + namespace + "’", remedy(clash))), Optional.of(clash));
    }

    private SeriesFaults undecided(String namespace, Proof.Undecided undecided) {
        String key = changed.containsKey(undecided.one()) ? undecided.one() : undecided.other();
        String which = undecided.one().equals(undecided.other()) ? "two numbers of ‘" + key + "’" : "a number of ‘" + undecided.one() + "’ and one of ‘" + undecided.other() + "’";
        return new SeriesFaults(places.get(key), key, List.of(new Fault("pattern", "it cannot be proved that " + which + " are never alike in the namespace ‘" + namespace + "’: " + undecided.cause(), undecided.remedy())));
    }

    private static String remedy(Clash clash) {
        if (!clash.one().series().equals(clash.other().series())) return "give the two series patterns that differ in a literal part, or namespaces of their own";
        if (clash.one().range() == clash.other().range()) return "let the pattern show what separates the lanes (the year, or the year and month), and keep parts of varying length apart with a literal";
        return "let the two ranges differ in their values, or let the pattern show the dates that separate them";
    }
}
