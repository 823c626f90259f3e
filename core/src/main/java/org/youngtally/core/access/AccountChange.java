package org.youngtally.core.access;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** What is done to an account. */
public sealed interface AccountChange {
    /** It comes into being. */
    record Open(String title, Account.Sort sort, Optional<String> password, List<Grant> grants)
            implements AccountChange {
        public Open {
            grants = List.copyOf(grants);
        }
    }

    /**
     * Every token of the account ends with the password before, since whoever knew that may have issued it.
     *
     * @param hash what the new password was turned into
     * @param at when
     * @param shown the token by which it is asked, which goes on
     */
    record NewPassword(String hash, Instant at, Optional<String> shown) implements AccountChange {}

    record Give(List<Grant> grants) implements AccountChange {
        public Give {
            grants = List.copyOf(grants);
        }
    }

    record Withdraw(List<Grant> grants) implements AccountChange {
        public Withdraw {
            grants = List.copyOf(grants);
        }
    }

    /** It may do nothing any more. */
    record Close() implements AccountChange {}

    record Reopen() implements AccountChange {}

    record Issue(Token token) implements AccountChange {}

    /** @param at when */
    record Revoke(String token, Instant at) implements AccountChange {}
}
