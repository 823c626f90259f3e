package org.youngtally.service.numbering;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.core.numbering.NumberPlan.Change;
import org.youngtally.documents.Content;
import org.youngtally.documents.DocumentFiles;
import org.youngtally.documents.DocumentFiles.NamedContent;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.NumberedFile.Line;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.documents.NumberedFile.Texts;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.part.PartFile;

/** Files that are the sheets of one document, in their order. */
public final class DocumentSheets {
    private final List<NamedFile> files;
    private final List<NumberedFile> sheets;
    private final List<Item> items = new ArrayList<>();

    /** A file with its name. */
    public record NamedFile(String name, byte[] bytes) {}

    /**
     * @param places of items that the files say nothing of, or that somebody knows better
     * @throws UnreadableDocument that names the file
     */
    public static DocumentSheets of(List<NamedFile> files, Reading reading, Map<String, Place> places)
            throws UnreadableDocument {
        try {
            return new DocumentSheets(
                    files,
                    DocumentFiles.read(
                            files.stream()
                                    .map(file -> new NamedContent(file.name(), Content.of(file.bytes())))
                                    .toList(),
                            reading),
                    places);
        } catch (IOException e) {
            throw new UncheckedIOException("memory does not fail", e);
        }
    }

    /**
     * Files that somebody else read, and writes.
     *
     * @param marks by which what is in them is told from what was in them before
     */
    public static DocumentSheets of(List<GivenItems> files, List<String> marks) {
        var named = new ArrayList<NamedFile>();
        for (int i = 0; i < files.size(); i++)
            named.add(new NamedFile(files.get(i).sheet().name(), marks.get(i).getBytes(StandardCharsets.UTF_8)));
        return new DocumentSheets(named, List.copyOf(files), Map.of());
    }

    private DocumentSheets(List<NamedFile> files, List<NumberedFile> sheets, Map<String, Place> places) {
        this.files = files;
        this.sheets = sheets;
        for (NumberedFile sheet : sheets)
            for (Item item : sheet.items())
                items.add(
                        places.containsKey(item.id())
                                ? new Item(
                                        item.id(),
                                        item.sheet(),
                                        item.text(),
                                        item.number(),
                                        item.attributes(),
                                        Optional.of(places.get(item.id())))
                                : item);
    }

    /** Whether the files are here, so that they can be written. */
    public boolean isHere() {
        return sheets.stream().noneMatch(GivenItems.class::isInstance);
    }

    /** Whether all are part files. */
    public boolean isOfParts() {
        return files.stream().allMatch(file -> PartFile.isPartFile(file.name()));
    }

    public List<Sheet> sheets() {
        return sheets.stream().map(NumberedFile::sheet).toList();
    }

    public List<Item> items() {
        return items;
    }

    /** The place of an item's element among the texts of its drawing, from 0; empty for a file that is no drawing. */
    public Map<String, Integer> elements() {
        var elements = new HashMap<String, Integer>();
        sheets.forEach(sheet -> elements.putAll(sheet.elements()));
        return elements;
    }

    /** The files with changes carried out; those without any are as they were. */
    public List<NamedFile> with(List<Change> changes, Map<String, Map<String, String>> also) throws UnreadableDocument {
        List<Map<String, String>> texts = texts(changes);
        var written = new ArrayList<NamedFile>();
        for (int i = 0; i < sheets.size(); i++) {
            NamedFile file = files.get(i);
            NumberedFile sheet = sheets.get(i);
            var properties = new HashMap<String, Map<String, String>>();
            for (String item : texts.get(i).keySet()) if (also.containsKey(item)) properties.put(item, also.get(item));
            written.add(
                    texts.get(i).isEmpty() && sheet.filled() == 0
                            ? file
                            : new NamedFile(file.name(), sheet.with(new Texts(texts.get(i), properties))));
        }
        return written;
    }

    /** In how many places of programs values go. */
    public long filled() {
        return sheets.stream().mapToLong(NumberedFile::filled).sum();
    }

    /**
     * A line of a program that is otherwise.
     *
     * @param sheet from 1
     */
    public record SheetLine(int sheet, Line line) {}

    /** The first lines of programs that are otherwise. */
    public List<SheetLine> lines(List<Change> changes, int most) throws UnreadableDocument {
        List<Map<String, String>> texts = texts(changes);
        var lines = new ArrayList<SheetLine>();
        try {
            for (int i = 0; i < sheets.size(); i++)
                for (Line line : sheets.get(i).lines(texts.get(i)))
                    if (lines.size() < most) lines.add(new SheetLine(i + 1, line));
        } catch (IOException e) {
            throw new UncheckedIOException("memory does not fail", e);
        }
        return lines;
    }

    /** Pictures of the drawings among them, with what changes marked. */
    public List<NamedFile> pictures(List<Change> changes) throws UnreadableDocument {
        List<Map<String, String>> texts = texts(changes);
        var pictures = new ArrayList<NamedFile>();
        for (int i = 0; i < sheets.size(); i++) {
            String name = files.get(i).name();
            sheets.get(i).picture(texts.get(i)).ifPresent(picture -> pictures.add(new NamedFile(name, picture)));
        }
        return pictures;
    }

    private List<Map<String, String>> texts(List<Change> changes) {
        Map<String, Integer> sheetOf = new HashMap<>();
        for (Item item : items) sheetOf.put(item.id(), item.sheet());
        var texts = new ArrayList<Map<String, String>>();
        sheets.forEach(sheet -> texts.add(new HashMap<>()));
        for (Change change : changes) texts.get(sheetOf.get(change.item()) - 1).put(change.item(), change.after());
        return texts;
    }

    /** SHA-256 of the names and contents of all files, and of something more, in hexadecimal digits. */
    public String digest(String more) {
        try {
            var digest = MessageDigest.getInstance("SHA-256");
            digest.update(more.getBytes(StandardCharsets.UTF_8));
            for (NamedFile file : files) {
                digest.update(
                        ("\n" + file.name() + "\n" + file.bytes().length + "\n").getBytes(StandardCharsets.UTF_8));
                digest.update(file.bytes());
            }
            return HexFormat.of().formatHex(digest.digest());
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }
}
