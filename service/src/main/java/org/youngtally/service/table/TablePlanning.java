package org.youngtally.service.table;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.youngtally.core.act.PlanStep.InUse;
import org.youngtally.core.act.SeriesStanding;
import org.youngtally.core.inspection.BySeries;
import org.youngtally.core.inspection.ColumnChoice;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.repair.Change;
import org.youngtally.core.repair.Choices;
import org.youngtally.core.repair.TablePlanner;
import org.youngtally.core.repair.TooLargePlan;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.TableFile;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Makes a plan for the numbers of a table. */
public final class TablePlanning {
    private final LedgerSnapshot snapshot;
    private final Series series;
    private final RepairOptions options;
    private final TableFile table;
    private final SeriesReader reader;
    private final Fields fields;

    /** @param today by which dates are told apart that are written alike */
    public TablePlanning(
            LedgerSnapshot snapshot, Series series, RepairOptions options, TableFile table, LocalDate today) {
        this.snapshot = snapshot;
        this.series = series;
        this.options = options;
        this.table = table;
        this.fields = Fields.of(series, snapshot::choices);
        this.reader = new SeriesReader(series, fields, today);
    }

    /**
     * Writes the plan.
     *
     * @param digest of the table
     */
    public void write(DSLContext dsl, Path file, String digest, Path to) throws IOException, UnreadableDocument {
        int column = options.column().isPresent() ? column(options.column().get()) : likeliest();
        TablePlanner.Planned planned = planned(dsl, column);
        var counts = new EnumMap<Change.Kind, Long>(Change.Kind.class);
        for (Change change : planned.changes()) counts.merge(change.kind(), 1L, Long::sum);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(to));
                var plan = new PlanFile.Writer(out)) {
            plan.head(new PlanFile.Head(
                    series.key(),
                    series.version(),
                    SeriesStanding.of(snapshot.counters(), series),
                    digest,
                    Files.size(file),
                    table.columns().get(column),
                    options,
                    table.notes(),
                    series.policy().chronological(),
                    planned.rows(),
                    planned.kept(),
                    planned.preexisting(),
                    planned.gaps(),
                    counts));
            changes(planned.changes(), column, plan);
            plan.stretches();
            for (InUse stretch : planned.stretches()) {
                Range range = series.range(stretch.lane().range()).orElseThrow();
                plan.stretch(
                        stretch,
                        series.render(range, stretch.particulars(), stretch.from()),
                        series.render(range, stretch.particulars(), stretch.to()));
            }
        }
    }

    /** Each with what the row holds now. */
    private void changes(List<Change> changes, int column, PlanFile.Writer plan)
            throws IOException, UnreadableDocument {
        if (changes.isEmpty()) return;
        Iterator<Change> next = changes.iterator();
        var waiting = new Change[] {next.next()};
        table.read((line, cells) -> {
            if (waiting[0].line() != line) return true;
            plan.change(waiting[0], cell(cells, column));
            if (!next.hasNext()) return false;
            waiting[0] = next.next();
            return true;
        });
    }

    private TablePlanner.Planned planned(DSLContext dsl, int column) throws IOException, UnreadableDocument {
        Optional<Integer> dateColumn = options.dateColumn().map(this::column);
        Map<String, Integer> fieldColumns = fieldColumns();
        var planner = new TablePlanner(
                reader,
                fields,
                new Choices(
                        options.gaps(),
                        options.keep(),
                        Set.copyOf(options.chosen()),
                        table.formulas(column),
                        options.date()));
        try {
            table.read((line, cells) -> {
                var given = new HashMap<String, String>();
                fieldColumns.forEach((field, at) -> given.put(field, cell(cells, at)));
                boolean goesOn =
                        planner.row(line, cell(cells, column), dateColumn.flatMap(at -> date(cell(cells, at))), given);
                if (!goesOn) throw wrongColumn(column);
                return true;
            });
            return planner.plan(new SeriesNumbers(snapshot, series, dsl));
        } catch (TooLargePlan e) {
            throw new Problem(Type.TABLE_FAULTY, "The table has " + e.getMessage() + ".")
                    .field("file", "the table in parts, or without a column of dates");
        }
    }

    private Problem wrongColumn(int column) {
        return new Problem(
                        Type.TABLE_FAULTY,
                        "More than %,d texts of the column ‘%s’ are no numbers of ‘%s’."
                                .formatted(
                                        TablePlanner.MOST_UNREAD,
                                        table.columns().get(column),
                                        series.key()))
                .field("column", "the column of the numbers, or another series");
    }

    private static String cell(List<String> cells, int column) {
        return column < cells.size() ? cells.get(column) : "";
    }

    private static Optional<LocalDate> date(String text) {
        try {
            return text.length() < 10 ? Optional.empty() : Optional.of(LocalDate.parse(text.substring(0, 10)));
        } catch (DateTimeException e) {
            // A row without a date that can be read has none: the plan says which date its number gets.
            return Optional.empty();
        }
    }

    private int column(String name) {
        List<String> columns = table.columns();
        for (int i = 0; i < columns.size(); i++) if (columns.get(i).equalsIgnoreCase(name.strip())) return i;
        throw TableRows.noColumn(columns, name);
    }

    /** The columns of the fields of the series: those that were named, or that bear a field's name. */
    private Map<String, Integer> fieldColumns() {
        var found = new LinkedHashMap<String, Integer>();
        List<String> names = series.fields().stream().map(FieldRule::name).toList();
        options.fieldColumns().forEach((field, column) -> {
            if (!names.contains(field))
                throw new Problem(Type.TABLE_FAULTY, "‘" + series.key() + "’ has no field ‘" + field + "’.")
                        .field("field", names.isEmpty() ? "none" : "one of " + String.join(", ", names));
            found.put(field, column(column));
        });
        for (String name : names)
            for (int i = 0; i < table.columns().size(); i++)
                if (table.columns().get(i).equalsIgnoreCase(name)) found.putIfAbsent(name, i);
        return found;
    }

    private int likeliest() throws IOException, UnreadableDocument {
        var choice = new ColumnChoice(table.columns(), new BySeries(List.of(reader)));
        table.read((line, cells) -> choice.row(cells));
        return choice.profiles().stream()
                .findFirst()
                .map(ColumnChoice.Profile::column)
                .orElseThrow(() ->
                        new Problem(Type.TABLE_FAULTY, "The table has no rows.").field("file", "a table with rows"));
    }
}
