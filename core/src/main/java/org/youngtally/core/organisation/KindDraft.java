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
        Long lineStep) {
    private static final Shape.Texts NAMES = new Shape.Texts("", true, false, "[class]");

    public static final Group<KindDraft> PROPERTIES = Group.of(
            "a kind",
            MethodHandles.lookup(),
            KindDraft.class,
            Property.key("key", "The name by which the kind is called.").required(),
            Property.title("key"),
            Property.of(
                            "fields",
                            "fields",
                            new Shape.Many<>(() -> KindFieldDraft.PROPERTIES, 1, "a list of fields"),
                            "The fields of a record, one that narrows another above it.")
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
                            "The fields by each of which a record is known again: no two records of the kind hold the same in one of them.")
                    .otherwise("none"),
            Property.of("agree", "agree", NAMES, "The fields that are the same in all units in which a record stands.")
                    .otherwise("none"),
            Property.word(
                            "deleting",
                            "deleting",
                            Stream.of(Keeping.Deleting.values())
                                    .map(Keeping.Deleting::word)
                                    .toList(),
                            "What becomes of the number of a record that is deleted: void (with a reason) or return. A series that never takes a number back voids it in either case.")
                    .usually(Keeping.Deleting.VOID.word()),
            Property.fieldName("dated-by", "datedBy", "The field of type date that holds the business date.")
                    .otherwise("today, as where the record leaves the field empty"),
            Property.whole("line-step", "lineStep", "How far the number of one line is from the next, such as 10.")
                    .usually(1L));

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
                Property.fieldName("name", "name", "The name by which routes and requests call it.")
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
                Property.key("codebook", "Of a choice: the codebook whose choices it takes.")
                        .otherwise("none"),
                Property.fieldName("within", "within", "Of a choice: the field above whose choice narrows this one.")
                        .otherwise("not narrowed"),
                Property.flag("required", "required", "Whether every record must have it.")
                        .otherwise("false"),
                Property.flag(
                                "sticky",
                                "sticky",
                                "Whether the next record that somebody writes begins with the same; of the record's own fields.")
                        .otherwise("false"),
                Property.fieldName(
                                "name-of",
                                "nameOf",
                                "Of a text: the choice above whose full name goes into it when the number is given.")
                        .otherwise("somebody fills it"),
                Property.fieldName(
                                "code-of",
                                "codeOf",
                                "Of a text: the choice above whose code goes into it when the number is given.")
                        .otherwise("somebody fills it"));

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
                Long.valueOf(1).equals(draft.lineStep) ? null : draft.lineStep);
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
                (long) keeping.lineStep()));
    }
}
