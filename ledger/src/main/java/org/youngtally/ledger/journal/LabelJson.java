package org.youngtally.ledger.journal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Effect;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelPiece;
import org.youngtally.core.label.LabelState;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;

/** Jobs of labels as JSON. */
final class LabelJson {
    private LabelJson() {}

    static void write(Effect.LabelJobBegun begun, JsonGenerator json) {
        json.writePOJOProperty("labels", OrganisationJson.node(begun.job()));
        json.writeArrayPropertyStart("pieces");
        for (LabelPiece piece : begun.pieces()) {
            json.writeStartObject();
            write(piece, json);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    static void write(Effect.LabelsAdded added, JsonGenerator json) {
        json.writeNumberProperty("adds-labels", added.job());
        write(added.piece(), json);
    }

    static void write(Effect.LabelsMoved moved, JsonGenerator json) {
        json.writeNumberProperty("moves-labels", moved.job());
        json.writeNumberProperty("from", moved.from());
        json.writeNumberProperty("to", moved.to());
        json.writeStringProperty("was", moved.was().word());
        json.writeStringProperty("now", moved.now().word());
        moved.printer().ifPresent(printer -> json.writeStringProperty("printer", printer));
    }

    private static void write(LabelPiece piece, JsonGenerator json) {
        json.writeNumberProperty("from", piece.from());
        json.writeNumberProperty("to", piece.to());
        if (piece.original() != piece.from()) json.writeNumberProperty("original", piece.original());
        json.writeNumberProperty("lane", piece.lane());
        json.writeNumberProperty("position", piece.position());
        if (piece.each() != 1) json.writeNumberProperty("each", piece.each());
        if (piece.offset() != 0) json.writeNumberProperty("offset", piece.offset());
        if (piece.reprint()) json.writeBooleanProperty("reprint", true);
    }

    static Effect.LabelJobBegun begun(JsonNode node) {
        var pieces = new ArrayList<LabelPiece>();
        for (JsonNode piece : node.required("pieces")) pieces.add(piece(piece));
        return new Effect.LabelJobBegun(OrganisationJson.read(node.get("labels"), LabelJob.class), List.copyOf(pieces));
    }

    static Effect.LabelsAdded added(JsonNode node) {
        return new Effect.LabelsAdded(node.get("adds-labels").longValue(), piece(node));
    }

    static Effect.LabelsMoved moved(JsonNode node) {
        return new Effect.LabelsMoved(
                node.get("moves-labels").longValue(),
                node.required("from").longValue(),
                node.required("to").longValue(),
                state(node.required("was")),
                state(node.required("now")),
                Optional.ofNullable(node.get("printer")).map(JsonNode::stringValue));
    }

    private static LabelState state(JsonNode node) {
        return LabelState.of(node.stringValue())
                .orElseThrow(() -> new IllegalArgumentException("labels are not ‘" + node.stringValue() + "’"));
    }

    private static LabelPiece piece(JsonNode node) {
        long from = node.required("from").longValue();
        return new LabelPiece(
                from,
                node.required("to").longValue(),
                number(node, "original", from),
                node.required("lane").intValue(),
                node.required("position").longValue(),
                number(node, "each", 1),
                number(node, "offset", 0),
                node.has("reprint"));
    }

    private static long number(JsonNode node, String name, long otherwise) {
        return node.has(name) ? node.get(name).longValue() : otherwise;
    }
}
