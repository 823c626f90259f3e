package org.youngtally.service.definitions;

import java.util.List;
import java.util.function.Function;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.property.Group;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/**
 * A sort of definition that a file can hold.
 *
 * @param list under which name files list them
 * @param of those among drafts
 * @param key by what one is known
 * @param meaning of the list, for people
 */
record DefinitionSort<D>(
        String list, What what, Group<D> group, Function<Drafts, List<D>> of, Function<D, String> key, String meaning) {
    static final DefinitionSort<NamespaceDraft> NAMESPACES = new DefinitionSort<>(
            "namespaces",
            What.NAMESPACE,
            NamespaceDraft.PROPERTIES,
            Drafts::namespaces,
            NamespaceDraft::key,
            "Namespaces with properties of their own; a namespace without any needs no definition.");
    static final DefinitionSort<CodebookDraft> CODEBOOKS = new DefinitionSort<>(
            "codebooks",
            What.CODEBOOK,
            CodebookDraft.PROPERTIES,
            Drafts::codebooks,
            CodebookDraft::key,
            "The codebooks that this file defines.");
    static final DefinitionSort<SeriesDraft> SERIES = new DefinitionSort<>(
            "series",
            What.SERIES,
            SeriesProperties.SERIES,
            Drafts::series,
            SeriesDraft::key,
            "The series that this file defines.");
    static final DefinitionSort<UnitDraft> UNITS = new DefinitionSort<>(
            "units",
            What.UNIT,
            UnitDraft.PROPERTIES,
            Drafts::units,
            UnitDraft::key,
            "The companies, branches and workshops that this file defines.");
    static final DefinitionSort<KindDraft> KINDS = new DefinitionSort<>(
            "kinds",
            What.KIND,
            KindDraft.PROPERTIES,
            Drafts::kinds,
            KindDraft::key,
            "The kinds of records that this file defines.");
    static final DefinitionSort<RouteDraft> ROUTES = new DefinitionSort<>(
            "routes",
            What.ROUTE,
            RouteDraft.PROPERTIES,
            Drafts::routes,
            RouteDraft::key,
            "The routes: which series is used for records of a kind in a unit.");

    static final DefinitionSort<LayoutDraft> LAYOUTS = new DefinitionSort<>(
            "layouts",
            What.LAYOUT,
            LayoutDraft.PROPERTIES,
            Drafts::layouts,
            LayoutDraft::key,
            "The layouts of labels that this file defines.");

    /** All of them, in the order in which they are written. */
    static final List<DefinitionSort<?>> ALL = List.of(NAMESPACES, CODEBOOKS, SERIES, UNITS, KINDS, ROUTES, LAYOUTS);
}
