package org.youngtally.core.label;

/**
 * A layout as the ledger keeps it: as it was written, so that it stays whatever a later release would have of it.
 *
 * @param version from 1, one more with each change
 */
public record KeptLayout(LayoutDraft draft, int version) {
    public String key() {
        return draft.key();
    }

    public String title() {
        return draft.title() == null || draft.title().isBlank()
                ? draft.key()
                : draft.title().strip();
    }
}
