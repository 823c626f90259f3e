package org.youngtally.core.codebook;

import java.lang.invoke.MethodHandles;
import java.util.List;
import org.youngtally.core.property.Group;
import org.youngtally.core.property.Property;
import org.youngtally.core.property.Shape;

/** A codebook as somebody wrote it, not yet checked; what is absent is null. */
public record CodebookDraft(String key, String title, List<ChoiceDraft> choices) {
    public static final Group<CodebookDraft> PROPERTIES = Group.of(
            "a codebook",
            MethodHandles.lookup(),
            CodebookDraft.class,
            Property.key("key", "The name that series use for it.").required(),
            Property.title("key"),
            Property.of(
                            "choices",
                            "choices",
                            new Shape.Many<>(() -> ChoiceDraft.PROPERTIES, 1, "a list of choices"),
                            "What can be chosen.")
                    .required());

    /** A choice as somebody wrote it. */
    public record ChoiceDraft(String name, String code, Boolean retired, List<ChoiceDraft> choices) {
        public static final Group<ChoiceDraft> PROPERTIES = Group.of(
                "a choice",
                MethodHandles.lookup(),
                ChoiceDraft.class,
                Property.text("name", "name", "The full name.").required(),
                Property.text(
                                "code",
                                "code",
                                "Its text in an identifier; never changed, and never used for anything else.")
                        .required(),
                Property.flag("retired", "retired", "Whether it can no longer be chosen.")
                        .otherwise("false"),
                Property.of(
                                "choices",
                                "choices",
                                new Shape.Many<>(() -> ChoiceDraft.PROPERTIES, 1, "a list of choices"),
                                "What can be chosen next where this is chosen; up to eight levels.")
                        .otherwise("none"));

        static ChoiceDraft of(Choice choice) {
            return new ChoiceDraft(
                    choice.name(),
                    choice.code(),
                    choice.retired() ? true : null,
                    choice.choices().isEmpty()
                            ? null
                            : choice.choices().stream().map(ChoiceDraft::of).toList());
        }
    }

    /** The definition that this codebook would be written as. */
    public static CodebookDraft of(Codebook book) {
        return new CodebookDraft(
                book.key(),
                book.title(),
                book.choices().stream().map(ChoiceDraft::of).toList());
    }
}
