package org.youngtally.service.api;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act.LabelRow;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Advance;
import org.youngtally.core.label.Layout.Asked;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;
import org.youngtally.service.access.Caller;
import org.youngtally.service.api.LabelController.LabelRequest;
import org.youngtally.service.label.FieldRows;
import org.youngtally.service.label.FieldTable;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Which numbers labels are to bear: the series, and how many for the same fields in a row. */
final class LabelNumbering {
    /** The most groups of rows with the same fields: each is an allocation of its own. */
    private static final int MOST_GROUPS = 1_000;

    private final LabelRequest request;
    private final Layout layout;
    private final SortedMap<String, String> given;
    private final Optional<FieldTable> table;
    /** Numbers for each row, or all where there are no rows. */
    private final long each;

    private final Right right;
    private final Caller caller;

    /** @param each how many numbers each row of the table needs; or all labels, where there is none */
    LabelNumbering(
            LabelRequest request,
            Layout layout,
            SortedMap<String, String> given,
            Optional<FieldTable> table,
            long each,
            Right right,
            Caller caller) {
        this.request = request;
        this.layout = layout;
        this.given = given;
        this.table = table;
        this.each = each;
        this.right = right;
        this.caller = caller;
    }

    /**
     * Numbers that are wanted.
     *
     * @param rows in their order
     * @param columns of the table with the values of fields, by their names
     */
    record Wanted(
            Series series,
            List<LabelRow> rows,
            Optional<LocalDate> date,
            Purpose purpose,
            Map<String, Integer> columns) {
        long quantity() {
            return rows.stream().mapToLong(LabelRow::quantity).sum();
        }
    }

    /** @throws Problem where a field is unknown, or the rows are not all for one series */
    Wanted wanted() {
        if ((request.series() == null) == (request.kind() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.series() == null
                                    ? "Neither a series nor a kind is named."
                                    : "A series and a kind are named, and one is wanted.")
                    .field("series", "the key of a series; or a kind and a unit");
        return request.series() != null ? ofSeries() : ofKind();
    }

    private Wanted ofSeries() {
        Series series = Requests.series(caller, request.series());
        Optional<String> unit = Optional.ofNullable(request.unit())
                .map(text -> RecordSeries.unit(caller.snapshot(), text).key());
        caller.need(right, new Where(Optional.of(series.key()), Optional.empty(), unit));
        Map<String, Integer> columns =
                known(series.fields().stream().map(FieldRule::name).toList(), Map.of());
        var rows = new ArrayList<Map<String, String>>();
        for (int row = 0; row < allocations(); row++) rows.add(own(series, fields(row, columns)));
        return new Wanted(
                series, grouped(rows), Requests.date(request.date()), new Purpose(Optional.empty(), unit), columns);
    }

    private Wanted ofKind() {
        Kind kind = RecordSeries.kind(caller.snapshot(), request.kind());
        Unit unit = RecordSeries.unit(caller.snapshot(), request.unit());
        Map<String, Integer> columns = known(
                kind.fields().stream().map(KindField::name).toList(),
                kind.fields().stream().collect(Collectors.toMap(KindField::name, KindField::title)));
        var rows = new ArrayList<Map<String, String>>();
        SeriesAssignment.Assigned first = null;
        for (int row = 0; row < allocations(); row++) {
            var fields = fields(row, columns);
            fields.keySet().removeIf(name -> kind.field(name).isEmpty());
            SeriesAssignment.Assigned found = assigned(kind, unit, fields, row);
            if (first == null) {
                first = found;
                caller.need(right, RecordSeries.where(found));
            }
            if (!found.route().series().equals(first.route().series()))
                throw new Problem(
                                Type.TABLE_FAULTY,
                                "Row " + (row + 1) + " belongs to the series ‘"
                                        + found.route().series() + "’, row 1 to ‘"
                                        + first.route().series() + "’.")
                        .field("table", "rows of one series");
            rows.add(own(caller.snapshot().series().get(found.route().series()), found.given()));
        }
        return new Wanted(
                caller.snapshot().series().get(first.route().series()),
                grouped(rows),
                Requests.date(request.date()),
                RecordSeries.purpose(first),
                columns);
    }

    private SeriesAssignment.Assigned assigned(Kind kind, Unit unit, Map<String, String> fields, int row) {
        try {
            return RecordSeries.of(caller.snapshot(), kind, unit, fields, Map.of());
        } catch (Problem problem) {
            if (table.isEmpty()) throw problem;
            throw new Problem(problem.type(), "Row " + (row + 1) + ": " + problem.getMessage()).with(problem);
        }
    }

    /** One for each row; a job with one number for all has one allocation. */
    private int allocations() {
        return layout.advance() == Advance.JOB
                ? 1
                : table.map(rows -> rows.rows().size()).orElse(1);
    }

    private SortedMap<String, String> fields(int row, Map<String, Integer> columns) {
        var fields = new TreeMap<>(given);
        if (layout.advance() != Advance.JOB) table.ifPresent(rows -> fields.putAll(rows.values(row, columns)));
        return fields;
    }

    private static Map<String, String> own(Series series, Map<String, String> fields) {
        var own = new TreeMap<>(fields);
        own.keySet().removeIf(name -> series.field(name).isEmpty());
        return own;
    }

    private List<LabelRow> grouped(List<Map<String, String>> rows) {
        var groups = new ArrayList<LabelRow>();
        for (Map<String, String> fields : rows) {
            boolean same = !groups.isEmpty() && groups.getLast().fields().equals(fields);
            long before = same ? groups.removeLast().quantity() : 0;
            groups.add(new LabelRow(fields, before + each));
        }
        if (groups.size() > MOST_GROUPS)
            throw new Problem(
                            Type.QUANTITY,
                            "The numbers of %,d rows have other fields than those of the row before."
                                    .formatted(groups.size()))
                    .field("table", "up to %,d groups of rows with the same fields".formatted(MOST_GROUPS));
        return groups;
    }

    /**
     * Every field that is named is one of the layout, or one of the series or kind.
     *
     * @param titles of fields, by their names
     * @return the columns of the table with the values of such fields
     */
    private Map<String, Integer> known(Collection<String> others, Map<String, String> titles) {
        var names = new TreeSet<>(layout.fields());
        layout.asked().forEach(asked -> names.add(asked.name()));
        names.addAll(others);
        for (String name : given.keySet())
            if (!names.contains(name) && !name.equals(Particulars.UNIT))
                throw new Problem(
                                Type.FIELD_FAULTY,
                                "Neither the layout nor what it numbers has a field ‘" + name + "’."
                                        + NearestName.to(name, names)
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("fields." + name, names.isEmpty() ? "none" : String.join(", ", names));
        if (table.isEmpty()) return Map.of();
        var all = new TreeMap<>(titles);
        for (Asked asked : layout.asked()) all.put(asked.name(), asked.title());
        Map<String, Integer> columns = table.get().columns(names, all);
        if (columns.isEmpty())
            throw new Problem(
                            Type.TABLE_FAULTY,
                            "No column of the table is a field of the layout or of what it numbers: "
                                    + String.join(", ", table.get().columns()) + ".")
                    .field("table", names.isEmpty() ? "no table" : "a column such as " + String.join(", ", names));
        return columns;
    }

    /** The rows of the table as labels know them. */
    Optional<FieldRows> rows(Wanted wanted, long labels) {
        return table.map(rows ->
                new FieldRows(rows, wanted.columns(), labels / rows.rows().size()));
    }
}
