package org.youngtally.core.act;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.pcollections.HashTreePMap;
import org.pcollections.PMap;
import org.pcollections.TreePMap;
import org.pcollections.TreePSet;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.Counters.Held;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.RecordKeys;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.RangeUse;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/**
 * A state that takes in the effects of every act. Definitions, lanes, holds and what lies apart in a lane are always in
 * memory; single numbers, entries, keys and references are fetched from a {@link RowReader} when a decision asks for
 * them, and then kept as the acts since change them, until {@link #forget}.
 */
public final class StateInMemory implements LedgerState {

    private final RowReader rows;
    private final Map<String, Series> series = new LinkedHashMap<>();
    private final Map<String, Codebook> books = new LinkedHashMap<>();
    private final Map<String, Namespace> namespaces = new LinkedHashMap<>();
    private final Map<String, Comparison> comparisons = new HashMap<>();
    private final Map<String, String> files = new HashMap<>();
    private PMap<LaneKey, LaneState> lanes;
    private PMap<Integer, LaneKey> laneKeys;
    private PMap<Integer, TreePMap<Long, Stretch>> apart;
    private PMap<Integer, PMap<Long, List<Origin>>> retired;
    private TreePMap<Instant, TreePSet<Held>> holds;
    private TreePMap<Long, Closed> closed;
    private TreePMap<Long, TablePlan.Open> plans;
    private PMap<String, Long> statedAt;
    private int nextLane;
    private long nextRecord;
    private final Map<List<String>, EarlierAct> keys = new HashMap<>();
    private final Map<List<String>, EarlierAct> references = new HashMap<>();
    private final Set<List<String>> freed = new HashSet<>();
    private final Map<Integer, TreeMap<Long, Stretch>> known = new HashMap<>();
    private final Map<String, Map<String, Span>> spots = new HashMap<>();
    private final Map<Long, Taken> takings = new HashMap<>();
    private final Map<Long, Taken> blocks = new HashMap<>();
    private final Map<String, Account> accounts = new LinkedHashMap<>();
    private final Map<Long, KeptRecord> records = new HashMap<>();
    /** By kind, field and value; empty for what no record is known by any more. */
    private final Map<List<String>, Optional<Long>> knownBy = new HashMap<>();

    private final Map<List<String>, Long> numbered = new HashMap<>();
    private final Map<Long, JobLabels> labels = new HashMap<>();
    /** By the entry that allocated the numbers. */
    private final Map<Long, Long> labelJobs = new HashMap<>();
    /** The last entry that numbered items of each document, by its series and name. */
    private final Map<List<String>, Long> documents = new HashMap<>();

    private Organisation organisation = Organisation.NONE;

    public StateInMemory(RowReader rows) {
        this(rows, Counters.NONE);
    }

    /** @param counters how far everything is counted */
    public StateInMemory(RowReader rows, Counters counters) {
        this.rows = rows;
        lanes = counters.lanes();
        laneKeys = counters.keys();
        apart = counters.apart();
        retired = counters.retired();
        holds = counters.holds();
        closed = counters.closed();
        plans = counters.plans();
        statedAt = counters.statedAt();
        nextLane = counters.nextLane();
        nextRecord = counters.nextRecord();
    }

    /** How far everything is counted now; what is taken in later does not change it. */
    @Override
    public Counters counters() {
        return new Counters(lanes, laneKeys, apart, retired, holds, closed, plans, statedAt, nextLane, nextRecord);
    }

    @Override
    public long statedAt(String key) {
        return statedAt.getOrDefault(key, 0L);
    }

    @Override
    public Optional<TablePlan.Open> plan(String of) {
        return plans.isEmpty() ? Optional.empty() : counters().plan(of);
    }

    /** Forgets single numbers, entries, keys and references: the tables know them by now. */
    public void forget() {
        keys.clear();
        references.clear();
        freed.clear();
        known.clear();
        spots.clear();
        takings.clear();
        blocks.clear();
        records.clear();
        knownBy.clear();
        numbered.clear();
        labels.clear();
        labelJobs.clear();
        documents.clear();
    }

    public void remember(Series known) {
        comparisons.putIfAbsent(known.namespace(), known.comparison());
        series.put(known.key(), known.comparedBy(comparisons.get(known.namespace())));
    }

    public void remember(Codebook known) {
        books.put(known.key(), known);
    }

