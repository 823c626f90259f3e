package org.youngtally.core.access;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.youngtally.core.organisation.Organisation;

class AccountDecisionTest {
    private static final Grant KEEPS = new Grant(Right.ACCESS, Scope.ALL);
    private static final Grant READS = new Grant(Right.READ, Scope.series("customer"));
    private final Map<String, Account> accounts = new LinkedHashMap<>();

    private AccountDecision.Result change(String name, AccountChange change) {
        AccountDecision.Result result =
                AccountDecision.decide(accounts, Organisation.NONE, List.of("customer"), name, change);
        if (result instanceof AccountDecision.Result.Done done) accounts.put(name, done.account());
        return result;
    }

    private AccountRefusal refusal(String name, AccountChange change) {
        return ((AccountDecision.Result.Refused) change(name, change)).refusal();
    }

    private AccountDecisionTest() {
        change("ada", new AccountChange.Open("Ada", Account.Sort.PERSON, Optional.of("hash"), List.of(KEEPS)));
    }

    @Test
    void somebodyIsAlwaysLeftWhoManagesAccess() {
        assertThat(refusal("ada", new AccountChange.Close())).isEqualTo(new AccountRefusal.LastKeeper("ada"));
        assertThat(refusal("ada", new AccountChange.Withdraw(List.of(KEEPS))))
                .isEqualTo(new AccountRefusal.LastKeeper("ada"));
        change("job", new AccountChange.Open("", Account.Sort.PROGRAM, Optional.empty(), List.of(KEEPS)));
        assertThat(refusal("ada", new AccountChange.Close()))
                .as("a program cannot sign in and manage")
                .isEqualTo(new AccountRefusal.LastKeeper("ada"));
        change("bob", new AccountChange.Open("Bob", Account.Sort.PERSON, Optional.of("hash"), List.of(KEEPS)));
        change("ada", new AccountChange.Close());
        assertThat(accounts.get("ada").closed()).isTrue();
        assertThat(refusal("bob", new AccountChange.Close())).isEqualTo(new AccountRefusal.LastKeeper("bob"));
    }

    @Test
    void grantsAreGivenOnceAndNameWhatThereIs() {
        change("ada", new AccountChange.Give(List.of(READS)));
        int version = accounts.get("ada").version();
        change("ada", new AccountChange.Give(List.of(READS)));
        assertThat(accounts.get("ada"))
                .returns(version, Account::version)
                .returns(List.of(KEEPS, READS), Account::grants);
        assertThat(refusal("ada", new AccountChange.Give(List.of(new Grant(Right.READ, Scope.series("custome"))))))
                .isEqualTo(new AccountRefusal.UnknownScope(Scope.series("custome"), Optional.of("customer")));
        change("ada", new AccountChange.Withdraw(List.of(READS)));
        assertThat(accounts.get("ada").grants()).containsExactly(KEEPS);
    }

    @Test
    void aNameStandsForOneAccountForEver() {
        assertThat(refusal("ada", new AccountChange.Open("Other", Account.Sort.PERSON, Optional.empty(), List.of())))
                .isEqualTo(new AccountRefusal.Exists("ada"));
        assertThat(refusal("clock", new AccountChange.Open("", Account.Sort.PERSON, Optional.empty(), List.of())))
                .isInstanceOf(AccountRefusal.NameFaulty.class);
        assertThat(refusal(
                        "Ada Lovelace", new AccountChange.Open("", Account.Sort.PERSON, Optional.empty(), List.of())))
                .isInstanceOf(AccountRefusal.NameFaulty.class);
        assertThat(refusal("adda", new AccountChange.Close()))
                .isEqualTo(new AccountRefusal.Unknown("adda", Optional.of("ada")));
    }

    @Test
    void aTokenIsRevokedOnceAndKept() {
        Instant now = Instant.parse("2026-03-02T09:00:00Z");
        var token = new Token("1", "till", "abc", now, LocalDate.of(2026, 12, 31), Optional.empty());
        change("ada", new AccountChange.Issue(token));
        change("ada", new AccountChange.Revoke("1", now.plusSeconds(60)));
        change("ada", new AccountChange.Revoke("1", now.plusSeconds(120)));
        assertThat(accounts.get("ada").token("1")).contains(token.revokedAt(now.plusSeconds(60)));
        assertThat(refusal("ada", new AccountChange.Revoke("2", now)))
                .isEqualTo(new AccountRefusal.UnknownToken("ada", "2"));
    }

    @Test
    void tokensThatEndedLongAgoAreForgottenAndThereAreNotTooMany() {
        Instant now = Instant.parse("2026-03-02T09:00:00Z");
        for (int i = 0; i < 500; i++)
            change(
                    "ada",
                    new AccountChange.Issue(
                            new Token("" + i, "till", "hash" + i, now, LocalDate.of(2026, 3, 2), Optional.empty())));
        assertThat(refusal(
                        "ada",
                        new AccountChange.Issue(
                                new Token("more", "till", "x", now, LocalDate.of(2026, 3, 2), Optional.empty()))))
                .isEqualTo(new AccountRefusal.TooManyTokens("ada", 500));
        change(
                "ada",
                new AccountChange.Issue(new Token(
                        "later",
                        "till",
                        "y",
                        now.plusSeconds(31 * 86_400L),
                        LocalDate.of(2026, 12, 31),
                        Optional.empty())));
        assertThat(accounts.get("ada").tokens()).extracting(Token::id).containsExactly("later");
    }

    @Test
    void aProgramHasNoPasswordAndAClosedAccountIsNotChanged() {
        change("job", new AccountChange.Open("Job", Account.Sort.PROGRAM, Optional.empty(), List.of()));
        assertThat(refusal("job", new AccountChange.NewPassword("hash", Instant.EPOCH, Optional.empty())))
                .isEqualTo(new AccountRefusal.NoPassword("job"));
        change("job", new AccountChange.Close());
        assertThat(refusal("job", new AccountChange.Give(List.of(READS)))).isEqualTo(new AccountRefusal.Closed("job"));
        change("job", new AccountChange.Reopen());
        assertThat(accounts.get("job").closed()).isFalse();
    }
}
