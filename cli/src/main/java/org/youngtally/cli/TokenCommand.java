package org.youngtally.cli;

import com.google.gson.JsonElement;
import com.google.gson.JsonObject;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "token",
        description = "Tokens of programs.",
        mixinStandardHelpOptions = true,
        synopsisSubcommandLabel = "VERB",
        subcommands = {TokenCommand.All.class, TokenCommand.Issue.class, TokenCommand.Revoke.class})
final class TokenCommand {
    /** Of which account. */
    static final class Whose {
        @Option(names = "--account", paramLabel = "ACCOUNT", description = "The account (default: your own).")
        private String account;

        String path(Service service) {
            return "/accounts/"
                    + Service.escape(
                            account != null
                                    ? account
                                    : Json.text(service.get("/session").body().getAsJsonObject(), "account", ""))
                    + "/tokens";
        }
    }

    @Command(
            name = "list",
            description = "List the tokens of an account; the secret texts are not stored.",
            mixinStandardHelpOptions = true)
    static final class All implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Whose whose;

        @Override
        public Integer call() {
            Service.Answer answer = service.get(whose.path(service));
            if (output.asJson(answer)) return Main.DONE;
            var rows = new ArrayList<List<String>>();
            for (JsonElement each : answer.body().getAsJsonArray()) {
                JsonObject token = each.getAsJsonObject();
                rows.add(List.of(
                        Json.text(token, "id", ""),
                        Json.text(token, "name", ""),
                        Moment.of(Json.text(token, "issued", "")),
                        Json.text(token, "expires", ""),
                        Json.text(token, "state", "")));
            }
            if (rows.isEmpty()) output.note("No tokens.");
            else output.table(List.of("TOKEN", "NAME", "ISSUED", "EXPIRES", "STATE"), rows);
            return Main.DONE;
        }
    }

    @Command(name = "issue", description = "Issue a token. It is printed only once.", mixinStandardHelpOptions = true)
    static final class Issue implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Whose whose;

        @Parameters(paramLabel = "NAME", description = "What it is for, such as: the till in the shop.")
        private String name;

        @Option(
                names = "--expires",
                paramLabel = "DATE",
                description = "The last day on which it is valid (default: in ninety days).")
        private String expires;

        @Override
        public Integer call() {
            var request = new JsonObject();
            request.addProperty("name", name);
            if (expires != null) request.addProperty("expires", expires);
            Service.Answer answer = service.post(whose.path(service), request);
            if (output.asJson(answer)) return Main.DONE;
            JsonObject token = answer.body().getAsJsonObject();
            output.line(Json.text(token, "token", ""));
            output.note("Token " + Json.text(token, "id", "") + " of " + Json.text(token, "account", "") + ", until "
                    + Json.text(token, "expires", "") + ". It is shown only once.");
            return Main.DONE;
        }
    }

    @Command(name = "revoke", description = "Revoke a token: it is no longer valid.", mixinStandardHelpOptions = true)
    static final class Revoke implements Callable<Integer> {
        @Mixin
        private Service service;

        @Mixin
        private Output output;

        @Mixin
        private Whose whose;

        @Parameters(paramLabel = "TOKEN", description = "The number of the token, as in token list.")
        private String token;

        @Override
        public Integer call() {
            Service.Answer answer = service.delete(whose.path(service) + "/" + Service.escape(token), Map.of());
            if (!output.asJson(answer)) output.note("Token " + token + " is revoked.");
            return Main.DONE;
        }
    }
}
