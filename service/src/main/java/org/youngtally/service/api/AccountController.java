package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import java.time.Instant;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.AccountRefusal;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.Passwords;
import org.youngtally.service.access.SignIn;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.access.Tokens;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/** Accounts, their grants and their tokens. */
@RestController
@RequestMapping(Api.V1 + "/accounts")
class AccountController {
    private static final int USUAL_DAYS = 90;
    private static final int LONGEST_DAYS = 1_100;

    private final Ledger ledger;
    private final SignIn signIn;

    AccountController(Ledger ledger, SignIn signIn) {
        this.ledger = ledger;
        this.signIn = signIn;
    }

    /**
     * @param right define, allocate, hold, void, read, audit or access
     * @param scope all, unit KEY, kind KEY or series KEY
     */
    record GrantView(String right, String scope) {
        static GrantView of(Grant grant) {
            return new GrantView(grant.right().word(), grant.scope().toString());
        }

        private Grant grant() {
            Right known = Right.of(String.valueOf(right)).orElseThrow(() -> new Problem(
                            Type.MALFORMED,
                            "‘" + right + "’ is not a right."
                                    + NearestName.to(String.valueOf(right), words())
                                            .map(near -> " Did you mean ‘" + near + "’?")
                                            .orElse(""))
                    .field("grants.right", String.join(", ", words())));
            Scope where = Scope.of(String.valueOf(scope))
                    .orElseThrow(() -> new Problem(Type.MALFORMED, "‘" + scope + "’ is not a scope.")
                            .field("grants.scope", "all, unit KEY, kind KEY or series KEY"));
            return new Grant(known, where);
        }

        private static List<String> words() {
            return Arrays.stream(Right.values()).map(Right::word).toList();
        }
    }

    /** @param state in force, expired or revoked */
    record TokenView(
            String id,
            String name,
            Instant issued,
            LocalDate expires,
            String state,
            @Nullable Instant revoked) {}

    /**
     * @param sort person or program
     * @param password whether there is one to sign in with
     */
    record AccountView(
            String name,
            String title,
            String sort,
            boolean closed,
            boolean password,
            List<GrantView> grants,
            List<TokenView> tokens,
            int version) {}

    private AccountView view(Account account) {
        LocalDate today = ledger.today();
        return new AccountView(
                account.name(),
                account.title(),
                account.sort().word(),
                account.closed(),
                account.password().isPresent(),
                account.grants().stream().map(GrantView::of).toList(),
                account.tokens().stream()
                        .map(token -> new TokenView(
                                token.id(),
                                token.name(),
                                token.issued(),
                                token.expires(),
                                token.revoked().isPresent()
                                        ? "revoked"
                                        : today.isAfter(token.expires()) ? "expired" : "in force",
                                token.revoked().orElse(null)))
                        .toList(),
                account.version());
    }

    @GetMapping
    @Needs(value = Right.ACCESS, at = At.SOMEWHERE)
    @Operation(
            operationId = "listAccounts",
            summary =
                    "The accounts that one manages, at least in part: their grants there, and the tokens of those that one manages completely")
    List<AccountView> list(Caller caller) {
        return ledger.snapshot().accounts().values().stream()
                .flatMap(account -> seen(account, caller).stream())
                .toList();
    }

    @GetMapping("/{account}")
    @Needs(value = Right.ACCESS, at = At.SOMEWHERE)
    @Operation(operationId = "showAccount", summary = "One account")
    AccountView show(@PathVariable String account, Caller caller) {
        return seen(found(account), caller).orElseThrow(() -> unknown(account));
    }

    private Account found(String name) {
        Account account = ledger.snapshot().accounts().get(name);
        if (account == null) throw unknown(name);
        return account;
    }

    private static Problem unknown(String name) {
        return Refusals.problem(new Refusal.AccountFaulty(new AccountRefusal.Unknown(name, Optional.empty())));
    }

    /** What somebody may see of an account: all of one that they manage, of others what it may do where they manage. */
    private Optional<AccountView> seen(Account account, Caller caller) {
        AccountView all = view(account);
        if (caller.manages(Scope.ALL)) return Optional.of(all);
        List<GrantView> there = account.grants().stream()
                .filter(grant -> caller.manages(grant.scope()))
                .map(GrantView::of)
                .toList();
        if (there.isEmpty()) return Optional.empty();
        return Optional.of(
                there.size() == all.grants().size()
                        ? all
                        : new AccountView(
                                all.name(),
                                all.title(),
                                all.sort(),
                                all.closed(),
                                all.password(),
                                there,
                                List.of(),
                                all.version()));
    }

