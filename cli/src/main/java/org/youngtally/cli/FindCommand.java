package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "find",
        description = "Find what an identifier was issued for, or the numbers of a reference.",
        mixinStandardHelpOptions = true)
final class FindCommand implements Callable<Integer> {
    /** Of numbers in these states no act of this ledger says that they were issued. */
    private static final Set<String> RECORDED = Set.of("pre-existing", "in doubt");

    /** What was done, for the acts that change a number. */
    private static final Map<String, String> PAST = Map.ofEntries(
            Map.entry("void", "voided"),
            Map.entry("use", "reported as used"),
            Map.entry("lapse", "lapsed"),
            Map.entry("release", "released"),
            Map.entry("return", "returned"),
            Map.entry("confirm", "confirmed"),
            Map.entry("close", "closed"),
            Map.entry("delete", "deleted"),
            Map.entry("renumber", "renumbered"),
            Map.entry("state", "stated"),
            Map.entry("split", "split"));

    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "IDENTIFIER", description = "The identifier, in upper or lower case; or a reference.")
    private String identifier;

    @Override
    public Integer call() {
        Service.Answer answer = found();
        if (output.asJson(answer)) return Main.DONE;
        for (JsonElement each : answer.body().getAsJsonArray()) print(each.getAsJsonObject());
        return Main.DONE;
    }

    /** An identifier goes first; what is none may be a reference. */
    private Service.Answer found() {
        try {
            return service.get("/identifiers?text=" + Service.escape(identifier));
        } catch (Refused unknown) {
            if (!unknown.is("unknown-identifier")) throw unknown;
            try {
                return service.get("/identifiers?reference=" + Service.escape(identifier));
            } catch (Refused neither) {
                throw neither.is("unknown-identifier") ? unknown : neither;
            }
        }
    }

    private void print(JsonObject found) {
        JsonObject range = found.getAsJsonObject("range");
        String lane = Json.text(found, "lane", "");
        long step = Json.number(range, "step");
        output.line(Json.text(found, "identifier", ""));
        property("series", Json.text(found, "series", "") + " — " + Json.text(found, "title", ""));
        property("namespace", Json.text(found, "namespace", ""));
        property(
                "range",
                Json.number(range, "first") + " to " + Json.number(range, "last") + (step == 1 ? "" : " by " + step)
                        + ", open since " + Json.text(range, "opens", ""));
        if (!lane.isEmpty()) property("lane", lane);
        property("position", Output.grouped(Json.number(found, "position") + 1));
        if (found.has("round")) property("round", Output.grouped(Json.number(found, "round")));
        property(
                "state",
                Json.text(found, "state", "")
                        + (found.has("until") ? " until " + Moment.of(Json.text(found, "until", "")) : "")
                        + (found.has("block") ? ", of block " + Json.number(found, "block") : "")
                        + (found.get("ahead").getAsBoolean() ? ", ahead of the counter" : ""));
        if (found.has("changed")) property("since", change(found.getAsJsonObject("changed")));
        if (found.has("retired")) property("reissued", change(found.getAsJsonObject("retired")));
        property("date", Json.text(found, "date", ""));
        if (found.has("fields")) property("fields", Json.fields(found, ""));
        JsonObject table = found.has("preexisting") ? found.getAsJsonObject("preexisting") : null;
        if (table != null)
            property(
                    "table",
                    Json.text(table, "file", "") + ", line " + Output.grouped(Json.number(table, "line"))
                            + "; plan of entry " + Json.number(table, "plan"));
        property(
                RECORDED.contains(Json.text(found, "state", "")) ? "recorded" : "issued",
                Moment.of(Json.text(found, "at", "")) + " by " + Json.text(found, "by", "") + ", entry "
                        + Json.number(found, "seq"));
        property("reference", Json.text(found, "reference", "none"));
        if (found.has("record"))
            property(
                    "record",
                    Json.number(found, "record") + " (" + Json.text(found, "kind", "record") + " of "
                            + Json.text(found, "unit", "") + "); show it with: youngtally record show --internal "
                            + Json.number(found, "record"));
    }

    private static String change(JsonObject act) {
        String note = Json.text(act, "note", "");
        return Moment.of(Json.text(act, "at", "")) + ", "
                + PAST.getOrDefault(Json.text(act, "act", ""), Json.text(act, "act", "")) + " by "
                + Json.text(act, "by", "") + ", entry " + Json.number(act, "seq") + (note.isEmpty() ? "" : ": " + note);
    }

    private void property(String name, String value) {
        output.line("  " + name + " ".repeat(11 - name.length()) + value);
    }
}
