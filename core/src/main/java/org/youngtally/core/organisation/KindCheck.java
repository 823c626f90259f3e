package org.youngtally.core.organisation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.fault.DefinitionName;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.text.NearestName;

/** Turns what somebody wrote into a kind of record, collecting every fault. */
public final class KindCheck {
    private static final int MOST_FIELDS = 200;
    private static final int MOST_STEP = 1_000;

    private final Map<String, Codebook> books;
    private final List<Fault> faults = new ArrayList<>();

    private KindCheck(Map<String, Codebook> books) {
        this.books = books;
    }

    /** @param kind the kind in version 1, if there are no faults */
    public record Result(Optional<Kind> kind, List<Fault> faults) {}

    /** @param books every codebook there is, by key */
    public static Result of(KindDraft draft, Map<String, Codebook> books) {
        return new KindCheck(books).check(draft);
    }

    private Result check(KindDraft draft) {
        DefinitionName.fault("key", draft.key()).ifPresent(faults::add);
        faults.addAll(KindDraft.PROPERTIES.faults("", draft));
        if (draft.fields() == null || draft.fields().isEmpty())
            faults.add(new Fault(
                    "fields", "are missing", "add at least the field for the identifier, such as { name: number }"));
        List<KindField> fields = fields("fields", draft.fields());
        List<KindField> lines = fields("lines", draft.lines());
        Keeping keeping = keeping(draft, fields);
        if (!faults.isEmpty()) return new Result(Optional.empty(), List.copyOf(faults));
        return new Result(
                Optional.of(new Kind(
                        draft.key(),
                        draft.title() == null || draft.title().isBlank()
                                ? draft.key()
                                : draft.title().strip(),
                        fields,
                        lines,
                        Optional.of(keeping).filter(kept -> !kept.equals(Keeping.USUAL)),
                        1,
                        Boolean.TRUE.equals(draft.retired()))),
                List.of());
    }

    private Keeping keeping(KindDraft draft, List<KindField> fields) {
        Optional<Keeping.Deleting> deleting =
                Keeping.Deleting.of(draft.deleting() == null ? Keeping.Deleting.VOID.word() : draft.deleting());
        int step = draft.lineStep() == null ? 1 : Math.clamp(draft.lineStep(), Integer.MIN_VALUE, Integer.MAX_VALUE);
        if (step < 1 || step > MOST_STEP) faults.add(new Fault("line-step", "is " + step, "enter 1 to " + MOST_STEP));
        if (draft.datedBy() != null
                && fields.stream()
                        .noneMatch(
                                field -> field.name().equals(draft.datedBy()) && field.type() == KindField.Type.DATE))
            faults.add(new Fault(
                    "dated-by",
                    "‘" + draft.datedBy() + "’ is no field of type date",
                    "name a field of type date, or remove it"));
        List<String> sticky = draft.fields() == null
                ? List.of()
                : draft.fields().stream()
                        .filter(field -> Boolean.TRUE.equals(field.sticky()))
                        .map(KindFieldDraft::name)
                        .toList();
        return new Keeping(
                sticky,
                names("known-by", draft.knownBy(), fields),
                names("agree", draft.agree(), fields),
                deleting.orElse(Keeping.Deleting.VOID),
                Optional.ofNullable(draft.datedBy()),
                step);
    }

    /** A list that names fields of the kind, which people fill. */
    private List<String> names(String list, List<String> names, List<KindField> fields) {
        if (names == null) return List.of();
        List<String> known = fields.stream()
                .filter(field -> field.copied().isEmpty())
                .map(KindField::name)
                .toList();
        for (int i = 0; i < names.size(); i++)
            if (!known.contains(names.get(i)) || names.indexOf(names.get(i)) < i)
                faults.add(new Fault(
                        list + "[" + i + "]",
                        names.indexOf(String.valueOf(names.get(i))) < i
                                ? "‘" + names.get(i) + "’ occurs twice"
                                : "‘" + names.get(i) + "’ is no field of the kind that people fill",
                        NearestName.to(String.valueOf(names.get(i)), known)
                                .map(near -> "did you mean " + near + "?")
                                .orElse("one of " + String.join(", ", known))));
        return names;
    }

    private List<KindField> fields(String list, List<KindFieldDraft> drafts) {
        var fields = new ArrayList<KindField>();
        if (drafts == null) return fields;
        if (drafts.size() > MOST_FIELDS)
            faults.add(new Fault(list, "are " + drafts.size(), "define at most " + MOST_FIELDS));
        for (int i = 0; i < drafts.size(); i++) field(list + "[" + i + "].", drafts.get(i), fields);
        return fields;
    }

