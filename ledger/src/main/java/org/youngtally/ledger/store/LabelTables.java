package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.LABEL_CHANGE;
import static org.youngtally.ledger.store.db.Tables.LABEL_JOB;
import static org.youngtally.ledger.store.db.Tables.LABEL_PIECE;
import static org.youngtally.ledger.store.db.Tables.LABEL_STRETCH;

import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Effect;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.OrganisationJson;

/** Writes jobs of labels. */
final class LabelTables {
    private final DSLContext dsl;

    LabelTables(DSLContext dsl) {
        this.dsl = dsl;
    }

    void begin(Entry entry, int series, Effect.LabelJobBegun begun) {
        dsl.insertInto(LABEL_JOB)
                .values(entry.seq(), series, begun.job().layout(), OrganisationJson.write(begun.job()))
                .execute();
        for (LabelPiece piece : begun.pieces()) add(entry, entry.seq(), piece);
        set(
                entry.seq(),
                JobLabels.begun(entry.seq(), begun.job(), begun.pieces()).stretches());
    }

    void add(Entry entry, Effect.LabelsAdded added) {
        add(entry, added.job(), added.piece());
        var stretch = new LabelStretch(added.piece().from(), added.piece().to(), LabelState.WAITING);
        move(entry, added.job(), stretch, Optional.empty());
    }

    void move(Entry entry, Effect.LabelsMoved moved) {
        move(entry, moved.job(), new LabelStretch(moved.from(), moved.to(), moved.now()), moved.printer());
    }

    private void add(Entry entry, long job, LabelPiece piece) {
        dsl.insertInto(LABEL_PIECE)
                .values(
                        job,
                        piece.from(),
                        piece.to(),
                        piece.original(),
                        piece.lane(),
                        piece.position(),
                        piece.lastPosition(),
                        piece.each(),
                        piece.offset(),
                        piece.reprint(),
                        entry.seq())
                .execute();
    }

    private void move(Entry entry, long job, LabelStretch stretch, Optional<String> printer) {
        // What touches it is in the same state afterwards, perhaps.
        List<LabelStretch> near = new LabelQueries(dsl).stretches(job, stretch.from() - 1, stretch.to() + 1);
        dsl.deleteFrom(LABEL_STRETCH)
                .where(
                        LABEL_STRETCH.JOB_SEQ.eq(job),
                        LABEL_STRETCH.LAST_PLACE.in(
                                near.stream().map(LabelStretch::to).toList()))
                .execute();
        set(job, JobLabels.with(near, List.of(stretch)));
        Integer part = dsl.select(DSL.coalesce(DSL.max(LABEL_CHANGE.PART), -1))
                .from(LABEL_CHANGE)
                .where(LABEL_CHANGE.JOB_SEQ.eq(job), LABEL_CHANGE.SEQ.eq(entry.seq()))
                .fetchSingle()
                .value1();
        dsl.insertInto(LABEL_CHANGE)
                .values(
                        job,
                        entry.seq(),
                        part + 1,
                        stretch.from(),
                        stretch.to(),
                        stretch.state().code(),
                        printer.orElse(null))
                .execute();
    }

    private void set(long job, List<LabelStretch> stretches) {
        for (LabelStretch each : stretches)
            dsl.insertInto(LABEL_STRETCH)
                    .values(job, each.from(), each.to(), each.state().code())
                    .execute();
    }
}
