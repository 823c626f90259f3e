package org.youngtally.core.organisation;

import java.lang.invoke.MethodHandles;
import java.util.List;
import java.util.stream.Stream;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

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
        Long lineStep,
        Boolean retired) {
    private static final Shape.Texts NAMES = new Shape.Texts("", true, false, "[class]");

    public static final Group<KindDraft> PROPERTIES = Group.of(
            "a kind",
            MethodHandles.lookup(),
            KindDraft.class,
            Property.key("key", "The name that definitions and requests use for the kind.")
                    .required(),
            Property.title("key"),
            Property.of(
                            "fields",
                            "fields",
                            new Shape.Many<>(() -> KindFieldDraft.PROPERTIES, 1, "a list of fields"),
                            "The fields of a record; a field that narrows another comes before it.")
                    .required(),
            Property.of(
                            "lines",
                            "lines",
                            new Shape.Many<>(() -> KindFieldDraft.PROPERTIES, 1, "a list of fields"),
                            "The fields of each line of a record.")
                    .otherwise("records have no lines"),
            Property.of(
                            "known-by",
                            "knownBy",
                            NAMES,
                            "The fields that identify a record: no two records of the kind have the same value in one of them.")
                    .otherwise("none"),
            Property.of("agree", "agree", NAMES, "The fields that are the same in all units of a record.")
                    .otherwise("none"),
            Property.word(
                            "deleting",
                            "deleting",
                            Stream.of(Keeping.Deleting.values())
                                    .map(Keeping.Deleting::word)
                                    .toList(),
                            "What happens to the number of a deleted record: void (with a reason) or return. A series without returns voids it in either case.")
                    .usually(Keeping.Deleting.VOID.word()),
            Property.fieldName("dated-by", "datedBy", "The field of type date that holds the business date.")
                    .otherwise("today, which also applies where the field is empty"),
            Property.whole("line-step", "lineStep", "The difference between the numbers of two lines, such as 10.")
                    .usually(1L),
            Property.flag(
                            "retired",
                            "retired",
                            "Whether the kind is no longer in use and hidden from lists. Its records stay. Refused while it has a route; false brings it back.")
                    .otherwise("unchanged; false for a new kind"));

    /** One that does not say whether it is retired. */
    public KindDraft(
            String key,
            String title,
            List<KindFieldDraft> fields,
            List<KindFieldDraft> lines,
            List<String> knownBy,
            List<String> agree,
            String deleting,
            String datedBy,
            Long lineStep) {
        this(key, title, fields, lines, knownBy, agree, deleting, datedBy, lineStep, null);
    }

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
        public static final Group<KindFieldDraft> PROPERTIES = Group.of(
                "a field",
                MethodHandles.lookup(),
                KindFieldDraft.class,
                Property.fieldName("name", "name", "The name that routes and requests use for it.")
                        .required(),
                Property.title("name"),
                Property.word(
                                "type",
                                "type",
                                Stream.of(KindField.Type.values())
                                        .map(KindField.Type::word)
                                        .toList(),
                                "What it holds.")
                        .usually(KindField.Type.TEXT.word()),
                Property.key("codebook", "Of a choice: its codebook.").otherwise("none"),
                Property.fieldName("within", "within", "Of a choice: the earlier field whose choice narrows this one.")
                        .otherwise("no earlier field"),
                Property.flag("required", "required", "Whether every record must have it.")
                        .otherwise("false"),
                Property.flag(
                                "sticky",
                                "sticky",
                                "Whether the value is kept for the next record in the form; not for fields of lines.")
                        .otherwise("false"),
                Property.fieldName(
                                "name-of",
                                "nameOf",
                                "Of a text: the earlier choice whose full name is filled in when the number is allocated.")
                        .otherwise("entered by people"),
                Property.fieldName(
                                "code-of",
                                "codeOf",
                                "Of a text: the earlier choice whose code is filled in when the number is allocated.")
                        .otherwise("entered by people"));

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
                Long.valueOf(1).equals(draft.lineStep) ? null : draft.lineStep,
                Boolean.TRUE.equals(draft.retired) ? true : null);
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
                (long) keeping.lineStep(),
                kind.retired() ? true : null));
    }
}
