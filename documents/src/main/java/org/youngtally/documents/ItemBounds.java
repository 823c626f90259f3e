package org.youngtally.documents;

/** How much the items of a file may say, counted while it is read: a small file can say much of very many. */
public final class ItemBounds {
    private static final int MOST_OF_ONE = 1_000;
    private static final long MOST = 2_000_000;

    private long attributes;

    /** An item has so many attributes. */
    public void add(int more) throws UnreadableDocument {
        one(more);
        attributes += more;
        if (attributes > MOST)
            throw new UnreadableDocument(
                    "The items have more than %,d attributes".formatted(MOST),
                    "fewer items, or fewer attributes of each");
    }

    /** An item, or what is around it, has so many attributes. */
    public static void one(int attributes) throws UnreadableDocument {
        if (attributes > MOST_OF_ONE)
            throw new UnreadableDocument(
                    "An item has more than %,d attributes".formatted(MOST_OF_ONE),
                    "up to %,d, those around it among them".formatted(MOST_OF_ONE));
    }
}
