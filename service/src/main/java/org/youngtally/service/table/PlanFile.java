package org.youngtally.service.table;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.PlanStep.InUse;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.repair.Change;
import org.youngtally.core.series.LaneKey;
import tools.jackson.core.JsonEncoding;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/**
 * A plan for the numbers of a table as a file: JSON, a change or a stretch of numbers a line, so that it can be read
 * and compared. It says everything that is needed to carry the plan out, but for the table itself.
 *
 * @param head what the plan is about
 * @param numbering the changes that allocate, in the order of the allocation
 * @param corrections the numbers of the rows that are corrected, by their lines
 */
public record PlanFile(JsonNode head, List<Numbering> numbering, Map<Long, String> corrections, List<InUse> stretches) {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    /** A row that gets a number. */
    public record Numbering(long line, Particulars particulars) {}

    /**
     * What a plan says of itself, in this order.
     *
     * @param standing how the series stood, see {@link org.youngtally.core.act.SeriesStanding}
     * @param column of the numbers
     * @param notes what to know of how the table was read, in whole sentences
     * @param byDate whether rows are numbered in the order of their dates, and not of their lines
     */
    public record Head(
            String series,
            int version,
            String standing,
            String fileDigest,
            long fileBytes,
            String column,
            RepairOptions options,
            List<String> notes,
            boolean byDate,
            long rows,
            long kept,
            long preexisting,
            long gaps,
            Map<Change.Kind, Long> counts) {}

    /** Writes a plan piece by piece. */
    static final class Writer implements AutoCloseable {
        private final JsonGenerator json;

        Writer(OutputStream to) {
            json = MAPPER.createGenerator(to, JsonEncoding.UTF8);
        }

        void head(Head head) {
            json.writeStartObject();
            line();
            json.writeNumberProperty("plan", 1);
            text("series", head.series());
            json.writeNumberProperty("version", head.version());
            text("standing", head.standing());
            text("file", head.options().name());
            text("file-digest", head.fileDigest());
            json.writeNumberProperty("file-bytes", head.fileBytes());
            line();
            text("column", head.column());
            head.options().encoding().ifPresent(encoding -> json.writeStringProperty("encoding", encoding));
            head.options().dateColumn().ifPresent(column -> json.writeStringProperty("date-column", column));
            if (!head.options().fieldColumns().isEmpty())
                json.writePOJOProperty(
                        "field-columns", new TreeMap<>(head.options().fieldColumns()));
            text("gaps", head.options().gaps().word());
            text("duplicates", head.options().keep().word());
            if (!head.options().chosen().isEmpty())
                json.writePOJOProperty("chosen", head.options().chosen());
            text("date", head.options().date().toString());
            if (head.byDate()) json.writeBooleanProperty("by-date", true);
            if (!head.notes().isEmpty()) json.writePOJOProperty("notes", head.notes());
            line();
            json.writeNumberProperty("rows", head.rows());
            json.writeNumberProperty("kept", head.kept());
            for (Change.Kind kind : Change.Kind.values())
                json.writeNumberProperty(kind.word(), head.counts().getOrDefault(kind, 0L));
            json.writeNumberProperty("pre-existing", head.preexisting());
            json.writeNumberProperty("open-gaps", head.gaps());
            line();
            json.writeArrayPropertyStart("changes");
        }

        private void text(String name, String text) {
            json.writeStringProperty(name, text);
        }

        private void line() {
            json.writeRaw("\n ");
        }

        void change(Change change, String was) {
            json.writeRaw("\n  ");
            json.writeStartObject();
            json.writeNumberProperty("line", change.line());
            text("was", was);
            text("change", change.kind().word());
            change.number().ifPresent(number -> text(change.kind().allocates() ? "expected" : "to", number));
            change.wanted().ifPresent(this::particulars);
            change.why().ifPresent(why -> text("why", why.word()));
            if (change.other() > 0) json.writeNumberProperty("same-as-line", change.other());
            json.writeEndObject();
        }

        private void particulars(Particulars particulars) {
            text("date", particulars.date().toString());
            if (!particulars.fields().isEmpty()) json.writePOJOProperty("fields", particulars.fields());
        }

        void stretches() {
            line();
            json.writeEndArray();
            line();
            json.writeArrayPropertyStart("records");
        }

