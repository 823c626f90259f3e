package org.youngtally.core.act;

import java.util.List;
import java.util.stream.Stream;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.SeriesDraft;

/** Definitions as somebody wrote them, to be taken all together or not at all. */
public record Drafts(
        List<NamespaceDraft> namespaces,
        List<CodebookDraft> codebooks,
        List<SeriesDraft> series,
        List<UnitDraft> units,
        List<KindDraft> kinds,
        List<RouteDraft> routes,
        List<LayoutDraft> layouts) {
    public static final Drafts NONE = new Drafts(List.of(), List.of(), List.of());

    public Drafts {
        namespaces = List.copyOf(namespaces);
        codebooks = List.copyOf(codebooks);
        series = List.copyOf(series);
        units = List.copyOf(units);
        kinds = List.copyOf(kinds);
        routes = List.copyOf(routes);
        layouts = List.copyOf(layouts);
    }

    /** Without layouts. */
    public Drafts(
            List<NamespaceDraft> namespaces,
            List<CodebookDraft> codebooks,
            List<SeriesDraft> series,
            List<UnitDraft> units,
            List<KindDraft> kinds,
            List<RouteDraft> routes) {
        this(namespaces, codebooks, series, units, kinds, routes, List.of());
    }

    /** Without anything of the organisation. */
    public Drafts(List<NamespaceDraft> namespaces, List<CodebookDraft> codebooks, List<SeriesDraft> series) {
        this(namespaces, codebooks, series, List.of(), List.of(), List.of());
    }

    public static Drafts of(List<SeriesDraft> series) {
        return new Drafts(List.of(), List.of(), series);
    }

    public static Drafts of(CodebookDraft codebook) {
        return new Drafts(List.of(), List.of(codebook), List.of());
    }

    public static Drafts of(RouteDraft route) {
        return new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(route));
    }

    /** How many things they define. */
    public int size() {
        return namespaces.size()
                + codebooks.size()
                + series.size()
                + units.size()
                + kinds.size()
                + routes.size()
                + layouts.size();
    }

    /** These and others, behind them. */
    public Drafts and(Drafts others) {
        return new Drafts(
                joined(namespaces, others.namespaces),
                joined(codebooks, others.codebooks),
                joined(series, others.series),
                joined(units, others.units),
                joined(kinds, others.kinds),
                joined(routes, others.routes),
                joined(layouts, others.layouts));
    }

    private static <T> List<T> joined(List<T> one, List<T> other) {
        return Stream.concat(one.stream(), other.stream()).toList();
    }
}
