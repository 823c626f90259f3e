package org.youngtally.ledger.audit;

import static org.youngtally.ledger.store.db.Tables.ACCOUNT;
import static org.youngtally.ledger.store.db.Tables.CODEBOOK_VERSION;
import static org.youngtally.ledger.store.db.Tables.ENTRY;
import static org.youngtally.ledger.store.db.Tables.RETIRED;
import static org.youngtally.ledger.store.db.Tables.SERIES;
import static org.youngtally.ledger.store.db.Tables.SERIES_VERSION;
import static org.youngtally.ledger.store.db.Tables.VOIDED;

import java.io.IOException;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.LedgerState;
import org.youngtally.core.act.Origin;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.CodebookJson;
import org.youngtally.ledger.journal.Disk;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.FieldsJson;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.journal.Journal;
import org.youngtally.ledger.journal.JournalBroken;
import org.youngtally.ledger.journal.OrganisationJson;
import org.youngtally.ledger.journal.SeriesJson;
import org.youngtally.ledger.store.DocumentQueries;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.KeyMark;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.ledger.store.OrganisationTables;
import org.youngtally.ledger.store.PlanQueries;
import org.youngtally.ledger.store.Purposes;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.ledger.store.StateQueries;

/** Reads every journal line, proves the chain, and holds each against the history that the tables keep. */
final class JournalWalk {
    private static final int PAGE = 10_000;

    private final DSLContext dsl;
    private final Findings findings;
    private final Map<Integer, LaneDigest> lanes = new HashMap<>();
    private final Map<Integer, LaneKey> laneKeys = new HashMap<>();
    private Iterator<? extends Record> rows = List.<Record>of().iterator();
    private final Map<Long, Effect.PeriodClosed> periods = new TreeMap<>();
    private final KeptTexts halves = new KeptTexts();
    private final OrganisationTables organisation;
    private final RecordQueries records;
    /** Of each record that stands: its series and its identifier. */
    private final Map<Long, List<String>> numbers = new HashMap<>();

    /** The plans for tables that are open, by the entries that began them. */
    private final Map<Long, TablePlan.Open> plans = new HashMap<>();

    /** Jobs of labels, by the entries that began them. */
    private final Map<Long, JobLabels> labels = new HashMap<>();

    private final NavigableMap<Long, String> epochs = new TreeMap<>();
    private final Map<String, Long> statedAt = new HashMap<>();
    private long documentItems;

    private long recordVersions;
    private long parts;
    private long voids;
    private long retirements;
    private long entries;
    private Head reached = Head.EMPTY;
    private boolean earlierSeen;

    JournalWalk(DSLContext dsl, Findings findings) {
        this.dsl = dsl;
        this.findings = findings;
        this.organisation = new OrganisationTables(dsl);
        this.records = new RecordQueries(dsl);
    }

    /** @param earlier a head noted down before, to be met on the way; {@link Head#EMPTY} for none */
    void run(Disk journal, Head to, Head earlier) throws IOException {
        earlierSeen = earlier.seq() == 0;
        if (earlier.seq() > to.seq())
            findings.add("the earlier head " + earlier + " lies beyond the journal's end, entry " + to.seq()
                    + ": entries were cut off");
        try {
            Journal.read(journal, 0, to.seq(), (entry, head) -> {
                entries++;
                reached = head;
                if (head.seq() == earlier.seq()) {
                    earlierSeen = true;
                    if (!head.equals(earlier))
                        findings.add("entry " + head.seq() + " now has the hash " + head.hash() + " instead of "
                                + earlier.hash() + ": something up to it was rewritten");
                }
                compare(entry);
                for (Effect effect : entry.effects()) take(entry, effect);
            });
            if (!reached.equals(to))
                findings.add("the tables end at " + to + ", the journal has " + reached + " there");
        } catch (JournalBroken e) {
            findings.add("journal: " + e.getMessage());
        }
        if (!earlierSeen && earlier.seq() <= to.seq())
            findings.add("the earlier head " + earlier + " was not met: the journal could not be read so far");
    }