    public void remember(Namespace known) {
        namespaces.put(known.key(), known);
    }

    /** How the identifiers of a namespace are compared. */
    public void remember(String namespace, Comparison rule) {
        comparisons.put(namespace, rule);
    }

    public void remember(Organisation known) {
        organisation = known;
    }

    public void remember(Account known) {
        accounts.put(known.name(), known);
    }

    /** @param seq the entry by which it was stated what was lost of a series */
    public void rememberStated(String key, long seq) {
        statedAt = statedAt.plus(key, seq);
    }

    /** The number that the next new record gets. */
    public void rememberNextRecord(long next) {
        nextRecord = next;
    }

    public void remember(LaneKey key, LaneState lane) {
        lanes = lanes.plus(key, lane);
        laneKeys = laneKeys.plus(lane.lane(), key);
        nextLane = Math.max(nextLane, lane.lane() + 1);
    }

    /** A stretch that lies apart, or is held. */
    public void remember(int lane, Stretch stretch) {
        place(lane, stretch);
    }

    public void rememberRetired(int lane, long position, Origin origin) {
        PMap<Long, List<Origin>> own = retired.getOrDefault(lane, HashTreePMap.empty());
        List<Origin> before = own.getOrDefault(position, List.of());
        retired = retired.plus(
                lane,
                own.plus(
                        position,
                        Stream.concat(before.stream(), Stream.of(origin)).toList()));
    }

    public void remember(Closed period) {
        closed = closed.plus(period.closing(), period);
    }

    public void remember(TablePlan.Open plan) {
        plans = plans.plus(plan.seq(), plan);
    }

    public void rememberKey(String account, String key, EarlierAct act) {
        keys.put(List.of(account, key), act);
    }

    public void rememberReference(String seriesKey, String reference, EarlierAct act) {
        references.put(List.of(seriesKey, reference), act);
        freed.remove(List.of(seriesKey, reference));
    }

    /**
     * Takes in what an entry did.
     *
     * @param reference that its numbers were taken for
     */
    public void take(long seq, Optional<String> reference, List<Effect> effects) {
        for (Effect effect : effects) {
            switch (effect) {
                case Effect.CodebookDefined defined -> remember(defined.codebook());
                case Effect.NamespaceDefined defined -> remember(defined.namespace());
                case Effect.ComparisonChanged compared -> compare(compared);
                case Effect.FileKept kept ->
                    files.put(kept.file().name(), kept.file().text());
                case Effect.Defined defined -> remember(defined.series());
                case Effect.UnitDefined defined -> organisation = organisation.with(defined.unit());
                case Effect.KindDefined defined -> organisation = organisation.with(defined.kind());
                case Effect.LayoutDefined defined -> organisation = organisation.with(defined.layout());
                case Effect.RouteDefined defined -> organisation = organisation.with(defined.route());
                case Effect.RouteRemoved removed -> organisation = organisation.withoutRoute(removed.route());
                case Effect.AccountChanged changed -> remember(changed.account());
                case Effect.RecordKept kept -> keep(kept.record());
                case Effect.LaneOpened opened ->
                    remember(opened.key(), new LaneState(opened.lane(), 0, 0, Optional.empty()));
                case Effect.Issued issued -> issue(seq, reference, issued);
                case Effect.Skipped skipped -> {
                    passed(
                            skipped.lane(),
                            skipped.to(),
                            skipped.to() - skipped.from() + 1,
                            skipped.particulars().date());
                    know(
                            skipped.lane(),
                            new Stretch(
                                    skipped.from(),
                                    skipped.to(),
                                    PositionState.SKIPPED,
                                    0,
                                    0,
                                    new Origin(
                                            seq,
                                            skipped.version(),
                                            skipped.particulars(),
                                            Optional.empty(),
                                            false,
                                            Optional.empty())));
                }
                case Effect.GapClosed gap -> {
                    passed(
                            gap.lane(),
                            gap.to(),
                            gap.quantity(),
                            gap.particulars().date());
                    know(gap.lane(), gap.stretch(seq));
                }
                case Effect.PlanBegun begun -> remember(new TablePlan.Open(seq, begun.plan(), 0, 0));
                case Effect.PlanAdvanced done ->
                    remember(plans.get(done.plan()).advanced(done.recorded(), done.numbered()));
                case Effect.PlanEnded ended -> plans = plans.minus(ended.plan());
                case Effect.ItemsNumbered numbered ->
                    documents.put(List.of(numbered.series(), numbered.document()), seq);
                case Effect.LabelJobBegun begun -> {
                    labels.put(seq, JobLabels.begun(seq, begun.job(), begun.pieces()));
                    labelJobs.put(seq, seq);
                }
                case Effect.LabelsAdded added -> {
                    labels.put(added.job(), labels(added.job()).orElseThrow().with(added.piece()));
                    if (!added.piece().reprint()) labelJobs.put(seq, added.job());
                }
                case Effect.LabelsMoved moved ->
                    labels.put(
                            moved.job(), labels(moved.job()).orElseThrow().with(moved.from(), moved.to(), moved.now()));
                case Effect.Passed passed -> counter(passed.lane(), passed.to() + 1);
                case Effect.Settled settled ->
                    stretches(settled.lane(), settled.from(), settled.to())
                            .forEach(stretch -> replace(settled.lane(), stretch.settled(settled.now(), seq)));
                case Effect.Handed handed -> {
                    stretches(handed.lane(), handed.from(), handed.to())
                            .forEach(stretch -> replace(handed.lane(), stretch.inBlock(seq)));
                    add(
                            blocks,
                            seq,
                            laneKeys.get(handed.lane()).series(),
                            Optional.empty(),
                            new Span(handed.lane(), handed.from(), handed.to()));
                }
                case Effect.Retired gone -> rememberRetired(gone.lane(), gone.position(), gone.origin());
                case Effect.ReferenceFreed gone -> {
                    references.remove(List.of(gone.series(), gone.reference()));
                    freed.add(List.of(gone.series(), gone.reference()));
                }
                case Effect.SeriesStated stated -> rememberStated(stated.series(), seq);
                case Effect.EpochBegun begun -> {}
                case Effect.PeriodClosed period -> remember(new Closed(seq, period.period()));
                case Effect.PeriodReopened reopened -> closed = closed.minus(reopened.closing());
            }
        }
    }

