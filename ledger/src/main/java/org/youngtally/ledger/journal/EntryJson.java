package org.youngtally.ledger.journal;

import java.io.OutputStream;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.access.Account;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.text.Comparison;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.json.JsonMapper;

/** An entry as one JSON object on one line. */
final class EntryJson {
    private static final ObjectMapper MAPPER = JsonMapper.shared();

    private EntryJson() {}

    static void write(Entry entry, OutputStream to) {
        try (JsonGenerator json = MAPPER.createGenerator(to)) {
            write(entry, json);
        }
    }

    private static void write(Entry entry, JsonGenerator json) {
        json.writeStartObject();
        json.writeNumberProperty("seq", entry.seq());
        json.writeStringProperty("at", entry.at().toString());
        json.writeStringProperty("by", entry.by());
        json.writeStringProperty("act", entry.kind().word());
        entry.request().ifPresent(request -> write(request, json));
        json.writeArrayPropertyStart("effects");
        Optional<Particulars> said = entry.request().flatMap(Entry.Request::particulars);
        for (Effect effect : entry.effects()) write(effect, said, json);
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void write(Entry.Request request, JsonGenerator json) {
        request.series().ifPresent(series -> json.writeStringProperty("series", series));
        request.particulars().ifPresent(particulars -> write(particulars, json));
        // Most acts take one number; a journal is kept for ever.
        if (request.quantity() != 1) json.writeNumberProperty("quantity", request.quantity());
        request.reference().ifPresent(reference -> json.writeStringProperty("reference", reference));
        request.key().ifPresent(key -> json.writeStringProperty("key", key));
        json.writeStringProperty("digest", request.digest());
        request.note().ifPresent(note -> json.writeStringProperty("note", note));
        request.purpose().kind().ifPresent(kind -> json.writeStringProperty("kind", kind));
        request.purpose().unit().ifPresent(unit -> json.writeStringProperty("unit", unit));
    }

    private static void write(Particulars particulars, JsonGenerator json) {
        json.writeStringProperty("date", particulars.date().toString());
        FieldsJson.write(particulars.fields(), json);
    }

    /** @param said what the entry says that its numbers were taken for */
    private static void write(Effect effect, Optional<Particulars> said, JsonGenerator json) {
        json.writeStartObject();
        switch (effect) {
            case Effect.LaneOpened opened -> {
                json.writeNumberProperty("opens", opened.lane());
                json.writeStringProperty("series", opened.key().series());
                json.writeNumberProperty("range", opened.key().range());
                json.writeStringProperty("period", opened.key().period());
            }
            case Effect.Issued issued -> {
                json.writeNumberProperty("lane", issued.lane());
                json.writeNumberProperty("from", issued.from());
                if (issued.to() != issued.from()) json.writeNumberProperty("to", issued.to());
                json.writeNumberProperty("version", issued.version());
                if (!said.equals(Optional.of(issued.particulars()))) write(issued.particulars(), json);
                if (issued.round() > 0) json.writeNumberProperty("round", issued.round());
                if (!issued.isBlock()) {
                    json.writeArrayPropertyStart("texts");
                    for (String text : issued.texts()) json.writeString(text);
                    json.writeEndArray();
                }
                issued.manner().until().ifPresent(until -> json.writeStringProperty("until", until.toString()));
                if (issued.manner().ahead()) json.writeBooleanProperty("ahead", true);
                issued.manner().formerly().ifPresent(stretch -> LifeJson.write("formerly", stretch, json));
                issued.manner()
                        .preexisting()
                        .ifPresent(lines -> json.writeStringProperty("pre-existing", lines.written()));
            }
            case Effect.Skipped skipped -> {
                json.writeNumberProperty("skips", skipped.lane());
                json.writeNumberProperty("from", skipped.from());
                json.writeNumberProperty("to", skipped.to());
                json.writeNumberProperty("version", skipped.version());
                if (!said.equals(Optional.of(skipped.particulars()))) write(skipped.particulars(), json);
            }
            case Effect.GapClosed gap -> {
                json.writeNumberProperty("closes-gap", gap.lane());
                json.writeNumberProperty("from", gap.from());
                json.writeNumberProperty("to", gap.to());
                json.writeNumberProperty("version", gap.version());
                if (!said.equals(Optional.of(gap.particulars()))) write(gap.particulars(), json);
                json.writeStringProperty("first", gap.first());
                json.writeStringProperty("last", gap.last());
            }
            case Effect.PlanBegun begun -> PlanJson.write(begun.plan(), json);
            case Effect.PlanAdvanced done -> {
                json.writeNumberProperty("advances", done.plan());
                json.writeNumberProperty("recorded", done.recorded());
                json.writeNumberProperty("numbered", done.numbered());
            }
            case Effect.PlanEnded ended -> {
                json.writeNumberProperty("ends", ended.plan());
                json.writeBooleanProperty("completed", ended.completed());
            }
            case Effect.ItemsNumbered numbered -> {
                json.writeStringProperty("numbers-items-of", numbered.document());
                json.writeStringProperty("series", numbered.series());
                json.writeArrayPropertyStart("items");
                for (String item : numbered.items()) json.writeString(item);
                json.writeEndArray();
            }
            case Effect.LabelJobBegun begun -> LabelJson.write(begun, json);
            case Effect.LabelsAdded added -> LabelJson.write(added, json);
            case Effect.LabelsMoved moved -> LabelJson.write(moved, json);
            case Effect.Passed passed -> {
                json.writeNumberProperty("passes", passed.lane());
                json.writeNumberProperty("from", passed.from());
                json.writeNumberProperty("to", passed.to());
            }
            case Effect.Settled settled -> {
                json.writeNumberProperty("settles", settled.lane());
                json.writeNumberProperty("from", settled.from());
                json.writeNumberProperty("to", settled.to());
                json.writeStringProperty("was", settled.was().word());
                if (settled.since() != 0) json.writeNumberProperty("since", settled.since());
                json.writeStringProperty("now", settled.now().word());
                json.writeStringProperty("first", settled.first());
                json.writeStringProperty("last", settled.last());
            }
            case Effect.Handed handed -> {
                json.writeNumberProperty("hands", handed.lane());
                json.writeNumberProperty("from", handed.from());
                json.writeNumberProperty("to", handed.to());
                json.writeNumberProperty("was", handed.was());
            }
            case Effect.Retired retired -> {
                json.writeNumberProperty("retires", retired.lane());
                json.writeNumberProperty("position", retired.position());
                LifeJson.write(retired.origin(), json);
            }
            case Effect.ReferenceFreed freed -> {
                json.writeStringProperty("frees", freed.reference());
                json.writeStringProperty("series", freed.series());
                json.writeNumberProperty("seq", freed.seq());
            }
            case Effect.SeriesStated stated -> json.writeStringProperty("states", stated.series());
            case Effect.EpochBegun begun -> json.writeStringProperty("epoch", begun.epoch());
            case Effect.PeriodClosed closed -> LifeJson.write(closed, json);
            case Effect.PeriodReopened reopened -> json.writeNumberProperty("reopens", reopened.closing());
            case Effect.CodebookDefined defined -> {
                json.writeName("codebook");
                CodebookJson.write(defined.codebook(), json);
            }
            case Effect.NamespaceDefined defined -> {
                json.writeObjectPropertyStart("namespace");
                json.writeStringProperty("key", defined.namespace().key());
                json.writeNumberProperty("version", defined.namespace().version());
                json.writeStringProperty("title", defined.namespace().title());
                json.writeBooleanProperty("repeats", defined.namespace().repeats());
                json.writeEndObject();
            }
            case Effect.ComparisonChanged compared -> {
                json.writeStringProperty("compares", compared.namespace());
                if (compared.before().isPresent())
                    json.writeNumberProperty("was", compared.before().get().number());
                json.writeNumberProperty("by", compared.now().number());
            }
            case Effect.UnitDefined defined -> json.writePOJOProperty("unit", OrganisationJson.node(defined.unit()));
            case Effect.KindDefined defined -> json.writePOJOProperty("kind", OrganisationJson.node(defined.kind()));
            case Effect.LayoutDefined defined ->
                json.writePOJOProperty("layout", OrganisationJson.node(defined.layout()));
            case Effect.RouteDefined defined -> json.writePOJOProperty("route", OrganisationJson.node(defined.route()));
            case Effect.RouteRemoved removed -> json.writeStringProperty("removes", removed.route());
            case Effect.AccountChanged changed ->
                json.writePOJOProperty("account", OrganisationJson.node(changed.account()));
            case Effect.RecordKept kept -> json.writePOJOProperty("record", OrganisationJson.node(kept.record()));
            case Effect.FileKept kept -> {
                json.writeStringProperty("keeps", kept.file().name());
                json.writeStringProperty("text", kept.file().text());
            }
            case Effect.Defined defined -> {
                json.writeName("defines");
                SeriesJson.write(defined.series(), json);
            }
        }
        json.writeEndObject();
    }

    static Entry read(byte[] line) {
        JsonNode node = MAPPER.readTree(line);
        Optional<Entry.Request> request = Optional.ofNullable(node.get("digest"))
                .map(digest -> new Entry.Request(
                        text(node, "series"),
                        particulars(node),
                        node.has("quantity") ? node.get("quantity").longValue() : 1,
                        text(node, "reference"),
                        text(node, "key"),
                        digest.stringValue(),
                        text(node, "note"),
                        new Purpose(text(node, "kind"), text(node, "unit"))));
        var effects = new ArrayList<Effect>();
        for (JsonNode effect : node.required("effects"))
            effects.add(effect(effect, request.flatMap(Entry.Request::particulars)));
        return new Entry(
                node.required("seq").longValue(),
                Instant.parse(node.required("at").stringValue()),
                node.required("by").stringValue(),
                Entry.Kind.of(node.required("act").stringValue()),
                request,
                effects);
    }

    private static Optional<Particulars> particulars(JsonNode node) {
        return text(node, "date")
                .map(date -> new Particulars(LocalDate.parse(date), FieldsJson.read(node.get("fields"))));
    }

    private static Optional<String> text(JsonNode node, String name) {
        return Optional.ofNullable(node.get(name)).map(JsonNode::stringValue);
    }

    /** @param said what the entry says that its numbers were taken for; an effect can say otherwise */
    private static Effect effect(JsonNode node, Optional<Particulars> said) {
        if (node.has("record"))
            return new Effect.RecordKept(OrganisationJson.read(node.get("record"), KeptRecord.class));
        Optional<Particulars> particulars = particulars(node).or(() -> said);
        if (node.has("defines")) return new Effect.Defined(SeriesJson.read(node.get("defines")));
        if (node.has("codebook")) return new Effect.CodebookDefined(CodebookJson.read(node.get("codebook")));
        if (node.has("namespace")) return new Effect.NamespaceDefined(namespace(node.get("namespace")));
        if (node.has("compares"))
            return new Effect.ComparisonChanged(
                    node.get("compares").stringValue(),
                    Optional.ofNullable(node.get("was")).map(EntryJson::comparison),
                    comparison(node.required("by")));
        if (node.has("unit")) return new Effect.UnitDefined(OrganisationJson.read(node.get("unit"), Unit.class));
        if (node.has("kind")) return new Effect.KindDefined(OrganisationJson.read(node.get("kind"), Kind.class));
        if (node.has("layout"))
            return new Effect.LayoutDefined(OrganisationJson.read(node.get("layout"), KeptLayout.class));
        if (node.has("route")) return new Effect.RouteDefined(OrganisationJson.read(node.get("route"), Route.class));
        if (node.has("removes"))
            return new Effect.RouteRemoved(node.get("removes").stringValue());
        if (node.has("account"))
            return new Effect.AccountChanged(OrganisationJson.read(node.get("account"), Account.class));
        if (node.has("skips"))
            return new Effect.Skipped(
                    node.get("skips").intValue(),
                    node.required("from").longValue(),
                    node.required("to").longValue(),
                    node.required("version").intValue(),
                    particulars.orElseThrow());
        if (node.has("closes-gap"))
            return new Effect.GapClosed(
                    node.get("closes-gap").intValue(),
                    node.required("from").longValue(),
                    node.required("to").longValue(),
                    node.required("version").intValue(),
                    particulars.orElseThrow(),
                    node.required("first").stringValue(),
                    node.required("last").stringValue());
        if (node.has("plans")) return new Effect.PlanBegun(PlanJson.read(node));
        if (node.has("advances"))
            return new Effect.PlanAdvanced(
                    node.get("advances").longValue(),
                    node.required("recorded").longValue(),
                    node.required("numbered").longValue());
        if (node.has("ends"))
            return new Effect.PlanEnded(
                    node.get("ends").longValue(), node.required("completed").booleanValue());
        if (node.has("numbers-items-of"))
            return new Effect.ItemsNumbered(
                    node.required("series").stringValue(),
                    node.get("numbers-items-of").stringValue(),
                    node.required("items")
                            .valueStream()
                            .map(JsonNode::stringValue)
                            .toList());
        if (node.has("labels")) return LabelJson.begun(node);
        if (node.has("adds-labels")) return LabelJson.added(node);
        if (node.has("moves-labels")) return LabelJson.moved(node);
        if (node.has("passes"))
            return new Effect.Passed(
                    node.get("passes").intValue(),
                    node.required("from").longValue(),
                    node.required("to").longValue());
        if (node.has("settles"))
            return new Effect.Settled(
                    node.get("settles").intValue(),
                    node.required("from").longValue(),
                    node.required("to").longValue(),
                    PositionState.of(node.required("was").stringValue()),
                    node.has("since") ? node.get("since").longValue() : 0,
                    PositionState.of(node.required("now").stringValue()),
                    node.required("first").stringValue(),
                    node.required("last").stringValue());
        if (node.has("hands"))
            return new Effect.Handed(
                    node.get("hands").intValue(),
                    node.required("from").longValue(),
                    node.required("to").longValue(),
                    node.required("was").longValue());
        if (node.has("retires"))
            return new Effect.Retired(
                    node.get("retires").intValue(), node.required("position").longValue(), LifeJson.origin(node));
        if (node.has("frees"))
            return new Effect.ReferenceFreed(
                    node.required("series").stringValue(),
                    node.get("frees").stringValue(),
                    node.required("seq").longValue());
        if (node.has("states"))
            return new Effect.SeriesStated(node.get("states").stringValue());
        if (node.has("epoch")) return new Effect.EpochBegun(node.get("epoch").stringValue());
        if (node.has("closes")) return LifeJson.closed(node);
        if (node.has("reopens"))
            return new Effect.PeriodReopened(node.get("reopens").longValue());
        if (node.has("keeps"))
            return new Effect.FileKept(new KeptFile(
                    node.get("keeps").stringValue(), node.required("text").stringValue()));
        if (node.has("opens"))
            return new Effect.LaneOpened(
                    node.get("opens").intValue(),
                    new LaneKey(
                            node.required("series").stringValue(),
                            node.required("range").intValue(),
                            node.required("period").stringValue()));
        List<String> texts = new ArrayList<>();
        if (node.has("texts")) for (JsonNode text : node.get("texts")) texts.add(text.stringValue());
        long from = node.required("from").longValue();
        return new Effect.Issued(
                node.required("lane").intValue(),
                from,
                node.has("to") ? node.get("to").longValue() : from,
                node.required("version").intValue(),
                particulars.orElseThrow(),
                node.has("round") ? node.get("round").longValue() : 0,
                texts,
                LifeJson.manner(node));
    }

    private static Comparison comparison(JsonNode node) {
        return Comparison.of(node.intValue())
                .orElseThrow(() -> new IllegalArgumentException(
                        "rule of comparison " + node.intValue() + " is not known; it is of a later release"));
    }

    private static Namespace namespace(JsonNode node) {
        return new Namespace(
                node.required("key").stringValue(),
                node.required("title").stringValue(),
                node.required("repeats").booleanValue(),
                node.required("version").intValue());
    }
}
