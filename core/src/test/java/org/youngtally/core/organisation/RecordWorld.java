package org.youngtally.core.organisation;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/**
 * Kinds of records to try things on: customers shared by two units, documents with lines, parts that bear their group
 * in their number, and orders known by the customer's own number.
 */
public final class RecordWorld {
    public static final RequestMark MARK = new RequestMark("ines", Optional.empty(), "digest");
    private static final CodebookDraft GROUPS = new CodebookDraft(
            "group",
            null,
            List.of(
                    new CodebookDraft.ChoiceDraft("Wind-chest", "WC", null, null),
                    new CodebookDraft.ChoiceDraft("Action", "AC", null, null)));

    private RecordWorld() {}

    private static KindFieldDraft text(String name) {
        return new KindFieldDraft(name, null, null, null, null, null);
    }

    private static SeriesDraft series(String key, String pattern) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 999L, null, "2026-01-01", null, null)));
    }

    public static Drafts drafts() {
        KindDraft customer = new KindDraft(
                "customer",
                null,
                List.of(
                        text("number"),
                        new KindFieldDraft("name", null, null, null, null, true),
                        text("class"),
                        text("salesperson")),
                null,
                null,
                List.of("class"),
                null,
                null,
                null);
        KindDraft invoice = new KindDraft(
                "invoice",
                null,
                List.of(text("number"), new KindFieldDraft("dated", null, "date", null, null, null)),
                List.of(new KindFieldDraft("what", null, null, null, null, true)),
                null,
                null,
                "return",
                "dated",
                10L);
        KindDraft part = new KindDraft(
                "part",
                null,
                List.of(
                        text("number"),
                        new KindFieldDraft("group", null, "choice", "group", null, true),
                        new KindFieldDraft("group-name", null, null, null, null, null, null, "group", null),
                        new KindFieldDraft("group-code", null, null, null, null, null, null, null, "group")),
                null);
        KindDraft order = new KindDraft(
                "order",
                null,
                List.of(text("number"), text("theirs"), new KindFieldDraft("what", null, null, null, null, true)),
                null,
                List.of("theirs"),
                null,
                null,
                null,
                null);
        return new Drafts(
                List.of(),
                List.of(GROUPS),
                List.of(
                        series("customer", "K{count 3}"),
                        series("invoice", "I{date yy}-{count 3}").with(SeriesProperties.RESTARTS, List.of("year")),
                        series("part", "{field group}-{count 3}")
                                .with(
                                        SeriesProperties.FIELDS,
                                        List.of(new FieldDraft("group", "group", null, null, null))),
                        series("order", "O{count 3}"),
                        series("big", "B{count 3}")),
                List.of(
                        new UnitDraft("group", null, null, null, null),
                        new UnitDraft("works", null, "group", null, null),
                        new UnitDraft("care", null, "group", null, null)),
                List.of(customer, invoice, part, order),
                List.of(
                        Larkmoor.route("customer", "group", "customer", null),
                        Larkmoor.route("invoice", "group", "invoice", null),
                        Larkmoor.route("part", "group", "part", null),
                        Larkmoor.route("order", "group", "order", null),
                        Larkmoor.route("order", "care", "big", Map.of("what", Larkmoor.is("organ")))));
    }

    public static Act<?> save(String kind, Map<String, String> values, String... lines) {
        return saveIn("works", kind, kind, values, lines);
    }

    public static Act<?> saveIn(String unit, String kind, String series, Map<String, String> values, String... lines) {
        return new Act.SaveRecord(kind, unit, values, lines(lines), Optional.empty(), Optional.empty(), series, MARK);
    }

    /** Each line by its text; one that there is with its number and a blank in front. */
    public static List<LineOrder.Wanted> lines(String... lines) {
        return List.of(lines).stream()
                .map(line -> line.indexOf(' ') < 0
                        ? new LineOrder.Wanted(Optional.empty(), Map.of("what", line))
                        : new LineOrder.Wanted(
                                Optional.of(Integer.valueOf(line.split(" ")[0])), Map.of("what", line.split(" ")[1])))
                .toList();
    }

    public static Act<?> change(long record, RecordChange change) {
        return new Act.ChangeRecord(record, "works", change, Optional.empty(), MARK);
    }

    public static Act<?> edit(long record, Map<String, String> values, String... lines) {
        return change(
                record,
                new RecordChange.Edit(values, lines.length == 0 ? Optional.empty() : Optional.of(lines(lines))));
    }

    public static Act<?> define() {
        return new Act.Define(drafts(), List.of(), Optional.empty());
    }

    public static LocalDate today() {
        return LocalDate.of(2026, 3, 2);
    }
}
