package org.youngtally.core.organisation;

import java.util.List;

/** A kind of record as somebody wrote it, not yet checked; what is absent is null. */
public record KindDraft(
        String key,
        String title,
        List<KindFieldDraft> fields,
        List<KindFieldDraft> lines,
        List<String> knownBy,
        List<String> agree,
        String deleting,
        String datedBy,
        Integer lineStep) {

    /** One that says nothing about how its records are kept. */
    public KindDraft(String key, String title, List<KindFieldDraft> fields, List<KindFieldDraft> lines) {
        this(key, title, fields, lines, null, null, null, null, null);
    }

    /** A field of it as somebody wrote it. */
    public record KindFieldDraft(
            String name,
            String title,
            String type,
            String codebook,
            String within,
            Boolean required,
            Boolean sticky,
            String nameOf,
            String codeOf) {
        public KindFieldDraft(
                String name, String title, String type, String codebook, String within, Boolean required) {
            this(name, title, type, codebook, within, required, null, null, null);
        }

        static KindFieldDraft of(KindField field, List<String> sticky) {
            return new KindFieldDraft(
                    field.name(),
                    field.title().equals(field.name()) ? null : field.title(),
                    field.type() == KindField.Type.TEXT ? null : field.type().word(),
                    field.codebook().orElse(null),
                    field.within().orElse(null),
                    field.required() ? true : null,
                    sticky.contains(field.name()) ? true : null,
                    field.nameOf().orElse(null),
                    field.codeOf().orElse(null));
        }
    }

    /** The same, without what says no more than its absence. */
    public static KindDraft plain(KindDraft draft) {
        return new KindDraft(
                draft.key,
                draft.key != null && draft.key.equals(draft.title) ? null : draft.title,
                plain(draft.fields == null ? List.of() : draft.fields),
                draft.lines == null || draft.lines.isEmpty() ? null : plain(draft.lines),
                draft.knownBy == null || draft.knownBy.isEmpty() ? null : draft.knownBy,
                draft.agree == null || draft.agree.isEmpty() ? null : draft.agree,
                Keeping.Deleting.VOID.word().equals(draft.deleting) ? null : draft.deleting,
                draft.datedBy,
                Integer.valueOf(1).equals(draft.lineStep) ? null : draft.lineStep);
    }

    private static List<KindFieldDraft> plain(List<KindFieldDraft> fields) {
        return fields.stream()
                .map(field -> new KindFieldDraft(
                        field.name,
                        field.name != null && field.name.equals(field.title) ? null : field.title,
                        KindField.Type.TEXT.word().equals(field.type) ? null : field.type,
                        field.codebook,
                        field.within,
                        Boolean.TRUE.equals(field.required) ? true : null,
                        Boolean.TRUE.equals(field.sticky) ? true : null,
                        field.nameOf,
                        field.codeOf))
                .toList();
    }

    /** The definition that this kind would be written as. */
    public static KindDraft of(Kind kind) {
        Keeping keeping = kind.keeping();
        return plain(new KindDraft(
                kind.key(),
                kind.title(),
                kind.fields().stream()
                        .map(field -> KindFieldDraft.of(field, keeping.sticky()))
                        .toList(),
                kind.lines().stream()
                        .map(field -> KindFieldDraft.of(field, List.of()))
                        .toList(),
                keeping.knownBy(),
                keeping.agree(),
                keeping.deleting().word(),
                keeping.datedBy().orElse(null),
                keeping.lineStep()));
    }
}
