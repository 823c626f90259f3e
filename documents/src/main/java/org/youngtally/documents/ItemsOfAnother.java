package org.youngtally.documents;

import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;

/** The items of another file, seen otherwise. */
abstract class ItemsOfAnother implements NumberedFile {
    private final NumberedFile file;
    private final List<Item> items = new ArrayList<>();

    ItemsOfAnother(NumberedFile file) {
        this.file = file;
    }

    /** One of its items, with what is seen otherwise. */
    void see(Item item, String id, String text) {
        see(item, id, text, item.attributes());
    }

    /** The same with other attributes. */
    void see(Item item, String id, String text, Map<String, String> attributes) {
        items.add(new Item(id, item.sheet(), text, item.number(), attributes, item.place()));
    }

    /** The changes as the file itself is to have them. */
    abstract Map<String, String> own(Map<String, String> changed);

    /** What the file itself calls an item. */
    String own(String id) {
        return id;
    }

    @Override
    public final Sheet sheet() {
        return file.sheet();
    }

    @Override
    public final List<Item> items() {
        return List.copyOf(items);
    }

    @Override
    public final byte[] with(Map<String, String> changed) throws UnreadableDocument {
        return file.with(own(changed));
    }

    @Override
    public final void write(Texts texts, OutputStream to) throws IOException, UnreadableDocument {
        var also = new HashMap<String, Map<String, String>>();
        texts.also().forEach((id, properties) -> also.put(own(id), properties));
        file.write(new Texts(own(texts.changed()), also), to);
    }

    @Override
    public final List<Line> lines(Map<String, String> changed) throws IOException, UnreadableDocument {
        return file.lines(own(changed));
    }

    @Override
    public final int rows() {
        return file.rows();
    }

    @Override
    public final int filled() {
        return file.filled();
    }

    @Override
    public final Optional<byte[]> picture(Map<String, String> changed) throws UnreadableDocument {
        return file.picture(own(changed));
    }

    @Override
    public Map<String, Integer> elements() {
        return file.elements();
    }
}
