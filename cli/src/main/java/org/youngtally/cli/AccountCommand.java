package org.youngtally.cli;

import com.google.gson.JsonArray;
import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "account",
        description = "Accounts of people and programs, and their grants.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {
            AccountCommand.All.class,
            AccountCommand.Show.class,
            AccountCommand.Open.class,
            AccountCommand.Give.class,
            AccountCommand.Withdraw.class,
            AccountCommand.Close.class,
            AccountCommand.Reopen.class,
            AccountCommand.NewPassword.class
        })
final class AccountCommand {
    private static final String GRANT =
            "RIGHT:SCOPE, such as allocate:unit=care. Rights: define, allocate, hold, void, read, audit, access. Scopes: all, unit=KEY, kind=KEY, series=KEY. Repeatable.";

    private static String grants(JsonObject account) {
        var words = new ArrayList<String>();
        for (JsonElement each : Json.list(account, "grants"))
            words.add(Json.text(each.getAsJsonObject(), "right", "") + ":"
                    + Json.text(each.getAsJsonObject(), "scope", "").replace(' ', '='));
        return words.isEmpty() ? "—" : String.join(" ", words);
    }

    private static String state(JsonObject account) {
        return account.get("closed").getAsBoolean() ? "closed" : Json.text(account, "sort", "");
    }

    /** Grants as they are typed, in the service's words. */
    private static JsonArray written(List<String> grants) {
        var list = new JsonArray();
        for (String grant : grants) {
            String[] parts = grant.split(":", 2);
            var written = new JsonObject();
            written.addProperty("right", parts[0]);
            written.addProperty("scope", parts.length == 1 ? "all" : parts[1].replace('=', ' '));
            list.add(written);
        }
        return list;
    }

    @Command(name = "list", description = "List all accounts with their grants.", mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Override
        public Integer call() {
            Service.Answer answer = service.get("/accounts");
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray())
                rows.add(List.of(
                        Json.text(each.getAsJsonObject(), "name", ""),
                        Json.text(each.getAsJsonObject(), "title", ""),
                        state(each.getAsJsonObject()),
                        grants(each.getAsJsonObject())));
            output.table(List.of("ACCOUNT", "TITLE", "", "MAY"), rows);
            return Main.DONE;
        }
    }

    /** A command about one account. */
    abstract static class One implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Parameters(index = "0", paramLabel = "ACCOUNT", description = "The name of the account.")
        private String account;

        int post(String path, JsonObject body, String done) {
            Service.Answer answer = service.post("/accounts/" + Service.escape(account) + path, body);
            if (!output.asJson(answer)) output.note(account + " " + done);
            return Main.DONE;
        }

        int grant(String path, List<String> grants, String done) {
            var body = new JsonObject();
            body.add("grants", written(grants));
            return post(path, body, done + " " + String.join(" ", grants) + ".");
        }
    }

    @Command(
            name = "show",
            description = "Show one account: its grants and its tokens.",
            mixinStandardHelpOptions = true)
    static final class Show extends One {
        @Override
        public Integer call() {
            Service.Answer answer = super.service.get("/accounts/" + Service.escape(super.account));
            if (super.output.asJson(answer)) return Main.DONE;
            JsonObject found = answer.body().getAsJsonObject();
            super.output.line(
                    Json.text(found, "name", "") + "  " + Json.text(found, "title", "") + "  " + state(found));
            for (JsonElement each : Json.list(found, "grants"))
                super.output.line("  may " + Json.text(each.getAsJsonObject(), "right", "") + " for "
                        + Json.text(each.getAsJsonObject(), "scope", ""));
            for (JsonElement each : Json.list(found, "tokens"))
                super.output.line("  token " + Json.text(each.getAsJsonObject(), "id", "") + "  "
                        + Json.text(each.getAsJsonObject(), "name", "") + "  until "
                        + Json.text(each.getAsJsonObject(), "expires", "") + "  "
                        + Json.text(each.getAsJsonObject(), "state", ""));
            return Main.DONE;
        }
    }

    @Command(
            name = "open",
            description = "Open an account. The random password of a person is printed only once.",
            mixinStandardHelpOptions = true)
    static final class Open extends One {
        @Option(names = "--title", paramLabel = "TEXT", description = "Who or what the account is for.")
        private String title;

        @Option(names = "--program", description = "A program: it signs in with tokens only.")
        private boolean program;

        @Option(names = "--grant", paramLabel = "GRANT", description = GRANT)
        private List<String> grants = List.of();

        @Override
        public Integer call() {
            var body = new JsonObject();
            body.addProperty("name", super.account);
            if (title != null) body.addProperty("title", title);
            body.addProperty("sort", program ? "program" : "person");
            body.add("grants", written(grants));
            Service.Answer answer = super.service.post("/accounts", body);
            if (super.output.asJson(answer)) return Main.DONE;
            if (answer.body().getAsJsonObject().has("password"))
                super.output.line(Json.text(answer.body().getAsJsonObject(), "password", ""));
            super.output.note(super.account + " is open"
                    + (program
                            ? ". Issue a token with: youngtally token issue --account " + super.account + " NAME"
                            : ". The password is shown only once."));
            return Main.DONE;
        }
    }

    @Command(name = "grant", description = "Grant rights to an account.", mixinStandardHelpOptions = true)
    static final class Give extends One {
        @Parameters(index = "1..*", arity = "1..*", paramLabel = "GRANT", description = GRANT)
        private List<String> grants;

        @Override
        public Integer call() {
            return grant("/grants", grants, "has");
        }
    }

    @Command(name = "revoke", description = "Revoke grants of an account.", mixinStandardHelpOptions = true)
    static final class Withdraw extends One {
        @Parameters(index = "1..*", arity = "1..*", paramLabel = "GRANT", description = GRANT)
        private List<String> grants;

        @Override
        public Integer call() {
            return grant("/withdrawals", grants, "no longer has");
        }
    }

    @Command(
            name = "close",
            description = "Close an account: it can no longer do anything.",
            mixinStandardHelpOptions = true)
    static final class Close extends One {
        @Override
        public Integer call() {
            return post("/closings", new JsonObject(), "is closed.");
        }
    }

    @Command(name = "reopen", description = "Reopen a closed account.", mixinStandardHelpOptions = true)
    static final class Reopen extends One {
        @Override
        public Integer call() {
            return post("/reopenings", new JsonObject(), "is open again.");
        }
    }

    @Command(
            name = "new-password",
            description = "Set a new random password for a person. It is printed only once.",
            mixinStandardHelpOptions = true)
    static final class NewPassword extends One {
        @Override
        public Integer call() {
            Service.Answer answer =
                    super.service.post("/accounts/" + Service.escape(super.account) + "/passwords", new JsonObject());
            if (super.output.asJson(answer)) return Main.DONE;
            super.output.line(Json.text(answer.body().getAsJsonObject(), "password", ""));
            super.output.note("It is shown only once. Every session and token of " + super.account + " has ended.");
            return Main.DONE;
        }
    }
}
