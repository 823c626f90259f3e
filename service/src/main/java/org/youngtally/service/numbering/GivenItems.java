package org.youngtally.service.numbering;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.ItemBounds;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.UnreadableDocument;

/** The items of a file that somebody else read, and writes: it is too large to be sent. */
public final class GivenItems implements NumberedFile {
    private static final int MOST = 500_000;
    private static final int LONGEST = 200;

    private final Sheet sheet;
    private final List<Item> items;

    private GivenItems(Sheet sheet, List<Item> items) {
        this.sheet = sheet;
        this.items = List.copyOf(items);
    }

    /** @throws UnreadableDocument for items that cannot be told apart, and for more than can be looked at */
    public static GivenItems of(Sheet sheet, List<Item> items) throws UnreadableDocument {
        if (items.size() > MOST)
            throw new UnreadableDocument(
                    "‘" + sheet.name() + "’ has more than %,d items".formatted(MOST), "fewer items");
        Set<String> ids = new HashSet<>();
        var bounds = new ItemBounds();
        for (Item item : items) {
            if (!item.id().startsWith(item.sheet() + ":") || item.id().length() > LONGEST || !ids.add(item.id()))
                throw new UnreadableDocument(
                        "‘" + sheet.name() + "’ has an item that cannot be told from others",
                        "the number of the sheet, a colon and what the file calls it, each once");
            bounds.add(item.attributes().size());
        }
        return new GivenItems(sheet, items);
    }

    @Override
    public Sheet sheet() {
        return sheet;
    }

    @Override
    public List<Item> items() {
        return items;
    }

    @Override
    public byte[] with(Map<String, String> changed) {
        throw new IllegalStateException("a file that somebody else reads is not here");
    }
}
