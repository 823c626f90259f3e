package org.youngtally.ledger.journal;

/** A journal that ends before entries which are known to have been written. */
public final class JournalEndsEarly extends JournalBroken {
    private static final long serialVersionUID = 1L;

    private final long reached;
    private final long known;

    /**
     * @param reached the last entry that it holds; 0 for none
     * @param known an entry that was written
     */
    JournalEndsEarly(long reached, long known) {
        super(
                reached == 0
                        ? "the journal is gone, while entries up to " + known + " were written"
                        : "the journal ends at entry " + reached + ", while entries up to " + known + " were written");
        this.reached = reached;
        this.known = known;
    }

    public long reached() {
        return reached;
    }

    public long known() {
        return known;
    }
}
