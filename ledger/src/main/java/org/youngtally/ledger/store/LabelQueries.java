package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.LABEL_CHANGE;
import static org.youngtally.ledger.store.db.Tables.LABEL_JOB;
import static org.youngtally.ledger.store.db.Tables.LABEL_PIECE;
import static org.youngtally.ledger.store.db.Tables.LABEL_STRETCH;
import static org.youngtally.ledger.store.db.Tables.ORGANISATION_PART;
import static org.youngtally.ledger.store.db.Tables.SERIES;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.ledger.journal.OrganisationJson;

/** Jobs of labels, as people look for them. */
public final class LabelQueries {
    private final DSLContext dsl;
    private final DefinitionVersions definitions;

    public LabelQueries(DSLContext dsl) {
        this.dsl = dsl;
        this.definitions = new DefinitionVersions(dsl);
    }

    /** @param seq the entry that began it */
    public Optional<JobLabels> at(long seq) {
        return dsl.select(LABEL_JOB.DEFINITION)
                .from(LABEL_JOB)
                .where(LABEL_JOB.SEQ.eq(seq))
                .fetchOptional(row -> new JobLabels(
                        seq, OrganisationJson.labels(row.value1()), pieces(seq), stretches(seq, 0, Long.MAX_VALUE)));
    }

    /**
     * The entries that began jobs, from new to old.
     *
     * @param series only those of these
     * @param before only those with a lower sequence number
     */
    public List<Long> page(Collection<String> series, long before, int most) {
        return dsl.select(LABEL_JOB.SEQ)
                .from(LABEL_JOB)
                .join(SERIES)
                .on(SERIES.ID.eq(LABEL_JOB.SERIES_ID))
                .where(SERIES.NAME.in(series), LABEL_JOB.SEQ.lt(before))
                .orderBy(LABEL_JOB.SEQ.desc())
                .limit(most)
                .fetch(LABEL_JOB.SEQ);
    }

    /** Every job, the oldest first. */
    public List<Long> all() {
        return dsl.select(LABEL_JOB.SEQ).from(LABEL_JOB).orderBy(LABEL_JOB.SEQ).fetch(LABEL_JOB.SEQ);
    }

    /**
     * Labels of a job that were sent to a printer, and of which nothing was heard yet.
     *
     * @param entry that sent them
     * @param printer its address
     */
    public record OnTheWay(long job, long entry, LabelStretch labels, String printer) {}

    /** What is on its way to printers, in the order in which it was sent. */
    public List<OnTheWay> onTheWay() {
        return dsl.select(
                        LABEL_STRETCH.JOB_SEQ,
                        LABEL_CHANGE.SEQ,
                        DSL.greatest(LABEL_STRETCH.FIRST_PLACE, LABEL_CHANGE.FIRST_PLACE),
                        DSL.least(LABEL_STRETCH.LAST_PLACE, LABEL_CHANGE.LAST_PLACE),
                        LABEL_CHANGE.PRINTER)
                .from(LABEL_STRETCH)
                .join(LABEL_CHANGE)
                .on(
                        LABEL_CHANGE.JOB_SEQ.eq(LABEL_STRETCH.JOB_SEQ),
                        LABEL_CHANGE.PRINTER.isNotNull(),
                        LABEL_CHANGE.FIRST_PLACE.le(LABEL_STRETCH.LAST_PLACE),
                        LABEL_CHANGE.LAST_PLACE.ge(LABEL_STRETCH.FIRST_PLACE))
                .where(LABEL_STRETCH.STATE.eq(LabelState.SENT.code()))
                .orderBy(LABEL_CHANGE.SEQ, LABEL_CHANGE.PART, LABEL_STRETCH.FIRST_PLACE)
                .fetch(row -> new OnTheWay(
                        row.value1(),
                        row.value2(),
                        new LabelStretch(row.value3(), row.value4(), LabelState.SENT),
                        row.value5()));
    }

    /** The job whose numbers an entry allocated. */
    public Optional<Long> allocatedBy(long seq) {
        return dsl
                .select(LABEL_PIECE.JOB_SEQ)
                .from(LABEL_PIECE)
                .where(LABEL_PIECE.SEQ.eq(seq), LABEL_PIECE.REPRINT.isFalse())
                .limit(1)
                .fetch(LABEL_PIECE.JOB_SEQ)
                .stream()
                .findFirst();
    }

