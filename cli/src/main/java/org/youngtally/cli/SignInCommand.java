package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.io.BufferedReader;
import java.io.Console;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "sign-in",
        description =
                "Sign in with a password. Commands on this machine then use the account, with a token of its own.",
        mixinStandardHelpOptions = true)
final class SignInCommand implements Callable<Integer> {
    private static final int DAYS = 30;

    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Parameters(paramLabel = "ACCOUNT", description = "The name of the account.")
    private String account;

    @Option(names = "--password-stdin", description = "Read the password from standard input.")
    private boolean fromInput;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var request = new JsonObject();
        request.addProperty("account", account);
        request.addProperty("password", password());
        Service.Begun begun = service.begin("/session", request);
        JsonObject session = begun.answer().body().getAsJsonObject();
        var wanted = new JsonObject();
        wanted.addProperty("name", "sign-in on " + InetAddress.getLocalHost().getHostName());
        wanted.addProperty(
                "expires",
                LocalDate.parse(Json.text(
                                service.inSession("GET", "/status", null, begun.cookie(), "")
                                        .body()
                                        .getAsJsonObject(),
                                "today",
                                ""))
                        .plusDays(DAYS)
                        .toString());
        Service.Answer answer = service.inSession(
                "POST",
                "/accounts/" + Service.escape(account) + "/tokens",
                wanted,
                begun.cookie(),
                Json.text(session, "secret", ""));
        service.inSession("DELETE", "/session", null, begun.cookie(), Json.text(session, "secret", ""));
        JsonObject token = answer.body().getAsJsonObject();
        var kept = new JsonObject();
        kept.addProperty("account", account);
        kept.addProperty("token", Json.text(token, "token", ""));
        kept.addProperty("id", Json.text(token, "id", ""));
        end(SignIns.kept(service.base()));
        SignIns.keep(service.base(), kept);
        output.note("Signed in to " + service.base() + " as " + account + ", until " + Json.text(token, "expires", "")
                + ". Sign out with: youngtally sign-out");
        return Main.DONE;
    }

    /** The sign-in before this one is over. */
    private void end(Optional<JsonObject> earlier) {
        if (earlier.isEmpty()) return;
        try {
            service.call(
                    "DELETE",
                    "/accounts/" + Service.escape(Json.text(earlier.get(), "account", "")) + "/tokens/"
                            + Service.escape(Json.text(earlier.get(), "id", "")),
                    null,
                    Json.text(earlier.get(), "token", ""));
        } catch (Refused refused) {
            output.note("The earlier sign-in had already ended: " + refused.getMessage());
        }
    }

    private String password() throws IOException {
        if (fromInput) {
            String line = new BufferedReader(
                            new InputStreamReader(Surroundings.current().input(), StandardCharsets.UTF_8))
                    .readLine();
            return line == null ? "" : line;
        }
        Console console = System.console();
        // Newer JDKs give a console where there is no terminal, too; there nobody can be asked.
        if (console == null || !isTerminal(console))
            throw new ParameterException(
                    spec.commandLine(), "There is no terminal for the password. Add --password-stdin.");
        char[] typed = console.readPassword("Password of %s: ", account);
        return typed == null ? "" : new String(typed);
    }

    private static boolean isTerminal(Console console) {
        try {
            return (boolean) Console.class.getMethod("isTerminal").invoke(console);
        } catch (NoSuchMethodException e) {
            return true;
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }
}
