package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Token;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Callers;
import org.youngtally.service.access.OpenToAll;
import org.youngtally.service.access.Passwords;
import org.youngtally.service.access.SignIn;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** Signing in and out, and what somebody may do about their own account. */
@RestController
@RequestMapping(Api.V1 + "/session")
class SessionController {
    private final Ledger ledger;
    private final Callers callers;
    private final SignIn signIn;
    private final CsrfTokenRepository secrets;

    SessionController(Ledger ledger, Callers callers, SignIn signIn, CsrfTokenRepository secrets) {
        this.ledger = ledger;
        this.callers = callers;
        this.signIn = signIn;
        this.secrets = secrets;
    }

    record SignInRequest(String account, String password) {}

    /**
     * @param secret what a browser's requests that change something show as X-CSRF-TOKEN; absent for one who shows a
     *     token
     */
    record SessionView(
            String account,
            String title,
            List<AccountController.GrantView> grants,
            @Nullable String secret) {}

    @PostMapping
    @OpenToAll
    @Operation(
            operationId = "signIn",
            summary =
                    "Sign in with a password: the answer sets a cookie for the browser, valid until it signs out, or for eight hours after its last request")
    SessionView signIn(@RequestBody SignInRequest request, HttpServletRequest http, HttpServletResponse response) {
        if (request.account() == null || request.account().isBlank())
            throw new Problem(Type.MALFORMED, "No account is named.").field("account", "the name of an account");
        if (request.password() == null || request.password().isEmpty())
            throw new Problem(Type.MALFORMED, "The password is missing.")
                    .field("password", "the password of the account");
        String name = request.account().strip();
        Account account = signIn.proved(name, request.password(), http);
        callers.begin(http, account);
        CsrfToken secret = secrets.generateToken(http);
        secrets.saveToken(secret, http, response);
        return view(account, secret);
    }

    private static SessionView view(Account account, CsrfToken secret) {
        return new SessionView(
                account.name(),
                account.title(),
                account.grants().stream().map(AccountController.GrantView::of).toList(),
                secret == null ? null : secret.getToken());
    }

    @GetMapping
    @SignedIn
    @Operation(operationId = "showSession", summary = "The account of this request, and what it may do")
    SessionView show(Caller caller, HttpServletRequest http) {
        return view(caller.account(), caller.bySession() ? secrets.loadToken(http) : null);
    }

    @DeleteMapping
    @OpenToAll
    @Operation(operationId = "signOut", summary = "Sign out: the session ends")
    ResponseEntity<Void> signOut(HttpServletRequest http) {
        HttpSession session = http.getSession(false);
        if (session != null) session.invalidate();
        return ResponseEntity.noContent().build();
    }

    /**
     * @param current the current password
     * @param password the new one
     */
    record NewPassword(String current, String password) {}

    @PutMapping("/password")
    @SignedIn
    @Operation(
            operationId = "changePassword",
            summary = "Change one's own password; every other session and token of the account ends")
    ResponseEntity<Void> changePassword(@RequestBody NewPassword request, Caller caller, HttpServletRequest http) {
        if (request.current() == null || request.password() == null)
            throw new Problem(Type.MALFORMED, "A password is missing.")
                    .field(request.current() == null ? "current" : "password", "the current password, and the new one");
        signIn.proved(caller.name(), request.current(), http);
        Passwords.refuseWeak("password", request.password(), caller.account());
        Requests.changed(
                ledger,
                caller,
                caller.name(),
                new AccountChange.NewPassword(
                        signIn.kept("password", request.password(), caller.name()),
                        ledger.now(),
                        caller.token().map(Token::id)),
                "a new password, by oneself");
        if (caller.bySession()) callers.stamp(http, ledger.snapshot().accounts().get(caller.name()));
        return ResponseEntity.noContent().build();
    }
}
