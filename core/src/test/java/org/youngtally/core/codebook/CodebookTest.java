package org.youngtally.core.codebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.fault.Fault;

class CodebookTest {
    private static ChoiceDraft choice(String name, String code, ChoiceDraft... beneath) {
        return new ChoiceDraft(name, code, null, beneath.length == 0 ? null : List.of(beneath));
    }

    private static CodebookDraft draft(ChoiceDraft... choices) {
        return new CodebookDraft("part", "Parts", List.of(choices));
    }

    private static Codebook book(ChoiceDraft... choices) {
        CodebookCheck.Result checked = CodebookCheck.of(draft(choices));
        assertThat(checked.faults()).isEmpty();
        return checked.book().orElseThrow();
    }

    private static void refused(CodebookDraft draft, String path, String problem) {
        assertThat(CodebookCheck.of(draft).faults()).extracting(Fault::path).contains(path);
        assertThat(CodebookCheck.of(draft).faults().toString()).contains(problem);
    }

    @Test
    void namesAndCodesAreUniqueSideBySideAndFreeBeneathAnother() {
        assertThat(book(choice("Wind-chest", "WC", choice("Pallet", "P")), choice("Action", "AC", choice("Pull", "P")))
                        .choices())
                .hasSize(2);
        refused(
                draft(choice("Wind-chest", "WC"), choice("Water closet", "wc")),
                "choices[1].code",
                "belongs to another choice");
        refused(
                draft(choice("Wind-chest", "WC"), choice("wind-CHEST", "X")),
                "choices[1].name",
                "belongs to another choice");
        refused(draft(choice("Case", "AC"), choice("ac", "X")), "choices[1].name", "at choices[0].code");
        refused(draft(choice("A", "A", choice("X", "1"), choice("Y", "1"))), "choices[0].choices[1].code", "‘1’");
    }

    @Test
    void whatACodeCannotBeIsTold() {
        refused(draft(), "choices", "are missing");
        refused(draft(choice("", "A")), "choices[0].name", "is missing");
        refused(draft(choice("A", "")), "choices[0].code", "is missing");
        refused(draft(choice("A", "a b")), "choices[0].code", "‘a b’ is not a code");
        refused(draft(choice("A", "ß")), "choices[0].code", "is not a code");
        refused(draft(choice("A", "A".repeat(21))), "choices[0].code", "is not a code");
        refused(new CodebookDraft("Part", null, List.of(choice("A", "A"))), "key", "‘Part’ is not a name");
    }

    @Test
    void choicesAreAddedAndRetired() {
        Codebook before = book(choice("Wind-chest", "WC"));
        assertThat(CodebookChange.of(before, before).book()).contains(before);
        Codebook more = book(new ChoiceDraft("Windchest", "WC", true, null), choice("Action", "AC"));
        CodebookChange.Result change = CodebookChange.of(before, more);
        assertThat(change.book().orElseThrow().version()).isEqualTo(2);
        assertThat(change.book().orElseThrow().choices().getFirst().retired()).isTrue();
        assertThat(CodebookCheck.of(CodebookDraft.of(more)).book()).contains(more);
    }

    @Test
    void aCodeStandsForOneThingForEver() {
        Codebook before = book(choice("Wind-chest", "WC", choice("Pallet", "P")));
        assertThat(CodebookChange.of(before, book(choice("Action", "AC")))
                        .faults()
                        .toString())
                .contains("the code ‘WC’ of Wind-chest is gone", "retired: true");
        assertThat(CodebookChange.of(before, book(choice("Bellows", "WC", choice("Pallet", "P"))))
                        .faults()
                        .toString())
                .contains("‘WC’ already belongs to Wind-chest");
        assertThat(CodebookChange.of(before, book(choice("Wind-chest", "wc", choice("Pallet", "P"))))
                        .faults()
                        .toString())
                .contains("was ‘WC’ before");
        assertThat(CodebookChange.of(before, book(choice("Wind-chest", "WC", choice("Roller", "P"))))
                        .faults())
                .extracting(Fault::path)
                .containsExactly("choices[0].choices[0].name");
    }
}
