package org.youngtally.service.api;

import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.Item.Place;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Table;
import org.youngtally.service.api.DocumentViews.DocumentFile;
import org.youngtally.service.api.DocumentViews.DocumentItemView;
import org.youngtally.service.api.DocumentViews.DocumentMark;
import org.youngtally.service.api.DocumentViews.DocumentReading;
import org.youngtally.service.api.DocumentViews.DocumentRequest;
import org.youngtally.service.numbering.DocumentSheets;
import org.youngtally.service.numbering.DocumentSheets.NamedFile;
import org.youngtally.service.numbering.GivenItems;
import org.youngtally.service.numbering.RuleFile;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** The files of a request, the table and the values beside them. */
final class DocumentSource {
    private static final int MOST_FILES = 200;
    private static final int MOST_BYTES = 12_000_000;

    private final DocumentRequest request;
    private final RuleFile rule;
    private final Map<String, String> values;
    private final Reading reading;
    private final Map<String, Place> places = new TreeMap<>();
    private long size;

    private DocumentSource(DocumentRequest request, RuleFile rule) throws UnreadableDocument {
        this.request = request;
        this.rule = rule;
        Map<String, String> said = request.values() == null ? Map.of() : request.values();
        this.values = rule.values(said);
        this.reading = rule.reading(said, rows());
        if (request.places() != null)
            request.places().forEach((item, place) -> places.put(item, new Place(place.x(), place.y())));
    }

    static DocumentSource of(DocumentRequest request, RuleFile rule) throws UnreadableDocument {
        return new DocumentSource(request, rule);
    }

    /** What every item has. */
    Map<String, String> values() {
        return values;
    }

    private Optional<List<Map<String, String>>> rows() throws UnreadableDocument {
        if (request.table() == null) return Optional.empty();
        NamedFile file = file(request.table());
        Table table = Table.read(Table.Format.of(file.name()), file.bytes());
        var rows = new ArrayList<Map<String, String>>();
        for (Table.Row row : table.rows()) {
            var cells = new HashMap<String, String>();
            for (int i = 0; i < table.columns().size(); i++)
                if (!table.columns().get(i).isEmpty())
                    cells.putIfAbsent(table.columns().get(i), row.cell(i));
            rows.add(cells);
        }
        return Optional.of(rows);
    }

    private NamedFile file(DocumentFile file) {
        if (file.name() == null || file.content() == null || file.name().isBlank())
            throw new Problem(Type.MALFORMED, "A file has no name or no content.")
                    .field("files", "a name and the bytes in Base64 for each");
        try {
            byte[] bytes = Base64.getDecoder().decode(file.content());
            size += bytes.length;
            if (size > MOST_BYTES)
                throw new Problem(Type.DOCUMENT_FAULTY, "The files are larger than " + MOST_BYTES / 1_000_000 + " MB.")
                        .field(
                                "files",
                                "fewer or smaller files; the command youngtally number reads larger ones itself");
            return new NamedFile(file.name(), bytes);
        } catch (IllegalArgumentException e) {
            throw (Problem) new Problem(Type.MALFORMED, "The content of ‘" + file.name() + "’ is not Base64.")
                    .field("files", "the bytes of each file in Base64")
                    .initCause(e);
        }
    }

    DocumentSheets document() throws UnreadableDocument {
        if (request.files().size() > MOST_FILES)
            throw new Problem(Type.MALFORMED, request.files().size() + " files were sent.")
                    .field("files", "up to " + MOST_FILES + " files");
        if (request.files().stream().anyMatch(file -> file.items() != null)) return given();
        var files = new ArrayList<NamedFile>();
        for (DocumentFile file : request.files()) files.add(file(file));
        return DocumentSheets.of(files, reading, places);
    }

    private DocumentSheets given() throws UnreadableDocument {
        var files = new ArrayList<GivenItems>();
        var marks = new ArrayList<String>();
        for (DocumentFile file : request.files()) {
            if (file.name() == null || file.name().isBlank() || file.items() == null || file.digest() == null)
                throw new Problem(Type.MALFORMED, "A file has no name, no items or no digest.")
                        .field("files", "a name, items and a digest for each, or a name and the content for each");
            var items = new ArrayList<Item>();
            for (DocumentItemView item : file.items()) items.add(item(item, files.size() + 1));
            files.add(GivenItems.of(new Sheet(file.name(), 0, 0), items));
            marks.add(file.digest() + "\n" + RequestText.list(items, DocumentSource::written));
        }
        return DocumentSheets.of(files, marks);
    }

    private static Item item(DocumentItemView item, int sheet) {
        if (item.item() == null || item.text() == null || item.attributes() == null || item.sheet() != sheet)
            throw new Problem(Type.MALFORMED, "An item has no name, no text, no attributes or another sheet.")
                    .field("files", "items as a plan lists them");
        return new Item(
                item.item(),
                sheet,
                item.text(),
                Optional.empty(),
                item.attributes(),
                Optional.ofNullable(item.place()).map(place -> new Place(place.x(), place.y())));
    }

    /** By which a plan is known: the rule, and all that it was given. */
    String digest(DocumentSheets document) {
        return document.digest(request.rule() + "\n" + hash(places) + "\n" + written(reading));
    }

    private static int hash(Map<String, Place> places) {
        return places.entrySet().stream()
                .mapToInt(place -> place.getKey().hashCode()
                        ^ (31 * Double.hashCode(place.getValue().x())
                                + Double.hashCode(place.getValue().y())))
                .sum();
    }

    private static String written(Item item) {
        return RequestText.object(
                "Item",
                "id",
                item.id(),
                "sheet",
                String.valueOf(item.sheet()),
                "text",
                item.text(),
                "number",
                RequestText.optional(item.number()),
                "attributes",
                RequestText.map(item.attributes()),
                "place",
                RequestText.optional(item.place()
                        .map(place -> RequestText.object(
                                "Place", "x", String.valueOf(place.x()), "y", String.valueOf(place.y())))));
    }

    private static String written(Reading reading) {
        return RequestText.object(
                "Reading",
                "into",
                RequestText.optional(reading.into()),
                "path",
                RequestText.optional(reading.path()),
                "identity",
                RequestText.optional(reading.identity()),
                "between",
                RequestText.optional(reading.between()
                        .map(each -> RequestText.object("Between", "before", each.before(), "after", each.after()))),
                "marks",
                RequestText.list(
                        reading.marks(),
                        mark -> RequestText.object(
                                "Mark",
                                "text",
                                mark.text(),
                                "replacedBy",
                                RequestText.optional(mark.replacedBy()),
                                "begins",
                                RequestText.optional(mark.begins()))),
                "values",
                RequestText.map(reading.values()),
                "rows",
                RequestText.optional(reading.rows().map(rows -> RequestText.list(rows, RequestText::map))));
    }

    /** How a client reads the files. */
    DocumentReading reading() {
        return new DocumentReading(
                reading.into().orElse(null),
                reading.path().orElse(null),
                reading.identity().orElse(null),
                reading.between()
                        .map(each -> List.of(each.before(), each.after()))
                        .orElse(List.of()),
                reading.marks().stream()
                        .map(mark -> new DocumentMark(
                                mark.text(),
                                mark.replacedBy().orElse(null),
                                mark.begins().orElse(null)))
                        .toList(),
                reading.values(),
                reading.rows().orElse(null),
                List.copyOf(rule.also().keySet()));
    }
}
