package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.PrintWriter;
import java.util.List;

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

    /** Says what happened, each fault at its place, and what would be accepted. */
    void print(PrintWriter to) {
        if (problem.has("faults") && !problem.getAsJsonArray("faults").isEmpty()) {
            for (JsonElement fault : problem.getAsJsonArray("faults")) print(fault.getAsJsonObject(), to);
            to.println("Nothing was changed.");
            return;
        }
        to.println(getMessage());
        if (Json.text(problem, "type", "").endsWith("/sign-in-needed"))
            to.println(
                    "  Sign in with: youngtally sign-in NAME; or give a token with YOUNGTALLY_TOKEN or --token-file");
        else if (problem.has("accepted"))
            to.println("  " + Json.text(problem, "field", "accepted") + ": " + Json.text(problem, "accepted", ""));
    }

    private static void print(JsonObject fault, PrintWriter to) {
        String file = Json.text(fault, "file", "");
        String line = fault.has("line") ? ":" + fault.get("line").getAsInt() : "";
        String series = Json.text(fault, "key", "");
        String path = Json.text(fault, "path", "");
        to.println((file.isEmpty() ? "" : file + line + ": ")
                + (series.isEmpty() || series.equals("null") ? "" : series + ": ")
                + (path.isEmpty() ? "" : path + " ")
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