    private List<LabelPiece> pieces(long job) {
        return dsl.selectFrom(LABEL_PIECE)
                .where(LABEL_PIECE.JOB_SEQ.eq(job))
                .orderBy(LABEL_PIECE.LAST_PLACE)
                .fetch(LabelQueries::piece);
    }

    private static LabelPiece piece(Record row) {
        return new LabelPiece(
                row.get(LABEL_PIECE.FIRST_PLACE),
                row.get(LABEL_PIECE.LAST_PLACE),
                row.get(LABEL_PIECE.ORIGINAL_PLACE),
                row.get(LABEL_PIECE.LANE_ID),
                row.get(LABEL_PIECE.FIRST_POSITION),
                row.get(LABEL_PIECE.ALIKE),
                row.get(LABEL_PIECE.ALIKE_BEFORE),
                row.get(LABEL_PIECE.REPRINT));
    }

    /** Those that reach between two places, whole. */
    List<LabelStretch> stretches(long job, long from, long to) {
        return dsl.selectFrom(LABEL_STRETCH)
                .where(
                        LABEL_STRETCH.JOB_SEQ.eq(job),
                        LABEL_STRETCH.LAST_PLACE.ge(from),
                        LABEL_STRETCH.FIRST_PLACE.le(to))
                .orderBy(LABEL_STRETCH.LAST_PLACE)
                .fetch(row -> new LabelStretch(
                        row.get(LABEL_STRETCH.FIRST_PLACE),
                        row.get(LABEL_STRETCH.LAST_PLACE),
                        LabelState.of(row.get(LABEL_STRETCH.STATE))));
    }

    /** The identifiers at some positions in a row, as they are now. */
    public List<String> identifiers(int lane, long from, long to) {
        var texts = new ArrayList<String>();
        for (Stretch stretch : Stretches.between(dsl, lane, from, to)) {
            Stretch part = stretch.between(from, to);
            for (long position = part.from(); position <= part.to(); position++) {
                long at = position;
                texts.add(stretch.origin()
                        .text()
                        .orElseGet(
                                () -> definitions.render(lane, stretch.origin().particulars(), at)));
            }
        }
        return texts;
    }

    /**
     * Something that was done with labels in a row.
     *
     * @param seq the entry
     * @param now the state that they had afterwards
     */
    public record Change(long seq, long from, long to, LabelState now) {}

    /** What was done with the labels of a job, in its order. */
    public List<Change> changes(long job) {
        return dsl.selectFrom(LABEL_CHANGE)
                .where(LABEL_CHANGE.JOB_SEQ.eq(job))
                .orderBy(LABEL_CHANGE.SEQ, LABEL_CHANGE.PART)
                .fetch(row -> new Change(
                        row.get(LABEL_CHANGE.SEQ),
                        row.get(LABEL_CHANGE.FIRST_PLACE),
                        row.get(LABEL_CHANGE.LAST_PLACE),
                        LabelState.of(row.get(LABEL_CHANGE.STATE))));
    }

    /** The jobs, by the entries that began them, with labels that bear the number at a position. */
    public List<Long> bearing(int lane, long position) {
        return dsl.selectDistinct(LABEL_PIECE.JOB_SEQ)
                .from(LABEL_PIECE)
                .where(
                        LABEL_PIECE.LANE_ID.eq(lane),
                        LABEL_PIECE.LAST_POSITION.ge(position),
                        LABEL_PIECE.FIRST_POSITION.le(position))
                .orderBy(LABEL_PIECE.JOB_SEQ)
                .fetch(LABEL_PIECE.JOB_SEQ);
    }

    /** A layout as it was in a version. */
    public Optional<KeptLayout> layout(String key, int version) {
        return dsl
                .select(ORGANISATION_PART.DEFINITION)
                .from(ORGANISATION_PART)
                .where(
                        ORGANISATION_PART.SORT.eq(OrganisationTables.LAYOUT),
                        ORGANISATION_PART.NAME.eq(key),
                        ORGANISATION_PART.DEFINITION.isNotNull())
                .fetch(ORGANISATION_PART.DEFINITION)
                .stream()
                .map(OrganisationJson::layout)
                .filter(kept -> kept.version() == version)
                .findFirst();
    }
}
