package org.youngtally.service.api;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;

/** A codebook as it is written to be defined. */
record CodebookForm(
        @Nullable String key,
        @Nullable String title,
        @Nullable List<ChoiceForm> choices) {

    /**
     * @param name the full name
     * @param code its text in an identifier
     * @param retired whether it can no longer be chosen
     * @param choices what can be chosen next where this is chosen
     */
    record ChoiceForm(
            @Nullable String name,
            @Nullable String code,
            @Nullable Boolean retired,
            @Nullable List<ChoiceForm> choices) {
        static ChoiceForm of(ChoiceDraft draft) {
            return new ChoiceForm(
                    draft.name(),
                    draft.code(),
                    draft.retired(),
                    draft.choices() == null
                            ? null
                            : draft.choices().stream().map(ChoiceForm::of).toList());
        }

        ChoiceDraft draft() {
            return new ChoiceDraft(
                    name,
                    code,
                    retired,
                    choices == null
                            ? null
                            : choices.stream().map(ChoiceForm::draft).toList());
        }
    }

    static CodebookForm of(Codebook book) {
        CodebookDraft draft = CodebookDraft.of(book);
        return new CodebookForm(
                draft.key(),
                draft.title(),
                draft.choices().stream().map(ChoiceForm::of).toList());
    }

    CodebookDraft draft() {
        return new CodebookDraft(
                key,
                title,
                choices == null ? null : choices.stream().map(ChoiceForm::draft).toList());
    }
}
