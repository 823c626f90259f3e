package org.youngtally.core.fault;

import java.util.Optional;

/** The names by which definitions are called, and their titles. */
public final class DefinitionName {
    /** As a regular expression. */
    public static final String SHAPE = "[a-z0-9]([a-z0-9.-]{0,62}[a-z0-9])?";

    private static final String ACCEPTED =
            "use 1 to 64 small letters, digits, hyphens and dots, a letter or digit at both ends, e.g. invoice-works";
    public static final int LONGEST_TITLE = 200;

    private DefinitionName() {}

    /** What is wrong with a name, if anything is. */
    public static Optional<Fault> fault(String path, String name) {
        if (name == null || name.isEmpty()) return Optional.of(new Fault(path, "is missing", ACCEPTED));
        return name.matches(SHAPE)
                ? Optional.empty()
                : Optional.of(new Fault(path, "‘" + name + "’ is not a name", ACCEPTED));
    }

    /** What is wrong with a title, if anything is. */
    public static Optional<Fault> titleFault(String path, String title) {
        return lineFault(path, title, LONGEST_TITLE);
    }

    /** What is wrong with a text for people on one line, if anything is. */
    public static Optional<Fault> lineFault(String path, String text, int longest) {
        if (text.length() > longest)
            return Optional.of(new Fault(path, "is " + text.length() + " symbols long", "enter at most " + longest));
        return text.chars().anyMatch(Character::isISOControl)
                ? Optional.of(new Fault(path, "holds a control symbol", "write it on one line"))
                : Optional.empty();
    }
}
