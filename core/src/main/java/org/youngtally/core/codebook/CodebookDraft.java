package org.youngtally.core.codebook;

import java.util.List;

/** A codebook as somebody wrote it, not yet checked; what is absent is null. */
public record CodebookDraft(String key, String title, List<ChoiceDraft> choices) {

    /** A choice as somebody wrote it. */
    public record ChoiceDraft(String name, String code, Boolean retired, List<ChoiceDraft> choices) {
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