    private void take(Entry entry, Effect effect) {
        switch (effect) {
            case Effect.Defined defined ->
                definition(
                        "series " + defined.series().key() + ", version "
                                + defined.series().version(),
                        SeriesJson.write(defined.series()),
                        dsl.select(SERIES_VERSION.DEFINITION)
                                .from(SERIES_VERSION)
                                .join(SERIES)
                                .on(SERIES.ID.eq(SERIES_VERSION.SERIES_ID))
                                .where(
                                        SERIES.NAME.eq(defined.series().key()),
                                        SERIES_VERSION.VERSION.eq(
                                                defined.series().version()))
                                .fetchOne(SERIES_VERSION.DEFINITION));
            case Effect.CodebookDefined defined ->
                definition(
                        "codebook " + defined.codebook().key() + ", version "
                                + defined.codebook().version(),
                        CodebookJson.write(defined.codebook()),
                        dsl.select(CODEBOOK_VERSION.DEFINITION)
                                .from(CODEBOOK_VERSION)
                                .where(
                                        CODEBOOK_VERSION.NAME.eq(
                                                defined.codebook().key()),
                                        CODEBOOK_VERSION.VERSION.eq(
                                                defined.codebook().version()))
                                .fetchOne(CODEBOOK_VERSION.DEFINITION));
            case Effect.NamespaceDefined defined -> {}
            case Effect.ComparisonChanged compared -> {}
            case Effect.Organising organising -> part(entry, organising);
            case Effect.RecordKept kept -> record(entry, kept.record());
            case Effect.FileKept kept -> {}
            case Effect.Skipped skipped ->
                lane(entry, skipped.lane())
                        .ifPresent(lane -> lane.add(new Stretch(
                                skipped.from(),
                                skipped.to(),
                                PositionState.SKIPPED,
                                0,
                                0,
                                new Origin(
                                        entry.seq(),
                                        skipped.version(),
                                        skipped.particulars(),
                                        Optional.empty(),
                                        false,
                                        Optional.empty()))));
            case Effect.LaneOpened opened -> {
                laneKeys.put(opened.lane(), opened.key());
                lanes.put(opened.lane(), new LaneDigest());
            }
            case Effect.Issued issued ->
                lane(entry, issued.lane()).ifPresent(lane -> {
                    for (int i = 0; i < Math.max(1, issued.texts().size()); i++) {
                        Stretch stretch = issued.stretch(entry.seq(), i);
                        if (issued.manner().formerly().isPresent())
                            lane.giveAgain(issued.manner().formerly().get(), stretch);
                        else lane.add(stretch);
                    }
                });
            case Effect.GapClosed gap -> {
                lane(entry, gap.lane()).ifPresent(lane -> lane.add(gap.stretch(entry.seq())));
                voids += gap.quantity();
            }
            case Effect.PlanBegun begun -> plans.put(entry.seq(), new TablePlan.Open(entry.seq(), begun.plan(), 0, 0));
            case Effect.PlanAdvanced done ->
                plans.computeIfPresent(
                        done.plan(),
                        (seq, open) -> new TablePlan.Open(seq, open.plan(), done.recorded(), done.numbered()));
            case Effect.PlanEnded ended -> ended(entry, ended);
            case Effect.ItemsNumbered numbered -> {
                if (numbered.items().size()
                        != entry.request().map(Entry.Request::quantity).orElse(0L))
                    findings.add("entry " + entry.seq() + " names another quantity of items than of numbers");
                documentItems += numbered.items().size();
                if (!new DocumentQueries(dsl).isKept(entry.seq(), numbered))
                    findings.add("entry " + entry.seq() + ": the items of the document ‘" + numbered.document()
                            + "’ are not those of the journal");
            }
            case Effect.LabelJobBegun begun ->
                labels.put(entry.seq(), JobLabels.begun(entry.seq(), begun.job(), begun.pieces()));
            case Effect.LabelsAdded added ->
                labels(entry, added.job()).ifPresent(job -> labels.put(added.job(), job.with(added.piece())));
            case Effect.LabelsMoved moved -> labels(entry, moved.job()).ifPresent(job -> move(entry, job, moved));
            case Effect.Passed passed -> {}
            case Effect.Settled settled -> {
                lane(entry, settled.lane())
                        .ifPresent(lane -> lane.settle(
                                settled.from(),
                                settled.to(),
                                settled.was(),
                                settled.since(),
                                settled.now(),
                                entry.seq()));
                if (settled.now().isVoid()) voids += settled.quantity();
            }
            case Effect.Handed handed ->
                lane(entry, handed.lane())
                        .ifPresent(lane -> lane.hand(handed.from(), handed.to(), handed.was(), entry.seq()));
            case Effect.Retired retired -> retirements++;
            case Effect.ReferenceFreed freed -> {}
            case Effect.SeriesStated stated -> statedAt.put(stated.series(), entry.seq());
            case Effect.EpochBegun begun -> epochs.put(entry.seq(), begun.epoch());
            case Effect.PeriodClosed closed -> periods.put(entry.seq(), closed);
            case Effect.PeriodReopened reopened -> periods.remove(reopened.closing());
        }
    }

