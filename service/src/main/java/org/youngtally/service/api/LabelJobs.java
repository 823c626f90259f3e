package org.youngtally.service.api;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.label.PrintedLabels;
import org.youngtally.service.printing.PrintProgress;
import org.youngtally.service.printing.Printing;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Refusals;

/** Finds jobs of labels, shows them, and does something with their labels. */
@Component
class LabelJobs {
    private static final int MOST_STRETCHES = 200;
    private static final int MOST_CHANGES = 500;

    private final Ledger ledger;
    private final Printing printing;

    LabelJobs(Ledger ledger, Printing printing) {
        this.ledger = ledger;
        this.printing = printing;
    }

    /**
     * A job of labels in short.
     *
     * @param job the entry that began it
     * @param by the account that printed them
     * @param layout its key
     * @param series whose numbers they bear
     * @param kind of record that they are for, if one was named
     * @param unit that they are for, if one was named
     * @param labels how many there are, without further copies
     * @param copies of each label
     * @param first the identifier on the first
     * @param last the identifier on the last
     * @param states how many labels are in each state, with all copies
     */
    record LabelJobSummary(
            long job,
            Instant at,
            String by,
            String layout,
            String series,
            @Nullable String kind,
            @Nullable String unit,
            long labels,
            int copies,
            String first,
            String last,
            Map<String, Long> states) {}

    /**
     * A job of labels.
     *
     * @param summary the job in short
     * @param layoutVersion the version of the layout that it is printed by
     * @param date the business date
     * @param fields that were entered
     * @param size how many labels there are, with all copies and all that are printed again
     * @param stretches which labels are in which state, up to 200 stretches
     * @param more whether there are further stretches
     * @param changes what was done with them, the newest first, up to 500
     * @param printer its address, where the job was printed for one
     * @param printing how it is with the job at a printer; absent where none prints it
     */
    record LabelJobView(
            LabelJobSummary summary,
            int layoutVersion,
            LocalDate date,
            Map<String, String> fields,
            long size,
            List<LabelStretchView> stretches,
            boolean more,
            List<LabelChange> changes,
            @Nullable String printer,
            @Nullable PrintingView printing) {}

    /**
     * How it is with a job at a printer.
     *
     * @param printer its address
     * @param state queued, printing, stopped (the printer goes on when somebody has seen to it) or failed
     * @param problem what the printer said, or what went wrong
     */
    record PrintingView(
            String printer, String state, @Nullable String problem) {
        static PrintingView of(PrintProgress progress) {
            return new PrintingView(
                    progress.printer().toString(),
                    progress.state().word(),
                    progress.problem().orElse(null));
        }
    }

    /**
     * Labels in a row in one state.
     *
     * @param from the place of the first in the job, from 1
     * @param to the place of the last
     * @param state waiting, sent, printed, unconfirmed, spoiled or cancelled
     * @param first the identifier on the first
     * @param last the identifier on the last
     * @param reprint whether they were printed before
     */
    record LabelStretchView(long from, long to, String state, String first, String last, boolean reprint) {}

    /**
     * Something that was done with labels.
     *
     * @param seq the entry
     * @param act what was done: send, note, reprint, spoil or cancel
     * @param from the place of the first, from 1
     * @param to the place of the last
     * @param state that they had afterwards
     * @param note the reason, where one was needed
     */
    record LabelChange(
            long seq,
            Instant at,
            String by,
            String act,
            long from,
            long to,
            String state,
            @Nullable String note) {}

    /**
     * A job with whose labels the caller may do something.
     *
     * @throws Problem where there is none that the caller may know of, or the right is missing
     */
    JobLabels at(long job, Right right, Caller caller) {
        JobLabels found = ledger.read(dsl -> new LabelQueries(dsl).at(job))
                .filter(labels -> caller.reads(labels.job().series()) || caller.may(right, where(labels.job())))
                .orElseThrow(() -> Refusals.problem(new Refusal.UnknownLabelJob(job)));
        if (right != Right.READ) caller.need(right, where(found.job()));
        return found;
    }

    List<LabelJobSummary> page(List<String> series, long before, int most) {
        return ledger.read(dsl -> {
            var queries = new LabelQueries(dsl);
            var entries = new EntryQueries(dsl);
            return queries.page(series, before, most).stream()
                    .map(job -> summary(queries, entries, queries.at(job).orElseThrow()))
                    .toList();
        });
    }

