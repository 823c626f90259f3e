package org.youngtally.core.act;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;

/** A state in memory that takes in the effects of what was decided on it. */
final class MapState implements LedgerState {
    final Map<String, Series> series = new LinkedHashMap<>();
    final Map<LaneKey, LaneState> lanes = new HashMap<>();
    final Map<String, EarlierAct> keys = new HashMap<>();
    final Map<String, EarlierAct> references = new HashMap<>();
    final Map<String, Codebook> books = new LinkedHashMap<>();
    final Map<String, Namespace> namespaces = new LinkedHashMap<>();
    final Map<String, String> files = new HashMap<>();
    private long seq;

    void take(Act act, Decision.Done done) {
        seq++;
        for (Effect effect : done.effects()) {
            switch (effect) {
                case Effect.FileKept kept -> files.put(kept.file().name(), kept.file().text());
                case Effect.CodebookDefined defined -> books.put(defined.codebook().key(), defined.codebook());
                case Effect.NamespaceDefined defined -> namespaces.put(defined.namespace().key(), defined.namespace());
                case Effect.Skipped skipped -> lanes.replaceAll((key, lane) -> lane.lane() == skipped.lane() ? new LaneState(lane.lane(), skipped.to() + 1) : lane);
                case Effect.Defined defined -> series.put(defined.series().key(), defined.series());
                case Effect.LaneOpened opened -> lanes.put(opened.key(), new LaneState(opened.lane(), 0));
                case Effect.Issued issued -> lanes.replaceAll((key, lane) -> lane.lane() == issued.lane() ? new LaneState(lane.lane(), issued.to() + 1) : lane);
            }
        }
        if (!(act instanceof Act.Allocate allocate)) return;
        var earlier = new EarlierAct(seq, allocate.mark().digest());
        allocate.mark().key().ifPresent(key -> keys.put(allocate.mark().account() + "/" + key, earlier));
        allocate.reference().ifPresent(reference -> references.put(allocate.series() + "/" + reference, earlier));
    }

    @Override
    public Optional<Series> series(String key) { return Optional.ofNullable(series.get(key)); }

    @Override
    public Collection<Series> allSeries() { return series.values(); }

    @Override
    public Optional<Codebook> codebook(String key) { return Optional.ofNullable(books.get(key)); }

    @Override
    public Collection<Codebook> allCodebooks() { return books.values(); }

    @Override
    public Optional<Namespace> namespace(String key) { return Optional.ofNullable(namespaces.get(key)); }

    @Override
    public Scatter scatter(String seriesKey) { return new Scatter((seriesKey + "0123456789abcdef").substring(0, 16).getBytes(StandardCharsets.US_ASCII)); }

    @Override
    public Optional<String> keptFile(String name) { return Optional.ofNullable(files.get(name)); }

    @Override
    public Optional<LaneState> lane(LaneKey key) { return Optional.ofNullable(lanes.get(key)); }

    @Override
    public int nextLane() { return lanes.size() + 1; }

    @Override
    public List<RangeUse> uses(String key) {
        return lanes.entrySet().stream().filter(lane -> lane.getKey().series().equals(key)).map(lane -> new RangeUse(lane.getKey().range(), lane.getValue().next(), LocalDate.of(2026, 1, 1))).toList();
    }

    @Override
    public Optional<EarlierAct> byKey(String account, String key) { return Optional.ofNullable(keys.get(account + "/" + key)); }

    @Override
    public Optional<EarlierAct> byReference(String seriesKey, String reference) { return Optional.ofNullable(references.get(seriesKey + "/" + reference)); }
}
