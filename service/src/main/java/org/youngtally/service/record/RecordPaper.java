package org.youngtally.service.record;

import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.organisation.FieldValues;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.service.paper.Paper;

/** A record as a page to be printed, A4, in PDF: what it holds in one unit, and its lines. */
public final class RecordPaper {
    private static final float TEXT_ROOM = 40;

    private final Paper paper;
    private final LedgerSnapshot snapshot;
    private final Kind kind;
    private final KeptRecord record;
    private final KeptRecord.UnitValues standing;

    private RecordPaper(Paper paper, LedgerSnapshot snapshot, KeptRecord record, KeptRecord.UnitValues standing) {
        this.paper = paper;
        this.snapshot = snapshot;
        this.kind = snapshot.organisation().kinds().get(record.kind());
        this.record = record;
        this.standing = standing;
    }

    /**
     * @param standing in which unit it is printed
     * @param kept when this version was kept
     * @return the file's bytes
     */
    public static byte[] of(LedgerSnapshot snapshot, KeptRecord record, KeptRecord.UnitValues standing, Instant kept)
            throws IOException {
        Kind kind = snapshot.organisation().kinds().get(record.kind());
        return Paper.of(
                kind.title() + " " + record.number().text(),
                kept,
                "Young Tally · " + record.number().text() + ", version " + record.version() + " of record "
                        + record.id(),
                paper -> new RecordPaper(paper, snapshot, record, standing).write());
    }

    private void write() throws IOException {
        paper.line(Paper.LEFT, 17, kind.title() + " " + record.number().text());
        paper.space(12);
        paper.fact(
                "Unit",
                Optional.ofNullable(snapshot.organisation().units().get(standing.unit()))
                        .map(Unit::title)
                        .orElse(standing.unit()));
        if (record.deleted()) paper.fact("State", "deleted");
        var fields = new FieldValues(kind, snapshot::choices);
        for (KindField field : kind.fields()) {
            String value = standing.values().get(field.name());
            if (value == null || field.name().equals(record.number().into())) continue;
            paper.fact(
                    field.title(),
                    fields.chosen(field.name(), standing.values())
                            .map(Choice::name)
                            .orElse(value));
        }
        if (!record.lines().isEmpty()) lines(FieldValues.ofLines(kind, snapshot::choices));
    }

    private void lines(FieldValues fields) throws IOException {
        paper.heading(record.fixed() ? "Lines, fixed" : "Lines");
        int columns = kind.lines().size();
        var at = new float[columns + 1];
        float room = (Paper.RIGHT - Paper.LEFT - TEXT_ROOM) / (columns + 1);
        // The first one, mostly a text, has the room of two.
        for (int i = 0; i < columns; i++) at[i + 1] = TEXT_ROOM + (i == 0 ? 0 : room * (i + 1));
        var titles = new ArrayList<>(List.of("No."));
        kind.lines().forEach(field -> titles.add(field.title()));
        Set<Integer> numbers = IntStream.range(0, columns)
                .filter(i -> kind.lines().get(i).type() == KindField.Type.NUMBER)
                .mapToObj(i -> i + 1)
                .collect(Collectors.toSet());
        paper.row(at, numbers, titles.toArray(String[]::new));
        for (KeptRecord.Line line : record.lines()) {
            var cells = new ArrayList<>(List.of(String.valueOf(line.number())));
            for (KindField field : kind.lines()) cells.add(value(fields, field, line.values()));
            paper.row(at, numbers, cells.toArray(String[]::new));
        }
    }

    private static String value(FieldValues fields, KindField field, Map<String, String> values) {
        return fields.chosen(field.name(), values).map(Choice::name).orElse(values.getOrDefault(field.name(), ""));
    }
}
