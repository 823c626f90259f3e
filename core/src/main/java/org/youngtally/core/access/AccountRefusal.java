package org.youngtally.core.access;

import java.util.Optional;
import org.youngtally.core.fault.Fault;

/** Why an account is not changed, as facts. */
public sealed interface AccountRefusal {
    record Unknown(String account, Optional<String> nearest) implements AccountRefusal {}

    record Exists(String account) implements AccountRefusal {}

    record NameFaulty(Fault fault) implements AccountRefusal {}

    /** The account is closed. */
    record Closed(String account) implements AccountRefusal {}

    /** A grant names a unit, kind or series that does not exist. */
    record UnknownScope(Scope scope, Optional<String> nearest) implements AccountRefusal {}

    /** Nobody would be left who manages access for all. */
    record LastKeeper(String account) implements AccountRefusal {}

    /** The account has as many tokens as it can. */
    record TooManyTokens(String account, int most) implements AccountRefusal {}

    record UnknownToken(String account, String token) implements AccountRefusal {}

    /** A program signs in with tokens alone. */
    record NoPassword(String account) implements AccountRefusal {}
}
