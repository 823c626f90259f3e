package org.youngtally.service.api;

import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import org.springframework.stereotype.Component;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.label.JobLabels;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.store.DocumentQueries;
import org.youngtally.ledger.store.IdentifierQueries;
import org.youngtally.ledger.store.LabelQueries;
import org.youngtally.ledger.store.PlanQueries;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.api.LedgerController.BearingLabel;
import org.youngtally.service.api.LedgerController.IdentifierView;
import org.youngtally.service.web.Refusals;

/** Issued identifiers as the interface tells them, to whoever may read them. */
@Component
class IssuedIdentifiers {
    private static final int MOST_LABELS = 20;

    private final Ledger ledger;

    IssuedIdentifiers(Ledger ledger) {
        this.ledger = ledger;
    }

    /** Those of a text, one for each namespace that has it. */
    List<IdentifierView> of(String text, Caller caller) {
        return ledger.read(dsl -> new IdentifierQueries(dsl).find(text)).stream()
                .flatMap(each -> shown(each, caller).stream())
                .toList();
    }

    /** Empty for one of a series that the caller may not read. */
    Optional<IdentifierView> shown(IdentifierQueries.Found found, Caller caller) {
        return caller.reads(found.series().key())
                ? Optional.of(view(found, reference(found), record(found), origin(found), labels(found)))
                : Optional.empty();
    }

    /** What it was allocated for: as its caller called it, or the document and the item that it is in. */
    private Optional<String> reference(IdentifierQueries.Found found) {
        return found.entry()
                .reference()
                .or(() -> found.entry().kind() == Entry.Kind.FILL
                        ? ledger.read(dsl -> new DocumentQueries(dsl).reference(found.entry(), found.identifier()))
                        : Optional.empty());
    }

    /** Numbers are taken for records by acts of their own, so that no others are looked up. */
    private Optional<Long> record(IdentifierQueries.Found found) {
        return found.entry().kind().keeps()
                ? ledger.read(dsl -> new RecordQueries(dsl).numbered(found.series(), found.identifier()))
                : Optional.empty();
    }

    /** Where it was in its table, if it was recorded from one. */
    private Optional<PlanQueries.Origin> origin(IdentifierQueries.Found found) {
        return found.entry().kind() == Entry.Kind.RECORD
                ? ledger.read(dsl -> new PlanQueries(dsl).origin(found.entry().seq(), found.laneId(), found.position()))
                : Optional.empty();
    }

    /** Numbers are allocated for labels by acts of their own. */
    private List<BearingLabel> labels(IdentifierQueries.Found found) {
        Entry.Kind kind = found.entry().kind();
        if (kind != Entry.Kind.PRINT && kind != Entry.Kind.SPOIL) return List.of();
        return ledger.read(dsl -> {
            var queries = new LabelQueries(dsl);
            return queries.allocatedBy(found.entry().seq()).flatMap(queries::at).stream()
                    .flatMap(job -> job.bearing(found.laneId(), found.position()).stream()
                            .flatMap(part -> LongStream.rangeClosed(part.from(), part.to())
                                    .mapToObj(place -> bearing(job, part, place))))
                    .limit(MOST_LABELS)
                    .toList();
        });
    }

    private static BearingLabel bearing(JobLabels job, JobLabels.Part part, long place) {
        long original = part.piece().originalOf(place);
        int copies = job.job().copies();
        return new BearingLabel(
                job.seq(),
                place + 1,
                job.job().layout(),
                original / copies + 1,
                (int) (original % copies) + 1,
                part.state().word(),
                part.piece().reprint());
    }

    private static IdentifierView view(
            IdentifierQueries.Found found,
            Optional<String> reference,
            Optional<Long> record,
            Optional<PlanQueries.Origin> origin,
            List<BearingLabel> labels) {
        var range = new LedgerController.RangeSpan(
                found.range().id(),
                found.range().first(),
                found.range().last(),
                found.range().step(),
                found.range().serves().opens());
        Stretch stretch = found.stretch();
        return new IdentifierView(
                found.identifier(),
                found.series().namespace(),
                found.series().key(),
                found.series().title(),
                range,
                found.lane(),
                found.position(),
                found.round() == 0 ? null : found.round(),
                found.particulars().date(),
                LedgerController.fields(Optional.of(found.particulars())),
                found.retired().isPresent() ? "retired" : Refusals.state(stretch.state()),
                found.block() ? stretch.block() : null,
                stretch.state() == PositionState.HELD ? stretch.origin().until().orElse(null) : null,
                stretch.origin().ahead(),
                found.entry().seq(),
                found.entry().at(),
                found.entry().by(),
                reference.orElse(null),
                found.entry().purpose().kind().orElse(null),
                found.entry().purpose().unit().orElse(null),
                record.orElse(null),
                found.changed().map(LedgerController.ChangeView::of).orElse(null),
                origin.map(from -> new LedgerController.PreexistingView(
                                from.plan().open().plan().file(),
                                from.line(),
                                from.plan().open().seq()))
                        .orElse(null),
                labels.isEmpty() ? null : labels,
                found.retired().map(LedgerController.ChangeView::of).orElse(null));
    }
}