    private Optional<JobLabels> labels(Entry entry, long job) {
        Optional<JobLabels> known = Optional.ofNullable(labels.get(job));
        if (known.isEmpty()) findings.add("entry " + entry.seq() + " is about labels of no job: " + job);
        return known;
    }

    private void move(Entry entry, JobLabels job, Effect.LabelsMoved moved) {
        boolean were = moved.to() < job.size()
                && job.between(moved.from(), moved.to()).stream().allMatch(each -> each.state() == moved.was());
        if (were) labels.put(job.seq(), job.with(moved.from(), moved.to(), moved.now()));
        else
            findings.add("entry " + entry.seq() + ": labels " + (moved.from() + 1) + " to " + (moved.to() + 1)
                    + " of the label job " + job.seq() + " were not all "
                    + moved.was().word());
    }

    private void compareLabels() {
        var queries = new LabelQueries(dsl);
        List<Long> kept = queries.all();
        if (kept.size() != labels.size())
            findings.add("the tables keep " + kept.size() + " label jobs, the journal " + labels.size());
        for (long job : kept)
            if (!queries.at(job).equals(Optional.ofNullable(labels.get(job))))
                findings.add("the tables have the label job " + job + " differently from the journal");
    }

    private void ended(Entry entry, Effect.PlanEnded ended) {
        TablePlan.Open open = plans.remove(ended.plan());
        if (open == null) findings.add("entry " + entry.seq() + " ends a plan that is not open");
        else if (ended.completed()
                && (open.recorded() != open.plan().stretches()
                        || open.numbered() != open.plan().rows()))
            findings.add("entry " + entry.seq() + " completes the plan of entry " + ended.plan()
                    + ", which was not carried out as far as it says");
    }

    private void comparePlans() {
        var kept = new PlanQueries(dsl)
                .all().stream()
                        .filter(plan -> plan.ended().isEmpty())
                        .collect(Collectors.toMap(plan -> plan.open().seq(), PlanQueries.Plan::open));
        if (!kept.equals(plans))
            findings.add("the tables hold other plans for tables that are being carried out than the journal: "
                    + kept.keySet() + " instead of " + plans.keySet());
    }

    /** The plans for tables that are begun and not ended, by the entries that began them. */
    Map<Long, TablePlan.Open> plans() {
        return plans;
    }

