package org.youngtally.core.act;

import java.util.List;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.SeriesDraft;

/** Definitions as somebody wrote them, to be taken all together or not at all. */
public record Drafts(List<NamespaceDraft> namespaces, List<CodebookDraft> codebooks, List<SeriesDraft> series) {
    public Drafts {
        namespaces = List.copyOf(namespaces);
        codebooks = List.copyOf(codebooks);
        series = List.copyOf(series);
    }

    public static Drafts of(List<SeriesDraft> series) { return new Drafts(List.of(), List.of(), series); }

    public static Drafts of(CodebookDraft codebook) { return new Drafts(List.of(), List.of(codebook), List.of()); }

    public boolean isEmpty() { return namespaces.isEmpty() && codebooks.isEmpty() && series.isEmpty(); }
}