    /**
     * @param sort person or program; default: person
     * @param grants its grants; default: none
     */
    record OpeningRequest(
            String name,
            @Nullable String title,
            @Nullable String sort,
            @Nullable List<GrantView> grants) {}

    /** @param password of a person: a random one, shown this once */
    record OpenedView(AccountView account, @Nullable String password) {}

    @PostMapping
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(
            operationId = "openAccount",
            summary = "Open an account. A person gets a random password, a program signs in with tokens only")
    ResponseEntity<OpenedView> open(@RequestBody OpeningRequest request, Caller caller) {
        List<Grant> grants = grants(request.grants() == null ? List.of() : request.grants());
        caller.needToManage(
                grants.isEmpty()
                        ? List.of(Scope.ALL)
                        : grants.stream().map(Grant::scope).toList());
        if (request.name() == null || request.name().isBlank())
            throw new Problem(Type.MALFORMED, "The account has no name.")
                    .field("name", "small letters, digits and hyphens, a letter first");
        Account.Sort sort = request.sort() == null
                ? Account.Sort.PERSON
                : Account.Sort.of(request.sort()).orElseThrow(() -> new Problem(
                                Type.MALFORMED, "‘" + request.sort() + "’ is not a type of account.")
                        .field("sort", "person or program"));
        String password = sort == Account.Sort.PERSON ? Passwords.random() : null;
        var opening = new AccountChange.Open(
                Requests.note("title", request.title()).orElse(""),
                sort,
                Optional.ofNullable(password).map(text -> signIn.kept("password", text, caller.name())),
                grants);
        Account account = Requests.changed(
                ledger,
                caller,
                String.valueOf(request.name()),
                opening,
                "opened, a " + sort.word() + (grants.isEmpty() ? "" : ": " + words(grants)));
        return ResponseEntity.status(HttpStatus.CREATED).body(new OpenedView(view(account), password));
    }

    private static List<Grant> grants(List<GrantView> views) {
        return views.stream().map(GrantView::grant).toList();
    }

    private static String words(List<Grant> grants) {
        String words = grants.stream().map(Grant::toString).collect(Collectors.joining(", "));
        return words.length() <= 400 ? words : words.substring(0, 400) + "…";
    }