    /** Holds what the tables keep beside the positions against what the journal says. */
    void compareLife() {
        Long held = dsl.select(DSL.coalesce(
                                DSL.sum(VOIDED.LAST_POSITION
                                        .minus(VOIDED.FIRST_POSITION)
                                        .plus(1L)),
                                DSL.inline(0L))
                        .cast(Long.class))
                .from(VOIDED)
                .fetchSingle()
                .value1();
        if (held != voids)
            findings.add("the tables list " + held + " void positions, the journal made " + voids + " void");
        if (!new EntryQueries(dsl).epochs().equals(epochs))
            findings.add("the tables keep other epochs than the journal");
        if (!new StateQueries(dsl).statedAt().equals(statedAt))
            findings.add("the tables keep other statements of what was lost than the journal");
        long kept = dsl.fetchCount(RETIRED);
        if (kept != retirements)
            findings.add("the tables keep " + kept + " retired identifiers, the journal retired " + retirements);
        if (organisation.size() != parts)
            findings.add("the tables keep " + organisation.size()
                    + " definitions of units, kinds, routes and accounts, the journal made " + parts);
        compareRecords();
        comparePlans();
        compareLabels();
        long keptItems = new DocumentQueries(dsl).count();
        if (keptItems != documentItems)
            findings.add("the tables keep " + keptItems + " items of documents, the journal " + documentItems);
        Map<Long, Period> closed = new StateQueries(dsl)
                .closed().stream().collect(Collectors.toMap(LedgerState.Closed::closing, LedgerState.Closed::period));
        periods.forEach((seq, period) -> {
            if (!period.period().equals(closed.get(seq)))
                findings.add("the period that entry " + seq + " closed is another in the tables, or open");
        });
        closed.keySet().stream()
                .filter(seq -> !periods.containsKey(seq))
                .forEach(seq ->
                        findings.add("the tables hold a period closed by entry " + seq + ", the journal does not"));
    }

    /** The periods that are closed, by the entry that closed them. */
    Map<Long, Effect.PeriodClosed> periods() {
        return periods;
    }

    /** Of the organisation and its accounts: what the tables keep of it at this entry. */
    private void part(Entry entry, Effect.Organising organising) {
        OrganisationTables.Part written = OrganisationTables.Part.of(organising);
        parts++;
        Optional<OrganisationTables.Part> held = organisation.at(entry.seq(), written.sort(), written.name());
        if (held.isEmpty()
                || !halves.agree(
                        "entry " + entry.seq(),
                        written.definition().orElse(""),
                        held.get().definition().orElse("")))
            findings.add("entry " + entry.seq() + ": the tables have the " + written.sort() + " ‘" + written.name()
                    + "’ differently from the journal");
    }

    private boolean agree(Entry entry, Optional<String> written, String held) {
        return written.isEmpty() ? held == null : halves.agree("entry " + entry.seq(), written.get(), held);
    }

    /** What the tables could not keep of the journal's texts. */
    List<String> halves() {
        return halves.told();
    }

    private void record(Entry entry, KeptRecord record) {
        recordVersions++;
        if (!halves.agree(
                "entry " + entry.seq(),
                OrganisationJson.write(record),
                records.content(record.id(), record.version()).orElse(null)))
            findings.add("entry " + entry.seq() + ": the tables have the record " + record.id() + " ("
                    + record.number().text() + ") differently from the journal");
        if (record.deleted()) numbers.remove(record.id());
        else
            numbers.put(
                    record.id(),
                    List.of(record.number().series(), record.number().text()));
    }

    /** Each record that stands has its number, and no other record has it. */
    private void compareRecords() {
        if (records.versions() != recordVersions)
            findings.add("the tables keep " + records.versions() + " versions of records, the journal made "
                    + recordVersions);
        Map<String, Series> series =
                new StateQueries(dsl).series().stream().collect(Collectors.toMap(Series::key, Function.identity()));
        var owners = new HashMap<List<String>, Long>();
        numbers.forEach((id, number) -> {
            Long other = owners.put(number, id);
            if (other != null)
                findings.add("the records " + other + " and " + id + " have the same number, " + number.getLast()
                        + " of " + number.getFirst());
            Optional<Long> found = Optional.ofNullable(series.get(number.getFirst()))
                    .flatMap(of -> records.numbered(of, number.getLast()));
            if (!found.equals(Optional.of(id)))
                findings.add("the record " + id + " is not found by its number, " + number.getLast() + " of "
                        + number.getFirst());
        });
    }

