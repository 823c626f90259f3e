package org.youngtally.core.organisation;

import java.util.List;

/** A kind of record as somebody wrote it, not yet checked; what is absent is null. */
public record KindDraft(String key, String title, List<KindFieldDraft> fields, List<KindFieldDraft> lines) {

    /** A field of it as somebody wrote it. */
    public record KindFieldDraft(String name, String title, String type, String codebook, String within, Boolean required) {
        static KindFieldDraft of(KindField field) {
            return new KindFieldDraft(field.name(), field.title().equals(field.name()) ? null : field.title(), field.type() == KindField.Type.TEXT ? null : field.type().word(), field.codebook().orElse(null), field.within().orElse(null), field.required() ? true : null);
        }
    }

    /** The same, without what says no more than its absence. */
    public static KindDraft plain(KindDraft draft) {
        return new KindDraft(draft.key, draft.key != null && draft.key.equals(draft.title) ? null : draft.title, plain(draft.fields == null ? List.of() : draft.fields), draft.lines == null || draft.lines.isEmpty() ? null : plain(draft.lines));
    }

    private static List<KindFieldDraft> plain(List<KindFieldDraft> fields) {
        return fields.stream().map(field -> new KindFieldDraft(field.name, field.name != null && field.name.equals(field.title) ? null : field.title, KindField.Type.TEXT.word().equals(field.type) ? null : field.type, field.codebook, field.within, Boolean.TRUE.equals(field.required) ? true : null)).toList();
    }

    /** The definition that this kind would be written as. */
    public static KindDraft of(Kind kind) {
        return new KindDraft(kind.key(), kind.title().equals(kind.key()) ? null : kind.title(), kind.fields().stream().map(KindFieldDraft::of).toList(), kind.lines().isEmpty() ? null : kind.lines().stream().map(KindFieldDraft::of).toList());
    }
}