    record GrantsRequest(List<GrantView> grants) {
        private List<Grant> wanted() {
            if (grants == null || grants.isEmpty())
                throw new Problem(Type.MALFORMED, "No grant was sent.")
                        .field("grants", "a list of grants, each with right and scope");
            return AccountController.grants(grants);
        }
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/{account}/grants")
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(operationId = "giveGrants", summary = "Grant rights to an account; existing grants stay")
    AccountView give(@PathVariable String account, @RequestBody GrantsRequest request, Caller caller) {
        List<Grant> grants = request.wanted();
        caller.needToManage(grants.stream().map(Grant::scope).toList());
        return view(Requests.changed(ledger, caller, account, new AccountChange.Give(grants), "may " + words(grants)));
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/{account}/withdrawals")
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(operationId = "withdrawGrants", summary = "Revoke grants of an account")
    AccountView withdraw(@PathVariable String account, @RequestBody GrantsRequest request, Caller caller) {
        List<Grant> grants = request.wanted();
        caller.needToManage(grants.stream().map(Grant::scope).toList());
        return view(Requests.changed(
                ledger, caller, account, new AccountChange.Withdraw(grants), "may no longer " + words(grants)));
    }

    /** Who manages all that an account may do may manage the account. */
    private Account managed(String name, Caller caller) {
        Account account = found(name);
        caller.needToManage(account);
        return account;
    }

    @PostMapping("/{account}/closings")
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(
            operationId = "closeAccount",
            summary = "Close an account: it can no longer do anything, and its name is never used again")
    AccountView close(@PathVariable String account, Caller caller) {
        return view(
                Requests.changed(ledger, caller, managed(account, caller).name(), new AccountChange.Close(), "closed"));
    }

    @PostMapping("/{account}/reopenings")
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(operationId = "reopenAccount", summary = "Reopen a closed account, with the grants it had")
    AccountView reopen(@PathVariable String account, Caller caller) {
        return view(Requests.changed(
                ledger, caller, managed(account, caller).name(), new AccountChange.Reopen(), "open again"));
    }

    @PostMapping("/{account}/passwords")
    @Needs(value = Right.ACCESS, at = At.REQUEST)
    @Operation(
            operationId = "renewPassword",
            summary =
                    "Set a new random password for a person, shown only once; every session and token of the account ends")
    OpenedView renew(@PathVariable String account, Caller caller) {
        String password = Passwords.random();
        return new OpenedView(
                view(Requests.changed(
                        ledger,
                        caller,
                        managed(account, caller).name(),
                        new AccountChange.NewPassword(
                                signIn.kept("password", password, caller.name()), ledger.now(), Optional.empty()),
                        "a new password")),
                password);
    }

    /**
     * @param name what it is for
     * @param expires the last day on which it is valid, at most three years ahead; default: in ninety days
     */
    record TokenRequest(String name, @Nullable String expires) {}

    /** @param token the token itself, shown this once */
    record IssuedToken(String token, String id, String account, String name, LocalDate expires) {}

    @PostMapping("/{account}/tokens")
    @SignedIn
    @Operation(
            operationId = "issueToken",
            summary =
                    "Issue a token, for oneself or for an account that one manages; it is shown only once. For oneself a session is required: a token issues none for its own account")
    ResponseEntity<IssuedToken> issue(@PathVariable String account, @RequestBody TokenRequest request, Caller caller) {
        if (!caller.bySession() && account.equals(caller.name())) throw byToken(caller);
        Account of = ownOrManaged(account, caller);
        String name = Requests.name("name", request.name())
                .orElseThrow(() -> new Problem(Type.MALFORMED, "The token has no name.")
                        .field("name", "what it is for, such as: the till in the shop"));
        LocalDate today = ledger.today();
        LocalDate expires = Requests.date("expires", request.expires()).orElse(today.plusDays(USUAL_DAYS));
        if (expires.isBefore(today) || expires.isAfter(today.plusDays(LONGEST_DAYS)))
            throw new Problem(Type.MALFORMED, "A token cannot expire on " + expires + ".")
                    .field("expires", today + " to " + today.plusDays(LONGEST_DAYS));
        String token = Tokens.random();
        var issued = new Token(
                Tokens.hash(token).substring(0, 8), name, Tokens.hash(token), ledger.now(), expires, Optional.empty());
        Requests.changed(
                ledger,
                caller,
                of.name(),
                new AccountChange.Issue(issued),
                "the token " + issued.id() + " ‘" + name + "’ until " + expires);
        return ResponseEntity.status(HttpStatus.CREATED)
                .body(new IssuedToken(token, issued.id(), of.name(), name, expires));
    }

    /** What a token issued for its own account would outlive it, and its revocation. */
    private static Problem byToken(Caller caller) {
        return new Problem(
                        Type.GRANT_MISSING,
                        "A token does not issue further tokens for ‘" + caller.name()
                                + "’, which would be valid longer than itself. Sign in with the password, in the console or with sign-in at a terminal; or ask somebody who manages access.")
                .field("grant", "a session instead of a token")
                .with("right", Right.ACCESS.word());
    }

    private Account ownOrManaged(String account, Caller caller) {
        if (account.equals(caller.name())) return caller.account();
        caller.needSomewhere(Right.ACCESS);
        return managed(account, caller);
    }

    @GetMapping("/{account}/tokens")
    @SignedIn
    @Operation(
            operationId = "listTokens",
            summary =
                    "The tokens of oneself, or of an account that one manages; the secret texts of tokens are not stored")
    List<TokenView> tokens(@PathVariable String account, Caller caller) {
        return view(found(ownOrManaged(account, caller).name())).tokens();
    }

    @DeleteMapping("/{account}/tokens/{token}")
    @SignedIn
    @Operation(
            operationId = "revokeToken",
            summary = "Revoke a token, of oneself or of an account that one manages: it is no longer valid")
    ResponseEntity<Void> revoke(@PathVariable String account, @PathVariable String token, Caller caller) {
        Requests.changed(
                ledger,
                caller,
                ownOrManaged(account, caller).name(),
                new AccountChange.Revoke(token, ledger.now()),
                "the token " + token + " revoked");
        return ResponseEntity.noContent().build();
    }
}