    private void keep(KeptRecord record) {
        Kind kind = organisation.kinds().get(record.kind());
        if (record.version() > 1)
            record(record.id()).ifPresent(before -> RecordKeys.known(kind, before)
                    .forEach((field, value) -> knownBy.put(List.of(kind.key(), field, value), Optional.empty())));
        RecordKeys.known(kind, record)
                .forEach((field, value) -> knownBy.put(List.of(kind.key(), field, value), Optional.of(record.id())));
        records.put(record.id(), record);
        numbered.put(
                List.of(
                        record.number().series(),
                        series.get(record.number().series())
                                .comparison()
                                .key(record.number().text())),
                record.id());
        nextRecord = Math.max(nextRecord, record.id() + 1);
    }

    private void issue(long seq, Optional<String> reference, Effect.Issued issued) {
        int lane = issued.lane();
        String owner = laneKeys.get(lane).series();
        issued.manner().formerly().ifPresent(stretch -> unplace(lane, stretch));
        for (int i = 0; i < Math.max(1, issued.texts().size()); i++) {
            Stretch stretch = issued.stretch(seq, i);
            know(lane, stretch);
            if (issued.isCounted() && stretch.state() != PositionState.HELD) continue;
            place(lane, stretch);
        }
        Optional<LocalDate> date = Optional.of(issued.particulars().date());
        if (issued.isCounted()) passed(lane, issued.to(), 0, date.get());
        else
            change(
                    lane,
                    state -> new LaneState(lane, state.next(), state.skipped(), later(state.latest(), date.get())));
        add(takings, seq, owner, reference, new Span(lane, issued.from(), issued.to()));
        if (issued.isBlock()) add(blocks, seq, owner, reference, new Span(lane, issued.from(), issued.to()));
    }

    /** A table can take many thousand spans in one entry: they are added where they are, and not copied each time. */
    private static void add(Map<Long, Taken> to, long seq, String owner, Optional<String> reference, Span span) {
        to.computeIfAbsent(seq, first -> new Taken(owner, reference, new ArrayList<>()))
                .spans()
                .add(span);
    }

    private static Optional<LocalDate> later(Optional<LocalDate> one, LocalDate other) {
        return Optional.of(one.filter(date -> date.isAfter(other)).orElse(other));
    }

