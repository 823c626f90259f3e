package org.youngtally.service.access;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.RequestMark;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.web.Refusals;

/** Makes the first administrator of a ledger that has no accounts. */
public final class FirstAccount {
    private static final String BY = "first-start";

    private FirstAccount() {}

    /**
     * @param name how it is to be called
     * @return the password, to be shown this once; absent where there are accounts already, or nothing can be written
     */
    public static Optional<String> make(Ledger ledger, String name) {
        if (!ledger.status().running() || !ledger.snapshot().accounts().isEmpty()) return Optional.empty();
        String password = Passwords.random();
        change(
                ledger,
                BY,
                name,
                new AccountChange.Open(
                        "Administrator",
                        Account.Sort.PERSON,
                        Optional.of(new Passwords().kept("password", password)),
                        everything()),
                "the first administrator");
        return Optional.of(password);
    }

    /** Gives an account a new password: for the one who owns the data, when nobody can sign in. */
    public static String renew(Ledger ledger, String name) {
        String password = Passwords.random();
        change(
                ledger,
                "owner",
                name,
                new AccountChange.NewPassword(
                        new Passwords().kept("password", password), ledger.now(), Optional.empty()),
                "a new password, by the owner of the data");
        return password;
    }

    /**
     * Changes an account on nobody's request.
     *
     * @param by the service's own name for who does it
     * @param note what is done, in words
     */
    public static void change(Ledger ledger, String by, String name, AccountChange change, String note) {
        var act = new Act.ChangeAccount(name, change, note, new RequestMark(by, Optional.empty(), ""));
        if (ledger.perform(act, by) instanceof Outcome.Refused<Answer.AccountState> refused)
            throw Refusals.problem(refused.refusal());
    }

    private static List<Grant> everything() {
        return Arrays.stream(Right.values())
                .map(right -> new Grant(right, Scope.ALL))
                .toList();
    }
}
