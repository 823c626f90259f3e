package org.youngtally.documents.mark;

import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.part.PartFile;

/** Writes an identifier into a file where its open format has a place for one. */
public interface FileMark {

    /**
     * The identifier that a file bears already.
     *
     * @throws UnreadableDocument where the file is not of the format
     */
    Optional<String> borne(byte[] bytes) throws UnreadableDocument;

    /** The file bearing an identifier. */
    byte[] marked(byte[] bytes, String identifier) throws UnreadableDocument;

    /** The file bearing an identifier, and a name where its format has a place for one. */
    default byte[] marked(byte[] bytes, String identifier, Optional<String> name) throws UnreadableDocument {
        return marked(bytes, identifier);
    }

    /** Where a format has a place for it, in words. */
    String place();

    /** What the file says of itself, by the names of its properties. */
    default Map<String, String> properties(byte[] bytes) throws UnreadableDocument {
        return Map.of();
    }

    /** Whether the place may hold something else than a number, which one then replaces. */
    default boolean isShared() {
        return false;
    }

    /**
     * @param name of the file, by whose ending its format is known
     * @param into the column of a table or the property of a part that holds the identifier; absent for the usual one
     * @param usualColumn of a table
     * @return absent for a format without such a place
     * @throws UnreadableDocument where the format has one place for it, and another was said
     */
    static Optional<FileMark> of(String name, Optional<String> into, String usualColumn) throws UnreadableDocument {
        int dot = name.lastIndexOf('.');
        Optional<FileMark> mark =
                switch (dot < 1 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT)) {
                    case "svg" -> Optional.of(new SvgMark());
                    case "pdf" -> Optional.of(new PdfMark());
                    case "csv" -> Optional.of(new CsvMark(into.orElse(usualColumn)));
                    default -> PartFile.isPartFile(name) ? Optional.of(new PartMark(name, into)) : Optional.empty();
                };
        boolean choice = mark.filter(each -> each instanceof CsvMark || each instanceof PartMark)
                .isPresent();
        if (into.isPresent() && !choice)
            throw new UnreadableDocument(
                    "‘" + name + "’ has no property ‘" + into.get() + "’ for its number",
                    mark.map(each -> "no --into: the number goes to " + each.place())
                            .orElse("no --into: only the name of the file gets the number"));
        return mark;
    }
}
