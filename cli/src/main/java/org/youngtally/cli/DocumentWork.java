package org.youngtally.cli;

import com.google.gson.Gson;
import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Item;
import org.youngtally.documents.Content;
import org.youngtally.documents.DocumentFiles;
import org.youngtally.documents.DocumentFiles.NamedContent;
import org.youngtally.documents.NumberedFile;
import org.youngtally.documents.NumberedFile.Between;
import org.youngtally.documents.NumberedFile.Line;
import org.youngtally.documents.NumberedFile.Mark;
import org.youngtally.documents.NumberedFile.Reading;
import org.youngtally.documents.NumberedFile.Texts;
import org.youngtally.documents.UnreadableDocument;

/**
 * The files of a document on their way to numbers: small ones are sent to the service, which reads and writes them;
 * large ones are read and written here, and their items are sent.
 */
final class DocumentWork {
    private static final Gson JSON = new Gson();
    /** Above this the files of a document are not sent. */
    static final long MOST_SENT = 8_000_000;

    private final Service service;
    private final RuleOptions rule;
    private final List<Path> sheets;
    private final List<Content> contents = new ArrayList<>();
    private final boolean large;
    private final List<String> digests = new ArrayList<>();
    private List<NumberedFile> read = List.of();
    private JsonObject request;

    DocumentWork(Service service, RuleOptions rule) throws IOException {
        this.service = service;
        this.rule = rule;
        this.sheets = rule.sheets();
        long size = 0;
        for (Path sheet : sheets) size += NewFiles.size(sheet);
        this.large = size > MOST_SENT;
        for (Path sheet : sheets) {
            contents.add(large ? Content.of(sheet) : Content.of(NewFiles.read(sheet)));
            digests.add(UndoRecord.digest(contents.getLast()));
        }
    }

    /** Whether the files are read and written here. */
    boolean isLarge() {
        return large;
    }

    List<Path> sheets() {
        return sheets;
    }

    /** SHA-256 of each file, as it was read. */
    List<String> digests() {
        return digests;
    }

    Content content(int sheet) {
        return contents.get(sheet);
    }

    /**
     * What the rule comes to.
     *
     * @param pictures whether the answer is to have pictures
     * @param items whether it is to have all items
     */
    Service.Answer plan(boolean pictures, boolean items) throws IOException {
        if (large) read();
        else {
            var bytes = new ArrayList<byte[]>();
            for (Content each : contents) bytes.add(each.bytes());
            request = rule.request(bytes);
        }
        UndoRecord.of(sheets, digests).ifPresent(earlier -> request.add("originals", earlier.originals()));
        JsonObject asked = request.deepCopy();
        if (pictures) asked.addProperty("pictures", true);
        if (items) asked.addProperty("items", true);
        return completed(service.post("/document-plans", asked));
    }

    /** What the service cannot tell of files that it has not. */
    private Service.Answer completed(Service.Answer answer) {
        if (large)
            answer.body()
                    .getAsJsonObject()
                    .addProperty(
                            "filled",
                            read.stream().mapToLong(NumberedFile::filled).sum());
        return answer;
    }

    /** Reads the files as the service says that the rule reads them. */
    private void read() throws IOException {
        request = rule.request();
        JsonObject asking = request.deepCopy();
        asking.add("files", new JsonArray());
        asking.addProperty("reading", true);
        JsonObject answer = service.post("/document-plans", asking).body().getAsJsonObject();
        rule.check(answer);
        var named = new ArrayList<NamedContent>();
        for (int i = 0; i < sheets.size(); i++)
            named.add(new NamedContent(sheets.get(i).getFileName().toString(), contents.get(i)));
        try {
            read = DocumentFiles.read(named, reading(answer.getAsJsonObject("reading")));
        } catch (UnreadableDocument e) {
            throw unreadable(e);
        }
        var files = new JsonArray();
        for (int i = 0; i < sheets.size(); i++) {
            var file = new JsonObject();
            file.addProperty("name", named.get(i).name());
            file.addProperty("digest", digests.get(i));
            var items = new JsonArray();
            for (Item item : read.get(i).items()) items.add(sent(item));
            file.add("items", items);
            files.add(file);
        }
        request.add("files", files);
        // They are with the items by now.
        request.remove("table");
    }

