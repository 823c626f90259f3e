package org.youngtally.core.reading;

/** How a text differs from the identifier that was meant. */
public enum Deviation {
    BLANK("blank"),
    CASE("case"),
    DASH("dash"),
    LOOK_ALIKE("look-alike"),
    LOST_ZERO("lost-zero"),
    EXTRA_ZERO("extra-zero"),
    SEPARATOR("separator"),
    CHECK("check");

    private final String word;

    Deviation(String word) {
        this.word = word;
    }

    /** The word in answers. */
    public String word() {
        return word;
    }

    /** Whether the text is the same identifier all the same, only written in another way. */
    boolean isSpelling() {
        return this == BLANK || this == CASE;
    }
}
