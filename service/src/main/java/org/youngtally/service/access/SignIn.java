package org.youngtally.service.access;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Account;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Reach;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Whether somebody is who they say they are. */
@Component
public final class SignIn {
    private final Ledger ledger;
    private final Passwords passwords;
    private final SignInGate gate;
    private final HeavyWork work;
    private final Reach reach;

    SignIn(Ledger ledger, Passwords passwords, SignInGate gate, HeavyWork work, Reach reach) {
        this.ledger = ledger;
        this.passwords = passwords;
        this.gate = gate;
        this.work = work;
        this.reach = reach;
    }

    /**
     * The account of a name, if this is its password.
     *
     * @throws Problem where it is not, or too many were wrong before
     */
    public Account proved(String name, String password, HttpServletRequest request) {
        String source = Source.of(request, reach);
        gate.begin(name, source);
        Optional<Account> account =
                Optional.ofNullable(ledger.snapshot().accounts().get(name));
        if (!work.run(Sort.PASSWORD, source, () -> passwords.matches(password, account)))
            throw new Problem(Type.SIGN_IN_REFUSED, "Wrong account or password.")
                    .field("password", "the password of an open account");
        gate.right(name, source);
        return account.orElseThrow();
    }

    /** What is kept of a new password. */
    public String kept(String field, String password, String account) {
        return work.run(Sort.PASSWORD, account, () -> passwords.kept(field, password));
    }
}
