package org.youngtally.ledger;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.LedgerState;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.StateQueries;

/**
 * The state that acts are decided on: series and lanes are kept from batch to batch, the keys and references that a batch touches
 * are loaded for it. Each entry is taken in as soon as it is decided, so that the next act of the batch sees it. When a batch
 * fails, the whole is thrown away and read anew.
 */
final class WriterState implements LedgerState {
    private final StateQueries queries;
    private final Map<String, Series> series = new LinkedHashMap<>();
    private final Map<String, Codebook> books = new LinkedHashMap<>();
    private final Map<String, Namespace> namespaces = new LinkedHashMap<>();
    private final Map<String, String> files = new HashMap<>();
    private final Map<LaneKey, LaneState> lanes = new HashMap<>();
    private final Map<Integer, LaneKey> laneKeys = new HashMap<>();
    private final Map<LaneKey, LocalDate> latestDates = new HashMap<>();
    private final Map<List<String>, EarlierAct> keys = new HashMap<>();
    private final Map<List<String>, EarlierAct> references = new HashMap<>();
    private int nextLane = 1;

    WriterState(StateQueries queries) {
        this.queries = queries;
        for (Series known : queries.series()) series.put(known.key(), known);
        for (Codebook book : queries.codebooks()) books.put(book.key(), book);
        for (Namespace namespace : queries.namespaces()) namespaces.put(namespace.key(), namespace);
        for (StateQueries.LaneRow lane : queries.lanes()) {
            lanes.put(lane.key(), new LaneState(lane.lane(), lane.next()));
            laneKeys.put(lane.lane(), lane.key());
            latestDates.put(lane.key(), lane.latest());
            nextLane = Math.max(nextLane, lane.lane() + 1);
        }
    }

    /** Begins a batch without looking anything up: the keys and references of earlier ones are left to the unique indexes. */
    void begin() {
        keys.clear();
        references.clear();
    }

    /** Begins a batch and loads what its acts touch. */
    void load(Collection<Act> acts) {
        begin();
        var wantedKeys = new TreeSet<String>();
        var wantedReferences = new TreeSet<String>();
        for (Act act : acts) {
            if (!(act instanceof Act.Allocate allocate)) continue;
            allocate.mark().key().ifPresent(wantedKeys::add);
            allocate.reference().ifPresent(wantedReferences::add);
        }
        if (!wantedKeys.isEmpty()) queries.byKeys(wantedKeys).forEach(found -> keys.put(List.of(found.account(), found.key()), found.act()));
        if (!wantedReferences.isEmpty()) queries.byReferences(wantedReferences).forEach(found -> references.put(List.of(found.series(), found.reference()), found.act()));
    }

    void take(Entry entry) {
        for (Effect effect : entry.effects()) {
            switch (effect) {
                case Effect.CodebookDefined defined -> books.put(defined.codebook().key(), defined.codebook());
                case Effect.NamespaceDefined defined -> namespaces.put(defined.namespace().key(), defined.namespace());
                case Effect.FileKept kept -> files.put(kept.file().name(), kept.file().text());
                case Effect.Defined defined -> series.put(defined.series().key(), defined.series());
                case Effect.LaneOpened opened -> {
                    lanes.put(opened.key(), new LaneState(opened.lane(), 0));
                    laneKeys.put(opened.lane(), opened.key());
                    nextLane = Math.max(nextLane, opened.lane() + 1);
                }
                case Effect.Issued issued -> passed(issued.lane(), issued.to(), issued.particulars().date());
                case Effect.Skipped skipped -> passed(skipped.lane(), skipped.to(), skipped.particulars().date());
            }
        }
        entry.request().ifPresent(request -> {
            var done = new EarlierAct(entry.seq(), request.digest());
            request.key().ifPresent(key -> keys.put(List.of(entry.by(), key), done));
            request.reference().ifPresent(reference -> references.put(List.of(request.series(), reference), done));
        });
    }

    private void passed(int lane, long to, LocalDate date) {
        LaneKey key = laneKeys.get(lane);
        lanes.put(key, new LaneState(lane, to + 1));
        latestDates.merge(key, date, (a, b) -> a.isAfter(b) ? a : b);
    }

    @Override
    public Optional<Codebook> codebook(String key) { return Optional.ofNullable(books.get(key)); }

    @Override
    public Collection<Codebook> allCodebooks() { return books.values(); }

    @Override
    public Optional<Namespace> namespace(String key) { return Optional.ofNullable(namespaces.get(key)); }

    @Override
    public Scatter scatter(String seriesKey) { return queries.scatter(seriesKey); }

    @Override
    public Optional<Series> series(String key) { return Optional.ofNullable(series.get(key)); }

    @Override
    public Collection<Series> allSeries() { return series.values(); }

    @Override
    public Optional<String> keptFile(String name) { return Optional.ofNullable(files.computeIfAbsent(name, wanted -> queries.file(wanted).orElse(null))); }

    @Override
    public Optional<LaneState> lane(LaneKey key) { return Optional.ofNullable(lanes.get(key)); }

    @Override
    public int nextLane() { return nextLane; }

    @Override
    public List<RangeUse> uses(String key) {
        var uses = new HashMap<Integer, RangeUse>();
        lanes.forEach((lane, state) -> {
            if (!lane.series().equals(key)) return;
            uses.merge(lane.range(), new RangeUse(lane.range(), state.next(), latestDates.get(lane)),
                    (a, b) -> new RangeUse(a.range(), Math.max(a.positions(), b.positions()), a.latest().isAfter(b.latest()) ? a.latest() : b.latest()));
        });
        return List.copyOf(uses.values());
    }

    @Override
    public Optional<EarlierAct> byKey(String account, String key) { return Optional.ofNullable(keys.get(List.of(account, key))); }

    @Override
    public Optional<EarlierAct> byReference(String seriesKey, String reference) { return Optional.ofNullable(references.get(List.of(seriesKey, reference))); }
}
