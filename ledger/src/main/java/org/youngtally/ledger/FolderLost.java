package org.youngtally.ledger;

/**
 * The data folder is not what was opened any more, so that another process may be writing to it: nothing may be
 * written.
 */
final class FolderLost extends Exception {
    private static final long serialVersionUID = 1L;

    private final boolean afterAppend;

    /**
     * @param what is wrong, in words
     * @param afterAppend whether the journal was written to already
     */
    FolderLost(String what, boolean afterAppend) {
        super(
                what
                        + ", so that another process may be using the data folder. Writing has stopped. Stop every process that uses the folder, check what was changed there, and start the service again");
        this.afterAppend = afterAppend;
    }

    boolean afterAppend() {
        return afterAppend;
    }
}