        void stretch(InUse stretch, String first, String last) {
            json.writeRaw("\n  ");
            json.writeStartObject();
            text("first", first);
            if (stretch.to() > stretch.from()) text("last", last);
            text("lines", stretch.lines().written());
            json.writeNumberProperty("range", stretch.lane().range());
            if (!stretch.lane().period().isEmpty()) text("lane", stretch.lane().period());
            json.writeNumberProperty("from", stretch.from());
            json.writeNumberProperty("to", stretch.to());
            if (stretch.together()) json.writeBooleanProperty("together", true);
            particulars(stretch.particulars());
            json.writeEndObject();
        }

        @Override
        public void close() {
            line();
            json.writeEndArray();
            json.writeRaw("\n");
            json.writeEndObject();
            json.writeRaw("\n");
            json.close();
        }
    }

    /** Reads what {@link Writer} wrote. */
    public static PlanFile read(InputStream from) throws IOException {
        var head = MAPPER.createObjectNode();
        var numbering = new ArrayList<Numbering>();
        var corrections = new HashMap<Long, String>();
        var stretches = new ArrayList<InUse>();
        try (JsonParser json = MAPPER.createParser(from)) {
            json.nextToken();
            for (JsonToken token = json.nextToken(); token == JsonToken.PROPERTY_NAME; token = json.nextToken()) {
                String name = json.currentName();
                json.nextToken();
                switch (name) {
                    case "changes" -> {
                        while (json.nextToken() == JsonToken.START_OBJECT)
                            change(json.readValueAsTree(), numbering, corrections);
                    }
                    case "records" -> {
                        while (json.nextToken() == JsonToken.START_OBJECT)
                            stretches.add(stretch(head.required("series").stringValue(), json.readValueAsTree()));
                    }
                    default -> head.set(name, json.<JsonNode>readValueAsTree());
                }
            }
        }
        if (head.has("by-date"))
            numbering.sort(
                    Comparator.comparing((Numbering row) -> row.particulars().date())
                            .thenComparing(Numbering::line));
        return new PlanFile(head, numbering, corrections, stretches);
    }

    private static void change(JsonNode change, List<Numbering> numbering, Map<Long, String> corrections) {
        long line = change.required("line").longValue();
        if (change.has("to")) corrections.put(line, change.get("to").stringValue());
        String kind = change.required("change").stringValue();
        if (kind.equals(Change.Kind.ALLOCATE.word()) || kind.equals(Change.Kind.RENUMBER.word()))
            numbering.add(new Numbering(line, particulars(change)));
    }

    private static Particulars particulars(JsonNode node) {
        var fields = new TreeMap<String, String>();
        if (node.has("fields"))
            node.get("fields")
                    .properties()
                    .forEach(
                            field -> fields.put(field.getKey(), field.getValue().stringValue()));
        return new Particulars(LocalDate.parse(node.required("date").stringValue()), (Map<String, String>) fields);
    }

    private static InUse stretch(String series, JsonNode node) {
        return new InUse(
                new LaneKey(
                        series,
                        node.required("range").intValue(),
                        Optional.ofNullable(node.get("lane"))
                                .map(JsonNode::stringValue)
                                .orElse("")),
                particulars(node),
                node.required("from").longValue(),
                node.required("to").longValue(),
                node.has("together"),
                FileLines.read(node.required("lines").stringValue()));
    }

    /** The plan as the ledger states it. */
    TablePlan stated(String digest) {
        var ends = new HashMap<LaneKey, Long>();
        for (InUse stretch : stretches) ends.merge(stretch.lane(), stretch.to() + 1, Math::max);
        return new TablePlan(
                head.required("series").stringValue(),
                head.required("version").intValue(),
                head.required("file").stringValue(),
                head.required("file-digest").stringValue(),
                digest,
                head.required("gaps").stringValue().equals(TablePlan.Gaps.CLOSE.word())
                        ? TablePlan.Gaps.CLOSE
                        : TablePlan.Gaps.KEEP,
                ends,
                head.required("pre-existing").longValue(),
                stretches.size(),
                numbering.size());
    }

    public String series() {
        return head.required("series").stringValue();
    }

    public String standing() {
        return head.required("standing").stringValue();
    }

    public String fileDigest() {
        return head.required("file-digest").stringValue();
    }

    public String column() {
        return head.required("column").stringValue();
    }
}
