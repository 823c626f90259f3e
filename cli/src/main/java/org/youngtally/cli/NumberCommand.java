package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.youngtally.cli.UndoRecord.Numbered;
import org.youngtally.documents.Content;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "number",
        description =
                "Number the items of a document by a rule: texts of drawings, rows of tables, elements of XML, products of part files, pieces of programs. The numbered files are written next to the originals; every other byte is unchanged.",
        mixinStandardHelpOptions = true,
        subcommands = {NumberCommand.Undo.class, NumberCommand.Report.class, NumberCommand.Items.class})
final class NumberCommand implements Callable<Integer> {
    private static final int MOST_AT_ONCE = 1_000;

    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Mixin
    private RuleOptions rule;

    @Spec
    private CommandSpec spec;

    @Option(names = "--dry-run", description = "Only show what would change: nothing is allocated or written.")
    private boolean dryRun;

    @Option(
            names = "--in-place",
            description = "Number the files themselves, instead of writing numbered ones next to them.")
    private boolean inPlace;

    @Option(
            names = "--output",
            paramLabel = "FOLDER",
            description =
                    "The folder for the numbered files, under their names (default: next to the originals, with -numbered in their names). Existing files are never overwritten.")
    private Path to;

    @Option(
            names = "--pictures",
            paramLabel = "FOLDER",
            description = "Write a picture of each drawing, with what changes marked, into this folder.")
    private Path pictures;

    @Option(names = "--all", description = "List every change, not only the first 40.")
    private boolean all;

    @Override
    public Integer call() throws IOException {
        if (inPlace && to != null)
            throw new ParameterException(spec.commandLine(), "--in-place and --output cannot be combined.");
        var work = new DocumentWork(service, rule);
        if (work.isLarge() && (inPlace || pictures != null))
            throw new IOException(
                    "Files of more than " + DocumentWork.MOST_SENT / 1_000_000
                            + " MB are numbered next to the originals and without pictures. Leave out --in-place and --pictures. Nothing was changed.");
        Service.Answer planned = work.plan(pictures != null, false);
        JsonObject plan = planned.body().getAsJsonObject();
        rule.check(plan);
        if (pictures != null) drawn(plan);
        boolean nothing = Json.list(plan, "changes").isEmpty() && Json.number(plan, "filled") == 0;
        if (dryRun) {
            if (output.asJson(planned)) return Main.DONE;
            DocumentText.changes(output, work.lines(plan), plan, all);
            DocumentText.groups(output, plan);
            names(plan);
            output.note(DocumentText.sum(plan, "would change")
                    + (Json.number(plan, "allocated") == 0
                            ? ""
                            : "; " + Output.counted(Json.number(plan, "allocated"), "number") + " would be allocated")
                    + DocumentText.known(plan)
                    + ". Dry run: nothing was changed.");
            return Main.DONE;
        }
        if (nothing) {
            if (!output.asJson(planned))
                output.line(
                        Json.number(plan, "unchanged") == 0
                                ? "No changes: the rule chooses no item that is to change."
                                : "No changes: " + Output.counted(Json.number(plan, "unchanged"), "item")
                                        + " unchanged.");
            return Main.DONE;
        }
        return carriedOut(work, plan);
    }

    /** What the files will be called, where the rule says so. */
    private void names(JsonObject plan) {
        List<JsonElement> names = Json.list(plan, "names").asList();
        for (int i = 0; i < names.size(); i++)
            output.line(
                    rule.sheets().get(i).getFileName() + " → " + names.get(i).getAsString());
    }

    private List<Path> targets(JsonObject plan) throws IOException {
        List<JsonElement> names = Json.list(plan, "names").asList();
        var targets = new ArrayList<Path>();
        for (Path sheet : rule.sheets()) {
            Path beside = inPlace ? sheet : NewFiles.beside(sheet, "-numbered", null);
            String name = names.isEmpty()
                    ? (to != null ? sheet : beside).getFileName().toString()
                    : alone(names.get(targets.size()).getAsString()).toString();
            Path target = to != null ? to.resolve(name) : sheet.resolveSibling(name);
            // What would be in the way is better known before numbers are allocated.
            boolean own = inPlace && target.equals(sheet);
            if (!own && Files.exists(target) && (inPlace || Json.number(plan, "allocated") > 0))
                throw new IOException(
                        "File " + target + " already exists. Name a folder with --output. Nothing was allocated.");
            targets.add(target);
        }
        if (to != null) Files.createDirectories(to);
        return targets;
    }

