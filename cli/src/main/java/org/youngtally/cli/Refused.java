package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.PrintWriter;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** The service said no: problem details by RFC 9457. */
final class Refused extends RuntimeException {
    private static final long serialVersionUID = 1L;
    private final transient JsonObject problem;

    Refused(JsonObject problem) {
        super(Json.text(problem, "detail", Json.text(problem, "title", "The service refused.")));
        this.problem = problem;
    }

    /** Whether it is a problem of this type, such as {@code unknown-identifier}. */
    boolean is(String type) {
        return Json.text(problem, "type", "").endsWith("/" + type);
    }

    /** Where what is not found is listed, by the type of the problem; of a kind or a unit by the field. */
    private static final Map<String, String> LISTED = Map.of(
            "unknown-series", "series list",
            "unknown-route", "routes list",
            "unknown-codebook", "codebook list",
            "unknown-closing", "period list",
            "unknown-record", "record search",
            "unknown-starter", "starter list",
            "unknown-taking", "entry list",
            "unknown-account", "account list",
            "still-held", "holds list");

    /** What the interface calls a thing, and what it is called at a terminal. */
    private static final Map<String, String> CALLED =
            Map.of("Idempotency-Key", "--key", "If-Match", "version", "If-None-Match", "version");

    private static final Pattern INDEX = Pattern.compile("\\[(\\d+)]");

    /** A path into what was sent, with its indices from 1. */
    static String path(String path) {
        return INDEX.matcher(path).replaceAll(index -> "[" + (Long.parseLong(index.group(1)) + 1) + "]");
    }

    private String list() {
        String type = Json.text(problem, "type", "").replaceFirst(".*/", "");
        String field = Json.text(problem, "field", "");
        String command = type.equals("unknown-kind") ? field + " list" : LISTED.get(type);
        return command == null || problem.has("nearest") ? "" : ". List them with: youngtally " + command;
    }

    /** Says what happened, each fault at its place, and what would be accepted. */
    void print(PrintWriter to) {
        if (problem.has("faults") && !problem.getAsJsonArray("faults").isEmpty()) {
            for (JsonElement fault : problem.getAsJsonArray("faults")) print(fault.getAsJsonObject(), to);
            long more = problem.has("more") ? problem.get("more").getAsLong() : 0;
            if (more > 0) to.println(Output.grouped(more) + " more lines have faults.");
            to.println(
                    is("definitions-faulty") || is("rule-faulty") ? "Nothing was changed." : "Nothing was allocated.");
            return;
        }
        to.println(getMessage());
        if (problem.has("units") && is("grant-missing"))
            to.println("  --unit " + problem.getAsJsonArray("units").get(0).getAsString());
        else if (is("reason-missing")) to.println("  Add --reason \"…\".");
        else if (is("sign-in-needed"))
            to.println("  Run: youngtally sign-in ACCOUNT. Or set a token with YOUNGTALLY_TOKEN or --token-file.");
        else if (problem.has("accepted"))
            to.println("  " + field() + ": " + Json.text(problem, "accepted", "") + list());
    }

    private String field() {
        String field = Json.text(problem, "field", "accepted");
        return path(CALLED.getOrDefault(field, field));
    }

    private static void print(JsonObject fault, PrintWriter to) {
        String file = Json.text(fault, "file", "");
        int at = fault.has("line") ? fault.get("line").getAsInt() : 0;
        String line = at == 0 ? "" : ":" + at;
        String series = Json.text(fault, "key", "");
        String path = Json.text(fault, "path", "");
        to.println((file.isEmpty() ? (at == 0 ? "" : "Line " + at + ": ") : file + line + ": ")
                + (series.isEmpty() || series.equals("null") ? "" : series + ": ")
                + (path.isEmpty() ? "" : path(path) + " ")
                + Json.text(fault, "problem", ""));
        if (fault.has("clash"))
            for (String way : List.of("one", "other"))
                to.println("    " + way(fault.getAsJsonObject("clash").getAsJsonObject(way)));
        to.println("  " + Json.text(fault, "accepted", ""));
    }

    private static String way(JsonObject way) {
        String lane = Json.text(way, "lane", "");
        return "as value " + Json.number(way, "value") + " of " + Json.text(way, "series", "") + ", range "
                + Json.text(way, "range", "") + (lane.isEmpty() ? "" : ", lane " + lane) + ", on "
                + Json.text(way, "date", "") + Json.fields(way, ", with ");
    }
}
