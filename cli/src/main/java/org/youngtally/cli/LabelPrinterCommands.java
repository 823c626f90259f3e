package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.stream.StreamSupport;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Labels at a printer: which printers there are, and how a job comes on. */
final class LabelPrinterCommands {
    private LabelPrinterCommands() {}

    /** The printer that labels are sent to, and how long the command waits for it. */
    static final class Destination {
        private static final int ASK_MILLIS = 300;

        @Option(
                names = "--printer",
                paramLabel = "ADDRESS",
                description = "Print them at this printer. List all with: youngtally label printers")
        private String printer;

        @Spec(Spec.Target.MIXEE)
        private CommandSpec spec;

        boolean isNamed() {
            return printer != null;
        }

        void write(JsonObject body) {
            if (isNamed()) body.addProperty("printer", printer);
        }

        /**
         * Waits until a job is printed, or its printer stops.
         *
         * @return the exit code: refused where not everything was printed
         */
        int follow(Service service, Output output, long job) {
            String path = "/label-jobs/" + job;
            Service.Answer answer = service.get(path);
            try (ProgressBar bar = ProgressBar.of(spec.commandLine().getErr())) {
                while (isUnderWay(answer)) {
                    bar.show("labels printed", printed(answer), Json.number(view(answer), "size"));
                    TimeUnit.MILLISECONDS.sleep(ASK_MILLIS);
                    answer = service.get(path);
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            if (!output.asJson(answer)) LabelJobCommands.Show.print(output, view(answer));
            JsonObject printing = view(answer).getAsJsonObject("printing");
            if (printing == null) return Main.DONE;
            output.note(
                    "Printer ‘" + Json.text(printing, "printer", "") + "’ " + Json.text(printing, "problem", "") + ".");
            output.note(
                    Json.text(printing, "state", "").equals("stopped")
                            ? "It goes on when its fault is mended. To end the job there: youngtally label stop " + job
                            : "Look at the labels, then confirm, reprint or spoil what is unconfirmed. To print what waits: youngtally label send "
                                    + job + " --printer ADDRESS");
            return Main.REFUSED;
        }

        private static JsonObject view(Service.Answer answer) {
            return answer.body().getAsJsonObject();
        }

        private static boolean isUnderWay(Service.Answer answer) {
            JsonObject printing = view(answer).getAsJsonObject("printing");
            return printing != null && List.of("queued", "printing").contains(Json.text(printing, "state", ""));
        }

        private static long printed(Service.Answer answer) {
            JsonObject states = view(answer).getAsJsonObject("summary").getAsJsonObject("states");
            return states.has("printed") ? Json.number(states, "printed") : 0;
        }
    }

    @Command(
            name = "printers",
            description = "List the printers that labels may be sent to, and the state of each.",
            mixinStandardHelpOptions = true)
    static final class Printers implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/printers");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject printer = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(printer, "address", ""),
                        Json.text(printer, "name", ""),
                        state(printer),
                        String.join(", ", texts(printer, "media"))));
            }
            if (rows.isEmpty())
                output.note("No printers. The administrator starts the service with --printer ADDRESS.");
            else output.table(List.of("address", "name", "state", "media"), rows);
            return Main.DONE;
        }

        private static String state(JsonObject printer) {
            if (printer.has("problem")) return Json.text(printer, "problem", "");
            var state = new ArrayList<String>();
            state.add(Json.text(printer, "state", ""));
            if (!printer.get("accepts").getAsBoolean()) state.add("accepts no jobs");
            state.addAll(texts(printer, "reasons"));
            return String.join(", ", state);
        }

        private static List<String> texts(JsonObject printer, String name) {
            return StreamSupport.stream(Json.list(printer, name).spliterator(), false)
                    .map(JsonElement::getAsString)
                    .toList();
        }
    }

    @Command(
            name = "stop",
            description =
                    "Stop printing a job. What was on its way becomes unconfirmed, and what waits goes on waiting.",
            mixinStandardHelpOptions = true)
    static final class Stop implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "JOB", description = "The entry that began it.")
        private long job;

        @Override
        public Integer call() {
            Service.Answer answer = service.delete("/label-jobs/" + job + "/printing", Map.of());
            if (!output.asJson(answer))
                output.line("The printer is told to end the job. See the states of its labels: youngtally label show "
                        + job);
            return Main.DONE;
        }
    }
}
