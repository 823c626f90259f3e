package org.youngtally.core.organisation;

import java.util.List;
import java.util.Map;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** An organisation to try things on: a group with two units below it, invoices of each, customers of all. */
public final class Larkmoor {
    public static final CodebookDraft CLASSES = new CodebookDraft(
            "class",
            null,
            List.of(
                    new CodebookDraft.ChoiceDraft("School", "S", null, null),
                    new CodebookDraft.ChoiceDraft("Church", "C", null, null),
                    new CodebookDraft.ChoiceDraft("Old", "O", true, null)));

    private Larkmoor() {}

    public static UnitDraft unit(String key, String below) {
        return new UnitDraft(key, null, below, null, null);
    }

    public static KindFieldDraft field(String name, String type, Boolean required) {
        return new KindFieldDraft(name, null, type, type.equals("choice") ? "class" : null, null, required);
    }

    public static KindDraft customers() {
        return new KindDraft(
                "customer",
                null,
                List.of(
                        field("number", "text", null),
                        field("name", "text", true),
                        field("class", "choice", null),
                        field("total", "number", null),
                        field("since", "date", null),
                        field("agreed", "yes-no", null)),
                null);
    }

    public static KindDraft invoices() {
        return new KindDraft(
                "invoice", null, List.of(field("number", "text", null), field("plant", "text", true)), null);
    }

    public static RouteDraft route(String kind, String unit, String series, Map<String, TestDraft> when) {
        return new RouteDraft(kind, unit, when, series, null);
    }

    public static TestDraft is(String... values) {
        return new TestDraft(List.of(values), null, null);
    }

    public static TestDraft between(String from, String to) {
        return new TestDraft(null, from, to);
    }

    public static SeriesDraft series(String key, String pattern) {
        return SeriesDraft.of(key, pattern)
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 999L, null, "2026-01-01", null, null, null)));
    }

    /** All of it. */
    public static Drafts drafts() {
        return new Drafts(
                List.of(),
                List.of(CLASSES),
                List.of(
                        series("invoice-works", "LW-{count 3}"),
                        series("invoice-care", "LC-{count 3}"),
                        series("customer", "K{count 3}"),
                        series("school", "S{count 3}")),
                List.of(unit("group", null), unit("works", "group"), unit("care", "group"), unit("bench", "works")),
                List.of(customers(), invoices()),
                List.of(
                        route("invoice", "works", "invoice-works", null),
                        route("invoice", "care", "invoice-care", null),
                        route("customer", "group", "customer", null),
                        route("customer", "care", "school", Map.of("class", is("School")))));
    }
}
