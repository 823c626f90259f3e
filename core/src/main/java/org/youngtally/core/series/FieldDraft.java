package org.youngtally.core.series;

/** What a series takes for a field, as somebody wrote it, not yet checked; what is absent is null. */
public record FieldDraft(String name, String codebook, Boolean units, String within, Long longest, String symbols) {
    public FieldDraft(String name, String codebook, String within, Long longest, String symbols) {
        this(name, codebook, null, within, longest, symbols);
    }

    static FieldDraft of(FieldRule rule) {
        return new FieldDraft(
                rule.name(),
                rule.takesUnits() ? null : rule.codebook().orElse(null),
                rule.takesUnits() ? true : null,
                rule.within().orElse(null),
                rule.isText() && rule.longest() != FieldRule.USUAL_LONGEST ? (long) rule.longest() : null,
                rule.isText() && !rule.symbols().equals(FieldRule.USUAL_SYMBOLS)
                        ? rule.symbols().words()
                        : null);
    }
}
