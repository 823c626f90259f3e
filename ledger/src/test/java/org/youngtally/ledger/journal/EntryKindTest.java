package org.youngtally.ledger.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class EntryKindTest {
    /** Tables of earlier builds hold these; another order, or another kind between two, must not change them. */
    @Test
    void codesAreThoseThatTablesHold() {
        assertThat(List.of(
                        "define",
                        "allocate",
                        "block",
                        "hold",
                        "type",
                        "confirm",
                        "release",
                        "lapse",
                        "return",
                        "void",
                        "use",
                        "split",
                        "close",
                        "reopen",
                        "remove",
                        "access",
                        "save",
                        "change",
                        "renumber",
                        "delete",
                        "share",
                        "fill",
                        "continue",
                        "plan",
                        "record",
                        "close-gaps",
                        "carry-out",
                        "abandon",
                        "print",
                        "send",
                        "note",
                        "reprint",
                        "spoil",
                        "cancel",
                        "state",
                        "resume"))
                .isEqualTo(Arrays.stream(Entry.Kind.values())
                        .sorted((one, other) -> one.code() - other.code())
                        .map(Entry.Kind::word)
                        .toList());
    }

    @Test
    void everyKindIsFoundByItsCode() {
        for (Entry.Kind kind : Entry.Kind.values())
            assertThat(Entry.Kind.of(kind.code())).isEqualTo(kind);
    }
}
