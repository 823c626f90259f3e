package org.youngtally.core.numbering;

import java.util.Optional;

/** Where the numbers of items come from that the document does not count itself. */
public interface Numbers {
    /** Of a document that counts itself. */
    Numbers NONE = item -> Optional.empty();

    /**
     * The number of an item, or of the first of several that are the same thing.
     *
     * @param item with what follows from its place; asked once, in the order of the count
     * @return absent where there is none
     */
    Optional<String> of(Item item);
}