    /** Shows a job, as {@link #at} finds it. */
    LabelJobView view(long job, Right right, Caller caller) {
        // What the ledger says is at least as new as what the printer says: whoever sees that printing ended sees how.
        Optional<PrintProgress> progress = printing.of(job);
        JobLabels labels = at(job, right, caller);
        return ledger.read(dsl -> {
            var queries = new LabelQueries(dsl);
            var entries = new EntryQueries(dsl);
            var stretches = new ArrayList<LabelStretchView>();
            for (LabelStretch each : labels.stretches())
                for (JobLabels.Part part : labels.parts(each.from(), each.to())) {
                    if (stretches.size() > MOST_STRETCHES) break;
                    stretches.add(new LabelStretchView(
                            part.from() + 1,
                            part.to() + 1,
                            part.state().word(),
                            identifier(queries, labels, part.from()),
                            identifier(queries, labels, part.to()),
                            part.piece().reprint()));
                }
            return new LabelJobView(
                    summary(queries, entries, labels),
                    labels.job().version(),
                    labels.job().date(),
                    labels.job().fields(),
                    labels.size(),
                    stretches.stream().limit(MOST_STRETCHES).toList(),
                    stretches.size() > MOST_STRETCHES,
                    changes(queries, entries, labels.seq()),
                    labels.job().printer().orElse(null),
                    progress.map(PrintingView::of).orElse(null));
        });
    }

    private static List<LabelChange> changes(LabelQueries queries, EntryQueries entries, long job) {
        List<LabelQueries.Change> newest =
                queries.changes(job).reversed().stream().limit(MOST_CHANGES).toList();
        Map<Long, EntryQueries.Row> rows = newest.stream()
                .map(LabelQueries.Change::seq)
                .distinct()
                .collect(Collectors.toMap(
                        Function.identity(), seq -> entries.at(seq).orElseThrow()));
        return newest.stream()
                .map(change -> {
                    EntryQueries.Row row = rows.get(change.seq());
                    return new LabelChange(
                            change.seq(),
                            row.at(),
                            row.by(),
                            row.kind().word(),
                            change.from() + 1,
                            change.to() + 1,
                            change.now().word(),
                            row.note()
                                    .map(note -> note.replaceFirst("^label job [0-9]+(: )?", ""))
                                    .filter(note -> !note.isEmpty())
                                    .orElse(null));
                })
                .toList();
    }

    private static LabelJobSummary summary(LabelQueries queries, EntryQueries entries, JobLabels labels) {
        EntryQueries.Row entry = entries.at(labels.seq()).orElseThrow();
        LabelJob job = labels.job();
        var states = new LinkedHashMap<String, Long>();
        labels.counts().forEach((state, quantity) -> states.put(state.word(), quantity));
        return new LabelJobSummary(
                labels.seq(),
                entry.at(),
                entry.by(),
                job.layout(),
                job.series(),
                job.kind().orElse(null),
                job.unit().orElse(null),
                job.labels(),
                job.copies(),
                identifier(queries, labels, 0),
                identifier(queries, labels, job.labels() * job.copies() - 1),
                states);
    }

    private static String identifier(LabelQueries queries, JobLabels labels, long place) {
        return new PrintedLabels(queries, labels, Optional.empty())
                .between(place, place)
                .getFirst()
                .content()
                .identifier();
    }

    /** The places of the labels that bear an identifier. */
    List<Long> bearing(JobLabels labels, String identifier) {
        return ledger.read(dsl -> new IdentifierQueries(dsl)
                .find(identifier).stream()
                        .filter(found ->
                                found.series().key().equals(labels.job().series()))
                        .flatMap(found -> labels.bearing(found.laneId(), found.position()).stream())
                        .flatMapToLong(part -> LongStream.rangeClosed(part.from(), part.to()))
                        .boxed()
                        .toList());
    }

    /** Where something is done with labels of a job. */
    static Where where(LabelJob job) {
        return new Where(Optional.of(job.series()), job.kind(), job.unit());
    }

    /** The entry that was made under the key of a request, if it was done before. */
    Optional<Long> done(RequestMark mark) {
        if (mark.key().isEmpty()) return Optional.empty();
        return ledger.read(dsl -> new StateQueries(dsl).byKeys(List.of(mark))).stream()
                .filter(found -> found.account().equals(mark.account())
                        && found.key().equals(mark.key().get()))
                .findFirst()
                .map(found -> {
                    if (!found.act().digest().equals(mark.digest()))
                        throw Refusals.problem(new Refusal.KeyReused(
                                mark.key().get(), found.act().seq()));
                    return found.act().seq();
                });
    }

    /**
     * Does something with labels.
     *
     * @return the entry, which an earlier request of this key may have made
     */
    long perform(JobLabels labels, LabelStep step, RequestMark mark, Caller caller) {
        var act = new Act.ChangeLabels(labels.job().series(), labels.seq(), step, Purpose.of(labels.job()), mark);
        return switch (Requests.perform(ledger, act, caller.name())) {
            case Outcome.Labelled labelled -> labelled.entry().seq();
            case Outcome.Refused<Answer.Labels> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    /** Whether nothing was done with the labels of a job yet. */
    boolean isUntouched(long job) {
        return ledger.read(dsl -> new LabelQueries(dsl).changes(job)).isEmpty();
    }

    /** The places that an entry brought into a state. */
    List<LabelStep.Places> changed(long job, long entry, LabelState to) {
        return ledger.read(dsl -> new LabelQueries(dsl).changes(job)).stream()
                .filter(change -> change.seq() == entry && change.now() == to)
                .map(change -> new LabelStep.Places(change.from(), change.to()))
                .toList();
    }
}
