package org.youngtally.documents.mark;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.NumberedFile.Texts;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.part.PartFile;

/**
 * A property of the one part that a part file is about: of an assembly, that which is in no other.
 *
 * @param file the name of the file
 * @param into the property; absent for the usual one of the format
 */
record PartMark(String file, Optional<String> into) implements FileMark {

    private PartFile read(byte[] bytes) throws UnreadableDocument {
        return PartFile.read(bytes, file, 1, into).orElseThrow();
    }

    private Item whole(PartFile read) throws UnreadableDocument {
        List<Item> whole = read.whole();
        if (whole.size() != 1)
            throw new UnreadableDocument(
                    "‘" + file + "’ has " + whole.size() + " parts that are in no other",
                    "a file with one; youngtally number numbers several");
        return whole.getFirst();
    }

    @Override
    public String place() {
        return "its " + into.orElse(PartFile.usual(file));
    }

    @Override
    public boolean isShared() {
        return true;
    }

    @Override
    public Optional<String> borne(byte[] bytes) throws UnreadableDocument {
        return Optional.of(whole(read(bytes)).text().strip()).filter(text -> !text.isEmpty());
    }

    @Override
    public Map<String, String> properties(byte[] bytes) throws UnreadableDocument {
        return whole(read(bytes)).named();
    }

    @Override
    public byte[] marked(byte[] bytes, String identifier) throws UnreadableDocument {
        return marked(bytes, identifier, Optional.empty());
    }

    @Override
    public byte[] marked(byte[] bytes, String identifier, Optional<String> name) throws UnreadableDocument {
        PartFile read = read(bytes);
        Item item = whole(read);
        Map<String, Map<String, String>> also = new HashMap<>();
        name.filter(each -> !each.equals(item.attributes().get(PartFile.NAME)))
                .filter(each -> !read.property().equals(PartFile.NAME))
                .ifPresent(each -> also.put(item.id(), Map.of(PartFile.NAME, each)));
        return read.with(new Texts(Map.of(item.id(), identifier), also));
    }
}
