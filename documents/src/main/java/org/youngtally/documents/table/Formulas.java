package org.youngtally.documents.table;

import java.util.regex.Pattern;

/**
 * Texts that a spreadsheet program would take for a formula. In files that are made here they have an apostrophe in
 * front, by which such programs know a text; it is taken off where one of these files is read again.
 */
public final class Formulas {
    private static final char MARK = '\'';
    private static final Pattern NUMBER = Pattern.compile("-[0-9]*([.,][0-9]+)?");

    private Formulas() {}

    /** The text, so that no program takes it for a formula. */
    public static String harmless(String text) {
        return isFormula(text) ? MARK + text : text;
    }

    /** The text without the mark that {@link #harmless} gave it. */
    public static String unmarked(String text) {
        return !text.isEmpty() && text.charAt(0) == MARK && isFormula(text.substring(1)) ? text.substring(1) : text;
    }

    private static boolean isFormula(String text) {
        if (text.isEmpty()) return false;
        return "=+@\t\r".indexOf(text.charAt(0)) >= 0
                || text.charAt(0) == '-' && !NUMBER.matcher(text).matches();
    }
}