    private void change(int lane, UnaryOperator<LaneState> by) {
        LaneKey key = laneKeys.get(lane);
        LaneState state = lanes.get(key);
        if (state != null) lanes = lanes.plus(key, by.apply(state));
    }

    private void passed(int lane, long to, long skipped, LocalDate date) {
        change(lane, state -> new LaneState(lane, to + 1, state.skipped() + skipped, later(state.latest(), date)));
        cleared(lane, to + 1);
    }

    private void counter(int lane, long next) {
        change(lane, state -> new LaneState(lane, next, state.skipped(), state.latest()));
        cleared(lane, next);
    }

    private void cleared(int lane, long next) {
        // What the counter has passed lies apart no longer, unless it waits to be given again.
        TreePMap<Long, Stretch> own = apart.get(lane);
        if (own == null) return;
        TreePMap<Long, Stretch> left = own;
        for (Stretch stretch : own.headMap(next).values())
            if (stretch.state() != PositionState.RETURNED) left = left.minus(stretch.from());
        if (left != own) apart = apart.plus(lane, left);
    }

    /** Puts a stretch where it belongs beside the plain numbers that the counter has passed. */
    private void place(int lane, Stretch stretch) {
        LaneState state = lanes.get(laneKeys.get(lane));
        if (stretch.state() == PositionState.RETURNED || (stretch.origin().ahead() && stretch.from() >= state.next()))
            apart = apart.plus(lane, ownApart(lane).plus(stretch.from(), stretch));
        if (stretch.state() == PositionState.HELD) {
            Instant until = stretch.origin().until().orElseThrow();
            holds = holds.plus(
                    until, holds.getOrDefault(until, TreePSet.empty()).plus(new Held(lane, stretch.from())));
        }
    }

    /** Takes a stretch away from where it was placed, the rest of what it was placed with staying. */
    private void unplace(int lane, Stretch stretch) {
        TreePMap<Long, Stretch> own = ownApart(lane);
        Map.Entry<Long, Stretch> there = own.floorEntry(stretch.from());
        if (there != null && there.getValue().to() >= stretch.from()) {
            own = own.minus(there.getKey());
            for (Stretch rest : there.getValue().without(stretch.from(), stretch.to()))
                own = own.plus(rest.from(), rest);
            apart = apart.plus(lane, own);
        }
        stretch.origin().until().filter(holds::containsKey).ifPresent(until -> {
            TreePSet<Held> left = holds.get(until).minus(new Held(lane, stretch.from()));
            holds = left.isEmpty() ? holds.minus(until) : holds.plus(until, left);
        });
    }

    private TreePMap<Long, Stretch> ownApart(int lane) {
        return apart.getOrDefault(lane, TreePMap.empty());
    }

    private void compare(Effect.ComparisonChanged compared) {
        comparisons.put(compared.namespace(), compared.now());
        if (compared.before().isEmpty()) return;
        series.replaceAll(
                (key, each) -> each.namespace().equals(compared.namespace()) ? each.comparedBy(compared.now()) : each);
        spots.clear();
        numbered.clear();
    }

    private void replace(int lane, Stretch stretch) {
        unplace(lane, stretch);
        know(lane, stretch);
        place(lane, stretch);
    }

    /** Keeps a stretch in the place of whatever was kept of its positions. */
    private void know(int lane, Stretch stretch) {
        TreeMap<Long, Stretch> own = known.computeIfAbsent(lane, added -> new TreeMap<>());
        Map.Entry<Long, Stretch> before = own.lowerEntry(stretch.from());
        if (before != null && before.getValue().to() >= stretch.from()) cut(own, before.getValue(), stretch);
        for (Stretch other :
                List.copyOf(own.subMap(stretch.from(), true, stretch.to(), true).values())) cut(own, other, stretch);
        own.put(stretch.from(), stretch);
        String of = laneKeys.get(lane).series();
        stretch.origin().text().ifPresent(text -> spots.computeIfAbsent(of, added -> new HashMap<>())
                .put(series.get(of).comparison().key(text), new Span(lane, stretch.from(), stretch.to())));
    }

    private static void cut(TreeMap<Long, Stretch> own, Stretch old, Stretch by) {
        own.remove(old.from());
        old.without(by.from(), by.to()).forEach(rest -> own.put(rest.from(), rest));
    }

