package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Path;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Option;

/** Which labels: whose numbers they bear, and how many there are. */
final class LabelOptions {
    @ArgGroup(multiplicity = "1")
    private Numbers numbers;

    static final class Numbers {
        @Option(names = "--series", paramLabel = "SERIES", description = "The series that numbers them.")
        private String series;

        @Option(
                names = "--kind",
                paramLabel = "KIND",
                description = "The kind of record, for which and whose unit the routes find the series.")
        private String kind;
    }

    @Option(
            names = "--quantity",
            paramLabel = "N",
            description =
                    "How many labels; or sheets, where each sheet has a new identifier; of a table, how many for each row (default: ${DEFAULT-VALUE}).",
            defaultValue = "1")
    private long quantity;

    @Option(
            names = "--copies",
            paramLabel = "N",
            description = "How many copies of each label (default: ${DEFAULT-VALUE}).",
            defaultValue = "1")
    private int copies;

    @Option(
            names = "--table",
            paramLabel = "FILE",
            description =
                    "A table (.csv, .xlsx) with a row for each label, or for so many as --quantity says: columns with the name or title of a field have its values.")
    private Path table;

    @Option(names = "--date", paramLabel = "DATE", description = "The business date (default: today).")
    private String date;

    int copies() {
        return copies;
    }

    /** A table is sent before: the request names it. */
    void write(JsonObject body, Service service) throws IOException {
        if (table != null) {
            String name = table.getFileName().toString();
            Service.Answer kept = service.upload("/label-tables?name=" + Service.escape(name), table);
            body.addProperty("table", Json.text(kept.body().getAsJsonObject(), "table", ""));
        }

        if (numbers.series != null) body.addProperty("series", numbers.series);
        if (numbers.kind != null) body.addProperty("kind", numbers.kind);
        body.addProperty("quantity", quantity);
        body.addProperty("copies", copies);
        if (date != null) body.addProperty("date", date);
    }
}
