package org.youngtally.core.pattern;

/** A pattern that does not parse: where, what was wrong there, and what would do. */
public final class PatternException extends IllegalArgumentException {
    private static final long serialVersionUID = 1L;
    private final int column;
    private final String problem;
    private final String accepted;

    public PatternException(int column, String problem, String accepted) {
        super("column " + column + ": " + problem + "; " + accepted);
        this.column = column;
        this.problem = problem;
        this.accepted = accepted;
    }

    /** The column of the first symbol at fault, counted from 1 in UTF-16 units. */
    public int column() {
        return column;
    }

    public String problem() {
        return problem;
    }

    public String accepted() {
        return accepted;
    }
}