    private void definition(String what, String written, String held) {
        if (!halves.agree(what, written, held))
            findings.add(what + ": the tables define it differently from the journal");
    }

    private Optional<LaneDigest> lane(Entry entry, int lane) {
        Optional<LaneDigest> known = Optional.ofNullable(lanes.get(lane));
        if (known.isEmpty())
            findings.add("entry " + entry.seq() + " allocates from lane " + lane + ", which no entry opened");
        return known;
    }

    private void compare(Entry entry) {
        if (!rows.hasNext()) rows = page(entry.seq()).iterator();
        if (!rows.hasNext()) {
            findings.add("entry " + entry.seq() + " is in the journal and not in the tables");
            return;
        }
        Record row = rows.next();
        boolean alike = row.get(ENTRY.SEQ) == entry.seq()
                && row.get(ENTRY.AT).toInstant(ZoneOffset.UTC).equals(entry.at())
                && row.get(ACCOUNT.NAME).equals(entry.by())
                && row.get(ENTRY.KIND) == entry.kind().code()
                && entry.request().map(request -> alike(entry, request, row)).orElse(row.get(ENTRY.DIGEST) == null);
        if (alike) return;
        findings.add("entry " + entry.seq() + ": the tables say differently from the journal");
        rows = page(entry.seq() + 1).iterator();
    }

    private boolean alike(Entry entry, Entry.Request request, Record row) {
        Optional<Particulars> particulars = Optional.ofNullable(row.get(ENTRY.BUSINESS_DATE))
                .map(date -> new Particulars(date, FieldsJson.read(row.get(ENTRY.FIELDS))));
        return request.particulars().equals(particulars)
                && Long.valueOf(request.quantity()).equals(row.get(ENTRY.QUANTITY))
                && agree(entry, request.reference(), row.get(ENTRY.REFERENCE))
                && agree(entry, request.key(), row.get(ENTRY.REQUEST_KEY))
                && Objects.equals(
                        request.key().map(key -> KeyMark.of(entry.by(), key)).orElse(null), row.get(ENTRY.KEY_MARK))
                && request.digest().equals(row.get(ENTRY.DIGEST))
                && agree(entry, request.note(), row.get(ENTRY.NOTE))
                && request.purpose().equals(Purposes.read(row.get(ENTRY.PURPOSE)));
    }

    private List<? extends Record> page(long from) {
        return dsl.select(
                        ENTRY.SEQ,
                        ENTRY.AT,
                        ACCOUNT.NAME,
                        ENTRY.KIND,
                        ENTRY.BUSINESS_DATE,
                        ENTRY.QUANTITY,
                        ENTRY.REFERENCE,
                        ENTRY.REQUEST_KEY,
                        ENTRY.KEY_MARK,
                        ENTRY.DIGEST,
                        ENTRY.SPANS,
                        ENTRY.FIELDS,
                        ENTRY.NOTE,
                        ENTRY.PURPOSE)
                .from(ENTRY)
                .join(ACCOUNT)
                .on(ACCOUNT.ID.eq(ENTRY.ACCOUNT_ID))
                .where(ENTRY.SEQ.ge(from))
                .orderBy(ENTRY.SEQ)
                .limit(PAGE)
                .fetch();
    }

    long entries() {
        return entries;
    }

    Map<Integer, LaneDigest> lanes() {
        return lanes;
    }

    /** What a lane counts for, to be read behind its number. */
    String name(int lane) {
        LaneKey key = laneKeys.get(lane);
        return key == null
                ? ""
                : " (series " + key.series() + (key.period().isEmpty() ? "" : ", " + key.period()) + ")";
    }
}
