package org.youngtally.ledger;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.TreeSet;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.LedgerState;
import org.youngtally.core.act.LedgerState.AskedFor;
import org.youngtally.core.act.LedgerState.EarlierAct;
import org.youngtally.core.act.LedgerState.Inside;
import org.youngtally.core.act.LedgerState.LaneState;
import org.youngtally.core.act.LedgerState.Taken;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.RowReader;
import org.youngtally.core.act.Span;
import org.youngtally.core.act.StateInMemory;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.StateQueries;

/**
 * The state that acts are decided on, made from the tables. Each entry is taken in as soon as it is decided, so that
 * the next act of the batch sees it. When a batch fails, the whole is thrown away and read anew.
 */
final class WriterState {
    private final StateQueries queries;
    private final StateInMemory memory;

    WriterState(StateQueries queries) {
        this.queries = queries;
        this.memory = new StateInMemory(new Tables(queries));
        queries.comparisons().forEach(memory::remember);
        for (Series known : queries.series()) memory.remember(known);
        for (Codebook book : queries.codebooks()) memory.remember(book);
        for (Namespace namespace : queries.namespaces()) memory.remember(namespace);
        memory.remember(queries.organisation());
        for (Account account : queries.accounts()) memory.remember(account);
        for (StateQueries.LaneRow lane : queries.lanes())
            memory.remember(lane.key(), new LaneState(lane.lane(), lane.next(), lane.skipped(), lane.latest()));
        for (StateQueries.LaneStretch placed : queries.watched()) memory.remember(placed.lane(), placed.stretch());
        for (StateQueries.RetiredRow row : queries.retired())
            memory.rememberRetired(row.lane(), row.position(), row.origin());
        for (LedgerState.Closed period : queries.closed()) memory.remember(period);
        for (TablePlan.Open plan : queries.openPlans()) memory.remember(plan);
        queries.statedAt().forEach(memory::rememberStated);
        memory.rememberNextRecord(queries.nextRecord());
    }

    /** As a snapshot stood, for questions. */
    WriterState(StateQueries queries, LedgerSnapshot stood) {
        this.queries = queries;
        this.memory = stood.state(new Tables(queries));
    }

    StateInMemory memory() {
        return memory;
    }

    /**
     * Begins a batch without looking anything up: the keys and references of earlier ones are left to the unique
     * indexes.
     */
    void begin() {
        memory.forget();
    }

    /** Begins a batch and looks up the keys and references of its acts. */
    void load(Collection<Act<?>> acts) {
        begin();
        var keyed = new ArrayList<RequestMark>();
        var references = new TreeSet<String>();
        for (Act<?> act : acts) {
            act.known().filter(mark -> mark.key().isPresent()).ifPresent(keyed::add);
            if (act instanceof Act.Allocate allocate) allocate.reference().ifPresent(references::add);
        }
        if (!keyed.isEmpty())
            queries.byKeys(keyed).forEach(found -> memory.rememberKey(found.account(), found.key(), found.act()));
        if (!references.isEmpty())
            queries.byReferences(references)
                    .forEach(found -> memory.rememberReference(found.series(), found.reference(), found.act()));
    }

    void take(Entry entry) {
        Optional<Entry.Request> request = entry.request();
        Optional<String> reference =
                entry.kind().takes() ? request.flatMap(Entry.Request::reference) : Optional.empty();
        memory.take(entry.seq(), reference, entry.effects());
        request.ifPresent(asked -> {
            var done = new EarlierAct(entry.seq(), asked.digest());
            asked.key().ifPresent(key -> memory.rememberKey(entry.by(), key, done));
            reference.ifPresent(name -> memory.rememberReference(
                    asked.series().orElseThrow(),
                    name,
                    new EarlierAct(
                            entry.seq(),
                            asked.digest(),
                            Optional.of(new AskedFor(
                                    entry.kind().way(), asked.purpose().unit())))));
        });
    }

    /** The tables as the rows of a state. */
    private record Tables(StateQueries queries) implements RowReader {
        @Override
        public List<Stretch> stretches(int lane, long from, long to) {
            return queries.stretches(lane, from, to);
        }

        @Override
        public Optional<Span> spot(Series series, String text) {
            return queries.spot(series, text);
        }

        @Override
        public Optional<Long> holder(String series, String reference) {
            return queries.holder(series, reference);
        }

        @Override
        public Optional<Taken> taking(long seq) {
            return queries.taking(seq);
        }

        @Override
        public Optional<Taken> block(long seq) {
            return queries.block(seq);
        }

        @Override
        public Optional<String> keptFile(String name) {
            return queries.file(name);
        }

        @Override
        public Optional<KeptRecord> record(long id) {
            return queries.record(id);
        }

        @Override
        public Optional<Long> knownRecord(String kind, String field, String value) {
            return queries.knownRecord(kind, field, value);
        }

        @Override
        public Optional<Long> numberedRecord(Series series, String text) {
            return queries.numberedRecord(series, text);
        }

        @Override
        public Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule) {
            return queries.against(members, rule);
        }

        @Override
        public Optional<JobLabels> labels(long job) {
            return queries.labels(job);
        }

        @Override
        public long documentNumbered(String series, String document) {
            return queries.documentNumbered(series, document);
        }

        @Override
        public Optional<Long> labelJob(long seq) {
            return queries.labelJob(seq);
        }

        @Override
        public Scatter scatter(String series) {
            return queries.scatter(series);
        }

        @Override
        public List<Inside> inside(Collection<Series> series, LocalDate from, LocalDate to) {
            return queries.inside(series, from, to);
        }
    }
}