    private void field(String path, KindFieldDraft draft, List<KindField> fields) {
        String name = draft.name() == null ? "" : draft.name();
        if (!name.matches(Particulars.FIELD_NAME) || name.equals(Particulars.UNIT))
            faults.add(new Fault(
                    path + "name",
                    name.isEmpty()
                            ? "is missing"
                            : name.equals(Particulars.UNIT)
                                    ? "‘unit’ is what every record has by itself"
                                    : "‘" + name + "’ is not the name of a field",
                    "use small letters, digits and hyphens, a letter first, e.g. due-date"));
        if (fields.stream().anyMatch(other -> other.name().equals(name)))
            faults.add(new Fault(path + "name", "‘" + name + "’ occurs twice", "use a different name for each field"));
        faults.addAll(KindFieldDraft.PROPERTIES.faults(path, draft));
        Optional<KindField.Type> type =
                KindField.Type.of(draft.type() == null ? KindField.Type.TEXT.word() : draft.type());
        boolean choice = type.filter(KindField.Type.CHOICE::equals).isPresent();
        if (choice && (draft.codebook() == null) == (draft.within() == null))
            faults.add(new Fault(
                    path + "codebook",
                    draft.codebook() == null ? "is missing" : "cannot be combined with within",
                    "name the codebook with its choices, or an earlier field with within:"));
        if (!choice && type.isPresent() && (draft.codebook() != null || draft.within() != null))
            faults.add(new Fault(
                    path + (draft.codebook() != null ? "codebook" : "within"),
                    "requires type: choice, and this is " + type.get().word(),
                    "write type: choice, or remove it"));
        if (draft.codebook() != null && !books.containsKey(draft.codebook()))
            faults.add(new Fault(
                    path + "codebook",
                    "codebook ‘" + draft.codebook() + "’ not found",
                    NearestName.to(draft.codebook(), books.keySet())
                            .map(near -> "did you mean " + near + "?")
                            .orElse("define it under codebooks:")));
        if (draft.within() != null
                && fields.stream()
                        .noneMatch(
                                above -> above.name().equals(draft.within()) && above.type() == KindField.Type.CHOICE))
            faults.add(new Fault(
                    path + "within",
                    "‘" + draft.within() + "’ is not an earlier field of type choice",
                    "name a field of type choice that comes before this one"));
        if (path.startsWith("lines")
                && (Boolean.TRUE.equals(draft.sticky()) || draft.nameOf() != null || draft.codeOf() != null))
            faults.add(new Fault(
                    path
                            + (Boolean.TRUE.equals(draft.sticky())
                                    ? "sticky"
                                    : draft.nameOf() != null ? "name-of" : "code-of"),
                    "is not allowed for a field of a line",
                    "remove it"));
        copies(path, "name-of", draft.nameOf(), type, fields);
        copies(path, "code-of", draft.codeOf(), type, fields);
        if (draft.nameOf() != null && draft.codeOf() != null)
            faults.add(new Fault(
                    path + "code-of",
                    "cannot be combined with name-of",
                    "use one field for the name and another for the code"));
        if ((draft.nameOf() != null || draft.codeOf() != null) && Boolean.TRUE.equals(draft.required()))
            faults.add(new Fault(
                    path + "required",
                    "is not allowed for a field that is filled from a choice",
                    "remove it: the choice may be empty"));
        type.ifPresent(known -> fields.add(new KindField(
                name,
                draft.title() == null || draft.title().isBlank()
                        ? name
                        : draft.title().strip(),
                known,
                Optional.ofNullable(draft.codebook()),
                Optional.ofNullable(draft.within()),
                Boolean.TRUE.equals(draft.required()),
                Optional.ofNullable(draft.nameOf()),
                Optional.ofNullable(draft.codeOf()))));
    }

    /** What a choice's name or code goes into. */
    private void copies(
            String path, String property, String choice, Optional<KindField.Type> type, List<KindField> fields) {
        if (choice == null) return;
        if (type.filter(KindField.Type.TEXT::equals).isEmpty())
            faults.add(new Fault(path + property, "requires a text", "remove type:"));
        if (fields.stream().noneMatch(above -> above.name().equals(choice) && above.type() == KindField.Type.CHOICE))
            faults.add(new Fault(
                    path + property,
                    "‘" + choice + "’ is not an earlier field of type choice",
                    "name a field of type choice that comes before this one"));
    }
}
