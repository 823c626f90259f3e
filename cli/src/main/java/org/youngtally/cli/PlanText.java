package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** A plan for a table as people read it. */
final class PlanText {
    /** So many changes are listed where not all of them are. */
    static final int FIRST = 40;

    private final Output output;
    private final int most;

    PlanText(Output output, int most) {
        this.output = output;
        this.most = most;
    }

    void print(Path plan) throws IOException {
        var rows = new ArrayList<List<String>>();
        JsonObject head = PlanHead.read(plan, change -> {
            // What stays as it is would hide what changes.
            if (most == Integer.MAX_VALUE || !Json.text(change, "change", "").equals("known")) rows.add(row(change));
            return rows.size() < most;
        });
        output.line(Json.text(head, "file", "") + ": " + Output.counted(Json.number(head, "rows"), "row") + ", column ‘"
                + Json.text(head, "column", "") + "’, series " + Json.text(head, "series", ""));
        counted(head, "kept", "right, recorded as pre-existing");
        counted(head, "correct", "corrected");
        counted(head, "known", "in the ledger already");
        counted(head, "allocate", "blank, get a number");
        counted(head, "renumber", "duplicate, get another number");
        counted(head, "leave", "left alone");
        gaps(head);
        for (JsonElement note : Json.list(head, "notes")) output.note(note.getAsString());
        if (rows.isEmpty()) return;
        output.line("");
        output.table(List.of(">LINE", "OLD", "CHANGE", "NEW", ""), rows);
        long more = total(head) - rows.size();
        if (more > 0 && most < Integer.MAX_VALUE)
            output.note(Output.grouped(more) + " more. List all with --all, or read the plan.");
    }

    private static long total(JsonObject head) {
        return List.of("correct", "allocate", "renumber", "leave").stream()
                .mapToLong(name -> Json.number(head, name))
                .sum();
    }

    private void counted(JsonObject head, String name, String what) {
        long count = Json.number(head, name);
        if (count > 0) output.line("  %9s  %s".formatted(Output.grouped(count), what));
    }

    private void gaps(JsonObject head) {
        long gaps = Json.number(head, "open-gaps");
        if (gaps == 0) return;
        boolean close = Json.text(head, "gaps", "").equals("close");
        output.line("  %9s  %s below the highest number, %s"
                .formatted(
                        Output.grouped(gaps),
                        gaps == 1 ? "gap" : "gaps",
                        close ? "closed: void" : "kept: allocated from now on, the lowest first"));
    }

    private static List<String> row(JsonObject change) {
        String kind = Json.text(change, "change", "");
        String old = Json.text(change, "was", "");
        return List.of(
                String.valueOf(Json.number(change, "line")),
                old.isEmpty() ? "—" : old,
                kind,
                Json.text(change, "to", Json.text(change, "expected", "")),
                remark(change, kind));
    }

    private static String remark(JsonObject change, String kind) {
        return switch (kind) {
            case "allocate" -> "expected";
            case "renumber" -> "expected; line " + Json.number(change, "same-as-line") + " keeps the old one";
            case "known" -> "in the ledger already";
            case "leave" -> why(Json.text(change, "why", ""));
            default -> "";
        };
    }

    private static String why(String word) {
        return switch (word) {
            case "no-number" -> "not a number of the series";
            case "ambiguous" -> "can be read as several numbers";
            case "formula" -> "the cell has a formula";
            case "outside" -> "outside the ranges";
            case "void" -> "void in the ledger";
            case "field" -> "a field is missing or invalid";
            case "date" -> "no active range on its date, or in a closed period";
            case "chronological" -> "dated before the newest number";
            case "exhausted" -> "no number is left";
            default -> word;
        };
    }
}
