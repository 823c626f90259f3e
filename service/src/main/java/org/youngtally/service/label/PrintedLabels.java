package org.youngtally.service.label;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelContent;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import org.youngtally.ledger.store.LabelQueries;

/** The labels of a job with what is on them. */
public final class PrintedLabels {
    private final LabelQueries queries;
    private final JobLabels labels;
    private final Optional<FieldRows> rows;

    /** @param rows that the labels are for */
    public PrintedLabels(LabelQueries queries, JobLabels labels, Optional<FieldRows> rows) {
        this.queries = queries;
        this.labels = labels;
        this.rows = rows;
    }

    /**
     * One label.
     *
     * @param place in the job, from 0
     * @param content what is on it
     * @param original the place of the label that it is printed in the stead of; its own unless it is printed again
     */
    public record Label(long place, LabelContent content, LabelState state, long original) {}

    /** Those between two places, in order. */
    public List<Label> between(long from, long to) {
        var all = new ArrayList<Label>();
        for (JobLabels.Part part : labels.parts(from, Math.min(to, labels.size() - 1))) {
            LabelPiece piece = part.piece();
            long first = piece.positionAt(part.from());
            List<String> texts = queries.identifiers(piece.lane(), first, piece.positionAt(part.to()));
            for (long place = part.from(); place <= part.to(); place++)
                all.add(new Label(
                        place,
                        content(piece, place, texts.get((int) (piece.positionAt(place) - first))),
                        part.state(),
                        piece.originalOf(place)));
        }
        return all;
    }

    private LabelContent content(LabelPiece piece, long place, String identifier) {
        int copies = labels.job().copies();
        long original = piece.originalOf(place);
        var fields = new HashMap<>(labels.job().fields());
        rows.ifPresent(each -> fields.putAll(each.values(original / copies)));
        return new LabelContent(
                identifier,
                labels.job().date(),
                labels.job().unit(),
                fields,
                String.valueOf(labels.seq()),
                original / copies + 1,
                labels.job().labels(),
                (int) (original % copies) + 1,
                copies,
                piece.reprint());
    }
}
