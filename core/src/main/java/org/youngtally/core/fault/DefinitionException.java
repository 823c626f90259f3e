package org.youngtally.core.fault;

/** A value that a definition cannot hold: the property at fault, what was wrong with it, and what would do. */
public final class DefinitionException extends IllegalArgumentException {
    private static final long serialVersionUID = 1L;
    private final String property;
    private final String problem;
    private final String accepted;

    public DefinitionException(String property, String problem, String accepted) {
        super(property + ": " + problem + "; " + accepted);
        this.property = property;
        this.problem = problem;
        this.accepted = accepted;
    }

    public String property() {
        return property;
    }

    public String problem() {
        return problem;
    }

    public String accepted() {
        return accepted;
    }
}
