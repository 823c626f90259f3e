package org.youngtally.service.demo;

import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.FirstAccount;
import org.youngtally.service.access.Passwords;
import org.youngtally.service.access.Tokens;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The people and programs of the demo, one of each role. Everybody knows their passwords and tokens: the demo listens
 * on this machine alone.
 */
final class DemoAccounts {
    /** The administrator. */
    static final String FIRST = "hanna";

    private static final LocalDate EXPIRES = LocalDate.of(2027, 12, 31);

    private final Ledger ledger;
    private final List<JsonNode> accounts = new ArrayList<>();

    DemoAccounts(Ledger ledger) throws IOException {
        this.ledger = ledger;
        for (JsonNode account : JsonMapper.shared().readTree(DemoFiles.text("accounts.json"))) accounts.add(account);
    }

    static String password(String name) {
        return "larkmoor-" + name;
    }

    static String token(String name) {
        return "tally-demo-" + name;
    }

    /** Those beside the administrator, with what they are. */
    List<String> others() {
        return accounts.stream()
                .filter(account -> !name(account).equals(FIRST))
                .map(account -> name(account) + " ("
                        + account.get("title")
                                .stringValue()
                                .replaceFirst("^[^,]*, ", "")
                                .replaceFirst("^The ", "the ") + ")")
                .toList();
    }

    void openFirst() {
        open(FIRST::equals, "first-start");
    }

    /** Those whose grants name what has to be defined first. */
    void openOthers() {
        open(name -> !name.equals(FIRST), FIRST);
    }

    private void open(Predicate<String> wanted, String by) {
        var passwords = new Passwords();
        for (JsonNode account : accounts) {
            String name = name(account);
            if (!wanted.test(name) || ledger.snapshot().accounts().containsKey(name)) continue;
            Account.Sort sort =
                    Account.Sort.of(account.get("sort").stringValue()).orElseThrow();
            var grants = new ArrayList<Grant>();
            for (JsonNode grant : account.get("grants")) {
                String[] parts = grant.stringValue().split(" for ", 2);
                grants.add(new Grant(
                        Right.of(parts[0]).orElseThrow(), Scope.of(parts[1]).orElseThrow()));
            }
            FirstAccount.change(
                    ledger,
                    by,
                    name,
                    new AccountChange.Open(
                            account.get("title").stringValue(),
                            sort,
                            sort == Account.Sort.PERSON
                                    ? Optional.of(passwords.kept("password", password(name)))
                                    : Optional.empty(),
                            grants),
                    "opened, a " + sort.word());
            String hash = Tokens.hash(token(name));
            FirstAccount.change(
                    ledger,
                    by,
                    name,
                    new AccountChange.Issue(
                            new Token(hash.substring(0, 8), "The demo", hash, ledger.now(), EXPIRES, Optional.empty())),
                    "the token " + hash.substring(0, 8) + " ‘The demo’ until " + EXPIRES);
        }
    }

    private static String name(JsonNode account) {
        return account.get("name").stringValue();
    }
}
