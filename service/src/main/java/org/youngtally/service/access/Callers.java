package org.youngtally.service.access;

import jakarta.servlet.ServletRequest;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.time.LocalDate;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Token;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/**
 * Finds out who asks, by a token or by the session of somebody who signed in. Who it is stands with the request for
 * {@link NeedsCheck} to look at.
 */
@Component
public final class Callers {
    private static final String ATTRIBUTE = Caller.class.getName();
    private static final String BEARER = "Bearer ";
    private static final String NAME = "account";
    /** What the password was turned into when the session began: a new password ends every session. */
    private static final String STAMP = "stamp";

    private static final Logger LOG = LoggerFactory.getLogger(Callers.class);

    private final Ledger ledger;

    Callers(Ledger ledger) {
        this.ledger = ledger;
    }

    /** Who asks, if they have shown who they are. */
    public static Optional<Caller> of(ServletRequest request) {
        return Optional.ofNullable((Caller) request.getAttribute(ATTRIBUTE));
    }

    /** @throws Problem where a token is shown that is not taken */
    void find(HttpServletRequest request) {
        String shown = request.getHeader(HttpHeaders.AUTHORIZATION);
        Optional<Caller> caller = shown != null ? Optional.of(byToken(shown)) : bySession(request);
        caller.ifPresent(known -> request.setAttribute(ATTRIBUTE, known));
    }

    /**
     * @param shown the Authorization header
     * @throws Problem where it has no token that is accepted
     */
    public Caller byToken(String shown) {
        if (!shown.regionMatches(true, 0, BEARER, 0, BEARER.length()))
            throw refused("The Authorization header has no token.");
        LedgerSnapshot snapshot = ledger.snapshot();
        LedgerSnapshot.Shown known = snapshot.byToken()
                .get(Tokens.hash(shown.substring(BEARER.length()).strip()));
        if (known == null) throw refused("Unknown token.");
        Account account = known.account();
        Token token = known.token();
        if (token.revoked().isPresent())
            throw refused("The token ‘" + token.name() + "’ of ‘" + account.name() + "’ was revoked on "
                    + LocalDate.ofInstant(token.revoked().get(), ledger.zone()) + ".");
        if (ledger.today().isAfter(token.expires()))
            throw refused(
                    "The token ‘" + token.name() + "’ of ‘" + account.name() + "’ expired on " + token.expires() + ".");
        if (account.closed()) throw refused("The account ‘" + account.name() + "’ is closed.");
        return new Caller(account, snapshot, Optional.of(token));
    }

    private static Problem refused(String detail) {
        return new Problem(Type.SIGN_IN_NEEDED, detail).field("Authorization", "Bearer, a blank and a valid token");
    }

    private Optional<Caller> bySession(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session == null || session.getAttribute(NAME) == null) return Optional.empty();
        LedgerSnapshot snapshot = ledger.snapshot();
        Account account = snapshot.accounts().get((String) session.getAttribute(NAME));
        if (account == null
                || account.closed()
                || !account.password().equals(Optional.of((String) session.getAttribute(STAMP)))) {
            session.invalidate();
            return Optional.empty();
        }
        return Optional.of(new Caller(account, snapshot, Optional.empty()));
    }

    /** Whether whoever asked is still let in as they were: the token is in force, or the session goes on. */
    public BooleanSupplier stands(HttpServletRequest request) {
        Caller caller = of(request).orElseThrow();
        if (caller.token().isPresent()) {
            String hash = caller.token().get().hash();
            return () -> {
                LedgerSnapshot.Shown shown = ledger.snapshot().byToken().get(hash);
                return shown != null
                        && !shown.account().closed()
                        && shown.token().revoked().isEmpty()
                        && !ledger.today().isAfter(shown.token().expires());
            };
        }
        HttpSession session = request.getSession(false);
        return () -> {
            Account account = ledger.snapshot().accounts().get(caller.name());
            try {
                return session != null
                        && account != null
                        && !account.closed()
                        && account.password().equals(Optional.of((String) session.getAttribute(STAMP)));
            } catch (IllegalStateException e) {
                LOG.debug("a session has ended", e);
                return false;
            }
        };
    }

    /** Begins a session, with an address of its own that nobody could have known before. */
    public void begin(HttpServletRequest request, Account account) {
        request.getSession(true);
        request.changeSessionId();
        stamp(request, account);
        request.setAttribute(ATTRIBUTE, new Caller(account, ledger.snapshot(), Optional.empty()));
    }

    /** Lets a session go on under a new password. */
    public void stamp(HttpServletRequest request, Account account) {
        HttpSession session = request.getSession(true);
        session.setAttribute(NAME, account.name());
        session.setAttribute(STAMP, account.password().orElseThrow());
    }
}
