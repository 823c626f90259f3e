package org.youngtally.ledger.journal;

/** A journal whose chain holds, and that is not the one which was proved before: entries of it were rewritten. */
public final class JournalRewritten extends JournalBroken {
    private static final long serialVersionUID = 1L;

    JournalRewritten(long entry, Head proved) {
        super(
                "entry " + entry + " is another one than when it was proved before",
                "Compare the journal with a backup or a journal copy, and restore the right one; if this one is right, delete the file ‘checkpoints’ in the data folder",
                proved);
    }
}