    private static IOException unreadable(UnreadableDocument e) {
        return new IOException(e.getMessage() + ". Accepted: " + e.accepted() + ". Nothing was changed.", e);
    }

    private static JsonObject sent(Item item) {
        var sent = new JsonObject();
        sent.addProperty("item", item.id());
        sent.addProperty("sheet", item.sheet());
        sent.addProperty("text", item.text());
        sent.add("attributes", JSON.toJsonTree(item.attributes()));
        item.place().ifPresent(place -> {
            var at = new JsonObject();
            at.addProperty("x", place.x());
            at.addProperty("y", place.y());
            sent.add("place", at);
        });
        return sent;
    }

    private static Reading reading(JsonObject said) {
        List<JsonElement> between = Json.list(said, "between").asList();
        return new Reading(
                optional(said, "into"),
                optional(said, "path"),
                optional(said, "identity"),
                between.size() == 2
                        ? Optional.of(new Between(
                                between.getFirst().getAsString(),
                                between.getLast().getAsString()))
                        : Optional.empty(),
                Json.list(said, "marks").asList().stream()
                        .map(JsonElement::getAsJsonObject)
                        .map(mark -> new Mark(
                                Json.text(mark, "text", ""), optional(mark, "replacedBy"), optional(mark, "begins")))
                        .toList(),
                texts(said.getAsJsonObject("values")),
                said.has("rows") && said.get("rows").isJsonArray()
                        ? Optional.of(Json.list(said, "rows").asList().stream()
                                .map(row -> texts(row.getAsJsonObject()))
                                .toList())
                        : Optional.empty());
    }

    private static Optional<String> optional(JsonObject object, String name) {
        return Optional.ofNullable(Json.text(object, name, null));
    }

    private static Map<String, String> texts(JsonObject object) {
        var texts = new HashMap<String, String>();
        object.entrySet()
                .forEach(each -> texts.put(each.getKey(), each.getValue().getAsString()));
        return texts;
    }

    /** Lines of programs that are otherwise, as the service tells them or as they are found here. */
    JsonArray lines(JsonObject plan) throws IOException {
        if (!large) return Json.list(plan, "lines");
        var lines = new JsonArray();
        try {
            for (int i = 0; i < read.size(); i++)
                for (Line line : read.get(i).lines(texts(plan, i + 1).changed())) {
                    var one = new JsonObject();
                    one.addProperty("sheet", i + 1);
                    one.addProperty("line", line.line());
                    one.addProperty("before", line.before());
                    one.addProperty("after", line.after());
                    lines.add(one);
                }
        } catch (UnreadableDocument e) {
            throw unreadable(e);
        }
        return lines;
    }

    /** What a plan changes in one of the sheets. */
    private static Texts texts(JsonObject plan, int sheet) {
        var changed = new HashMap<String, String>();
        var also = new HashMap<String, Map<String, String>>();
        for (JsonElement each : Json.list(plan, "changes")) {
            JsonObject change = each.getAsJsonObject();
            if (Json.number(change, "sheet") != sheet) continue;
            String item = Json.text(change, "item", "");
            changed.put(item, Json.text(change, "after", ""));
            Map<String, String> further = texts(change.getAsJsonObject("also"));
            if (!further.isEmpty()) also.put(item, further);
        }
        return new Texts(changed, also);
    }

    /** Carries the plan out. */
    Service.Answer number(JsonObject plan, String key) {
        request.addProperty("plan", Json.text(plan, "plan", ""));
        return completed(service.take("/document-numberings", request, key));
    }

    /** A numbered file. */
    interface Written {
        void to(OutputStream out) throws IOException;
    }

    /** The numbered files. */
    List<Written> written(JsonObject done) {
        var written = new ArrayList<Written>();
        for (int i = 0; i < sheets.size(); i++) {
            int sheet = i;
            if (large)
                written.add(out -> {
                    try {
                        read.get(sheet).write(texts(done, sheet + 1), out);
                    } catch (UnreadableDocument e) {
                        throw unreadable(e);
                    }
                });
            else
                written.add(out -> out.write(Base64.getDecoder()
                        .decode(Json.text(Json.list(done, "files").get(sheet).getAsJsonObject(), "content", ""))));
        }
        return written;
    }
}