    @Override
    public List<Stretch> stretches(int lane, long from, long to) {
        TreeMap<Long, Stretch> own = known.computeIfAbsent(lane, added -> new TreeMap<>());
        if (!isCovered(own, from, to))
            for (Stretch found : rows.stretches(lane, from, to))
                unknown(own, found).forEach(part -> know(lane, part));
        var wanted = new ArrayList<Stretch>();
        Long first = own.floorKey(from);
        for (Stretch stretch :
                own.subMap(first == null ? from : first, true, to, true).values())
            if (stretch.to() >= from) wanted.add(stretch.between(from, to));
        return wanted;
    }

    private static boolean isCovered(TreeMap<Long, Stretch> own, long from, long to) {
        long at = from;
        while (at <= to) {
            Map.Entry<Long, Stretch> there = own.floorEntry(at);
            if (there == null || there.getValue().to() < at) return false;
            at = there.getValue().to() + 1;
        }
        return true;
    }

    /** The parts of a stretch of the tables that are not kept yet: what is kept is newer. */
    private static List<Stretch> unknown(TreeMap<Long, Stretch> own, Stretch found) {
        Long before = own.floorKey(found.from());
        List<Stretch> parts = new ArrayList<>(List.of(found));
        for (Stretch kept : own.subMap(before == null ? found.from() : before, true, found.to(), true)
                .values()) {
            if (kept.to() < found.from()) continue;
            Stretch last = parts.removeLast();
            parts.addAll(last.without(kept.from(), kept.to()));
            if (parts.isEmpty() || parts.getLast().to() < kept.to()) break;
        }
        return parts;
    }

    @Override
    public Optional<Span> spot(Series of, String text) {
        Optional<Span> spot = Optional.ofNullable(spots.getOrDefault(of.key(), Map.of())
                        .get(of.comparison().key(text)))
                .or(() -> rows.spot(of, text));
        // A returned position may read otherwise by now, and what it read before is no number of anybody's. One of a
        // block has no text of its own.
        return spot.filter(there -> stretches(there.lane(), there.from(), there.from())
                .getFirst()
                .origin()
                .text()
                .map(now -> of.comparison().alike(now, text))
                .orElse(true));
    }

    @Override
    public Optional<KeptRecord> record(long id) {
        return Optional.ofNullable(
                records.computeIfAbsent(id, wanted -> rows.record(wanted).orElse(null)));
    }

    @Override
    public Optional<Long> knownRecord(String kind, String field, String value) {
        return knownBy.computeIfAbsent(List.of(kind, field, value), wanted -> rows.knownRecord(kind, field, value));
    }

    @Override
    public Optional<Long> numberedRecord(Series of, String text) {
        return Optional.ofNullable(numbered.computeIfAbsent(
                List.of(of.key(), of.comparison().key(text)),
                wanted -> rows.numberedRecord(of, text).orElse(null)));
    }

    @Override
    public Optional<JobLabels> labels(long job) {
        return Optional.ofNullable(
                labels.computeIfAbsent(job, wanted -> rows.labels(wanted).orElse(null)));
    }

    @Override
    public long documentNumbered(String series, String document) {
        return documents.computeIfAbsent(List.of(series, document), wanted -> rows.documentNumbered(series, document));
    }

    @Override
    public Optional<Long> labelJob(long seq) {
        return Optional.ofNullable(
                labelJobs.computeIfAbsent(seq, wanted -> rows.labelJob(wanted).orElse(null)));
    }

    @Override
    public long nextRecord() {
        return nextRecord;
    }

    @Override
    public StateInMemory ahead() {
        var ahead = new StateInMemory(this, counters());
        ahead.series.putAll(series);
        ahead.books.putAll(books);
        ahead.namespaces.putAll(namespaces);
        ahead.comparisons.putAll(comparisons);
        ahead.accounts.putAll(accounts);
        ahead.organisation = organisation;
        return ahead;
    }

    @Override
    public Optional<Taken> taking(long seq) {
        return Optional.ofNullable(
                takings.computeIfAbsent(seq, wanted -> rows.taking(wanted).orElse(null)));
    }

    @Override
    public Optional<Taken> block(long seq) {
        return Optional.ofNullable(
                blocks.computeIfAbsent(seq, wanted -> rows.block(wanted).orElse(null)));
    }

    @Override
    public List<Span> due(Instant now, int most) {
        var due = new ArrayList<Span>();
        for (TreePSet<Held> positions : holds.headMap(now, true).values())
            for (Held each : positions) {
                if (due.size() == most) return due;
                due.add(new Span(each.lane(), each.position(), each.position()));
            }
        return due;
    }

