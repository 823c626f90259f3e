package org.youngtally.cli;

import com.google.gson.JsonObject;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "sign-out",
        description = "Sign out on this machine: its token is revoked and deleted.",
        mixinStandardHelpOptions = true)
final class SignOutCommand implements Callable<Integer> {
    @Mixin
    private Service service;

    @Mixin
    private Output output;

    @Override
    public Integer call() {
        Optional<JsonObject> kept = SignIns.kept(service.base());
        if (kept.isEmpty()) {
            output.note("Not signed in to " + service.base() + ".");
            return Main.DONE;
        }
        String account = Json.text(kept.get(), "account", "");
        try {
            service.call(
                    "DELETE",
                    "/accounts/" + Service.escape(account) + "/tokens/"
                            + Service.escape(Json.text(kept.get(), "id", "")),
                    null,
                    Json.text(kept.get(), "token", ""));
        } catch (Refused refused) {
            // A token that is not taken any more needs no revoking.
            output.note(refused.getMessage());
        }
        SignIns.keep(service.base(), null);
        output.note(account + " is signed out of " + service.base() + ".");
        return Main.DONE;
    }
}
