package org.youngtally.documents.mark;

import java.util.Locale;
import java.util.Optional;
import org.youngtally.documents.UnreadableDocument;

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

    /** Where a format has a place for it, in words. */
    String place();

    /**
     * @param ending of the file's name
     * @param column of a table that holds the identifier
     * @return absent for a format without such a place
     */
    static Optional<FileMark> of(String ending, String column) {
        return switch (ending.toLowerCase(Locale.ROOT)) {
            case "svg" -> Optional.of(new SvgMark());
            case "pdf" -> Optional.of(new PdfMark());
            case "csv" -> Optional.of(new CsvMark(column));
            default -> Optional.empty();
        };
    }
}