    private int carriedOut(DocumentWork work, JsonObject plan) throws IOException {
        List<Path> targets = targets(plan);
        Service.Answer answer = work.number(plan, UUID.randomUUID().toString());
        JsonObject done = answer.body().getAsJsonObject();
        if (!inPlace && !Json.list(plan, "names").isEmpty()) targets = targets(done, targets);
        List<Path> fresh = new ArrayList<>();
        try {
            UndoRecord record = written(work, done, targets, fresh);
            if (output.asJson(answer)) return Main.DONE;
            DocumentText.changes(output, work.lines(done), done, all);
            DocumentText.groups(output, done);
            for (Path target : targets) output.line(target.toString());
            output.note(DocumentText.sum(done, "changed")
                    + DocumentText.entries(done)
                    + DocumentText.known(done)
                    + (record == null
                            ? ". The files were numbered so already."
                            : ". Undo with: youngtally number undo " + quoted(record.file())));
            return Main.DONE;
        } finally {
            for (Path each : fresh) Files.deleteIfExists(each);
        }
    }

    /** A name without a folder, whatever the service answers. */
    private static Path alone(String name) {
        return Path.of(name).getFileName();
    }

    /** As it can be typed. */
    private static String quoted(Path file) {
        return file.toString().contains(" ") ? "\"" + file + "\"" : file.toString();
    }

    /** The names as they came to be: numbers of a series may not be those that were expected. */
    private List<Path> targets(JsonObject done, List<Path> expected) throws IOException {
        List<JsonElement> files = Json.list(done, "files").asList();
        var targets = new ArrayList<Path>();
        for (int i = 0; i < expected.size(); i++) {
            String name = Json.text(files.get(i).getAsJsonObject(), "numberedName", null);
            targets.add(name == null ? expected.get(i) : expected.get(i).resolveSibling(alone(name)));
        }
        return targets;
    }

    /**
     * Writes the files.
     *
     * @param fresh gets files that are beside the others for a while
     * @return how it is undone; null where all files are there already, as they would be written
     */
    private UndoRecord written(DocumentWork work, JsonObject done, List<Path> targets, List<Path> fresh)
            throws IOException {
        var numbered = new ArrayList<Numbered>();
        List<DocumentWork.Written> files = work.written(done);
        boolean there = !inPlace;
        for (int i = 0; i < targets.size(); i++) {
            Path target = targets.get(i);
            fresh.add(NewFiles.fresh(target, files.get(i)::to));
            String after = UndoRecord.digest(Content.of(fresh.get(i)));
            Path sheet = work.sheets().get(i);
            // Somebody may have saved it since.
            if (!UndoRecord.digest(Content.of(sheet)).equals(work.digests().get(i)))
                throw new IOException(
                        "File " + sheet
                                + " changed since it was read, and was not written. Run the command again: items keep the numbers that they were allocated.");
            boolean same = Files.exists(target)
                    && UndoRecord.digest(Content.of(target)).equals(after);
            if (!inPlace && Files.exists(target) && !same)
                throw new IOException("File " + target
                        + " already exists, and is another one. Name a folder with --output. Nothing was written.");
            there &= same;
            numbered.add(new Numbered(
                    sheet,
                    work.digests().get(i),
                    inPlace ? Optional.of(work.content(i).bytes()) : Optional.empty(),
                    target,
                    after));
        }
        if (there) return null;
        UndoRecord record = UndoRecord.of(numbered, done);
        // In this order: with the record the files can be undone, and without it nothing has changed.
        record.save();
        for (int i = 0; i < targets.size(); i++) {
            NewFiles.into(fresh.get(i), targets.get(i), inPlace);
            if (inPlace && !targets.get(i).equals(work.sheets().get(i)))
                Files.delete(work.sheets().get(i));
        }
        return record;
    }

    private void drawn(JsonObject plan) throws IOException {
        Files.createDirectories(pictures);
        for (JsonElement each : Json.list(plan, "pictures")) {
            JsonObject picture = each.getAsJsonObject();
            Path target = NewFiles.beside(pictures.resolve(Json.text(picture, "name", "")), "-marked", null);
            NewFiles.write(target, Base64.getDecoder().decode(Json.text(picture, "content", "")));
            output.note("Picture: " + target);
        }
    }