    /** When the next hold lapses, if there is one. */
    public Optional<Instant> nextLapse() {
        return holds.isEmpty() ? Optional.empty() : Optional.of(holds.firstKey());
    }

    @Override
    public Optional<Closed> closedAt(Series of, LocalDate date) {
        for (Closed each : closed.values())
            if (each.period().includes(date) && each.period().concerns(of)) return Optional.of(each);
        return Optional.empty();
    }

    @Override
    public Collection<Closed> closed() {
        return closed.values();
    }

    @Override
    public List<Inside> inside(Collection<Series> of, LocalDate from, LocalDate to) {
        return rows.inside(of, from, to);
    }

    @Override
    public NavigableMap<Long, Stretch> apart(int lane) {
        return ownApart(lane);
    }

    @Override
    public List<Origin> retired(int lane, long position) {
        return retired.getOrDefault(lane, HashTreePMap.empty()).getOrDefault(position, List.of());
    }

    @Override
    public Optional<Codebook> codebook(String key) {
        return Optional.ofNullable(books.get(key));
    }

    @Override
    public Collection<Codebook> allCodebooks() {
        return books.values();
    }

    @Override
    public Optional<Comparison> comparison(String namespace) {
        return Optional.ofNullable(comparisons.get(namespace));
    }

    @Override
    public Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule) {
        return rows.against(members, rule);
    }

    @Override
    public Optional<Namespace> namespace(String key) {
        return Optional.ofNullable(namespaces.get(key));
    }

    /** Every namespace that was defined. */
    public Collection<Namespace> allNamespaces() {
        return namespaces.values();
    }

    /** How each namespace compares its identifiers, by its key. */
    public Map<String, Comparison> allComparisons() {
        return Collections.unmodifiableMap(comparisons);
    }

    @Override
    public Organisation organisation() {
        return organisation;
    }

    @Override
    public Map<String, Account> accounts() {
        return Collections.unmodifiableMap(accounts);
    }

    @Override
    public Scatter scatter(String seriesKey) {
        return rows.scatter(seriesKey);
    }

    @Override
    public Optional<Series> series(String key) {
        return Optional.ofNullable(series.get(key));
    }

    @Override
    public Collection<Series> allSeries() {
        return series.values();
    }

    @Override
    public Optional<String> keptFile(String name) {
        return Optional.ofNullable(
                files.computeIfAbsent(name, wanted -> rows.keptFile(wanted).orElse(null)));
    }

    @Override
    public Optional<LaneState> lane(LaneKey key) {
        return Optional.ofNullable(lanes.get(key));
    }

    @Override
    public LaneKey laneKey(int lane) {
        return laneKeys.get(lane);
    }

    @Override
    public int nextLane() {
        return nextLane;
    }

    @Override
    public List<RangeUse> uses(String key) {
        var uses = new HashMap<Integer, RangeUse>();
        lanes.forEach((lane, state) -> {
            if (!lane.series().equals(key) || state.latest().isEmpty()) return;
            NavigableMap<Long, Stretch> own = apart(state.lane());
            long positions = own.isEmpty()
                    ? state.next()
                    : Math.max(state.next(), own.lastEntry().getValue().to() + 1);
            uses.merge(
                    lane.range(),
                    new RangeUse(lane.range(), positions, state.latest().get()),
                    (a, b) -> new RangeUse(
                            a.range(),
                            Math.max(a.positions(), b.positions()),
                            a.latest().isAfter(b.latest()) ? a.latest() : b.latest()));
        });
        return List.copyOf(uses.values());
    }

    @Override
    public Optional<EarlierAct> byKey(String account, String key) {
        return Optional.ofNullable(keys.get(List.of(account, key)));
    }

    @Override
    public Optional<EarlierAct> byReference(String seriesKey, String reference) {
        return Optional.ofNullable(references.get(List.of(seriesKey, reference)));
    }

    @Override
    public Optional<Long> holder(String seriesKey, String reference) {
        Optional<EarlierAct> newer = byReference(seriesKey, reference);
        if (newer.isPresent()) return newer.map(EarlierAct::seq);
        return freed.contains(List.of(seriesKey, reference)) ? Optional.empty() : rows.holder(seriesKey, reference);
    }
}
