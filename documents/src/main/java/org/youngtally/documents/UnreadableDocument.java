package org.youngtally.documents;

/** A file is not what it should be, or cannot be written as is wanted. */
public final class UnreadableDocument extends Exception {
    private static final long serialVersionUID = 1L;
    private final String accepted;

    /**
     * @param problem what is wrong, a sentence without its full stop
     * @param accepted what would do
     */
    public UnreadableDocument(String problem, String accepted) {
        this(problem, accepted, null);
    }

    public UnreadableDocument(String problem, String accepted, Throwable cause) {
        super(problem, cause);
        this.accepted = accepted;
    }

    public String accepted() {
        return accepted;
    }
}