    @Command(
            name = "undo",
            description =
                    "Undo a numbering: the files have their former bytes again, and numbers of a series are voided or returned.",
            mixinStandardHelpOptions = true)
    static final class Undo implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(paramLabel = "RECORD", description = "The undo record that the numbering wrote.")
        private Path file;

        @Option(
                names = "--reason",
                paramLabel = "TEXT",
                description = "Why numbers of a series become void; they may have been printed.")
        private String reason;

        @Option(
                names = "--return",
                description = "Return numbers of a series instead: nobody has seen them, and they are issued again.")
        private boolean giveBack;

        @Override
        public Integer call() throws IOException {
            UndoRecord record = UndoRecord.read(file);
            record.check();
            List<String> numbers = record.identifiers();
            if (!numbers.isEmpty() && reason == null && !giveBack)
                throw new IOException(
                        "This numbering allocated " + Output.counted(numbers.size(), "number") + ", "
                                + numbers.getFirst()
                                + (numbers.size() == 1 ? "" : " to " + numbers.getLast())
                                + ". Add --reason \"…\" to void them, or --return if nobody has seen them. Nothing was changed.");
            int part = 0;
            for (UndoRecord.Allocation each : record.allocations()) part = settle(record, each, part);
            List<Path> files = record.undo();
            if (output.asJson(told(files, numbers))) return Main.DONE;
            for (Path each : files) output.line(each.toString());
            output.note("Undone"
                    + (numbers.isEmpty()
                            ? ""
                            : "; " + Output.counted(numbers.size(), "number") + (giveBack ? " returned" : " voided"))
                    + ".");
            return Main.DONE;
        }

        /** What was undone, as JSON. */
        private static Service.Answer told(List<Path> files, List<String> numbers) {
            var told = new JsonObject();
            var list = new JsonArray();
            files.forEach(file -> list.add(file.toString()));
            told.add("files", list);
            var settled = new JsonArray();
            numbers.forEach(settled::add);
            told.add("identifiers", settled);
            return new Service.Answer(told, told.toString(), Optional.empty(), "");
        }

        /**
         * @param part how many requests were made for this record
         * @return how many have been made now
         */
        private int settle(UndoRecord record, UndoRecord.Allocation allocation, int part) {
            List<String> numbers = allocation.identifiers();
            int at = part;
            for (int from = 0; from < numbers.size(); from += MOST_AT_ONCE) {
                var body = new JsonObject();
                var list = new JsonArray();
                numbers.subList(from, Math.min(numbers.size(), from + MOST_AT_ONCE))
                        .forEach(list::add);
                body.add("identifiers", list);
                if (reason != null) body.addProperty("reason", reason);
                service.take(
                        "/series/" + Service.escape(allocation.series()) + (giveBack ? "/returns" : "/voids"),
                        body,
                        record.key() + (at == 0 ? "" : "-" + at * MOST_AT_ONCE));
                at++;
            }
            return at;
        }
    }

    @Command(
            name = "report",
            description =
                    "Report the numbers of a document by group: how many items have one with this rule, the first and the last. Nothing is changed.",
            mixinStandardHelpOptions = true)
    static final class Report implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private RuleOptions rule;

        @Override
        public Integer call() throws IOException {
            Service.Answer answer = new DocumentWork(service, rule).plan(false, false);
            JsonObject plan = answer.body().getAsJsonObject();
            rule.check(plan);
            if (output.asJson(answer)) return Main.DONE;
            DocumentText.groups(output, plan);
            output.note(DocumentText.sum(plan, "to be changed") + ".");
            return Main.DONE;
        }
    }

    @Command(
            name = "items",
            description =
                    "List the items of a document with their attributes: what a rule can choose, order and write. Nothing is changed.",
            mixinStandardHelpOptions = true)
    static final class Items implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private RuleOptions rule;

        @Override
        public Integer call() throws IOException {
            rule.usual();
            Service.Answer answer = new DocumentWork(service, rule).plan(false, true);
            if (output.asJson(answer)) return Main.DONE;
            DocumentText.items(output, answer.body().getAsJsonObject());
            return Main.DONE;
        }
    }
}
