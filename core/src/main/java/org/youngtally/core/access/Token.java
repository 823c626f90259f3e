package org.youngtally.core.access;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;

/**
 * By what a program shows who it is. The token itself is shown once and kept nowhere.
 *
 * @param id by which it is revoked: unique within its account
 * @param name what it is for
 * @param hash SHA-256 of the token, in hexadecimal
 * @param expires the last day on which it is taken, in the service's time zone
 */
public record Token(String id, String name, String hash, Instant issued, LocalDate expires, Optional<Instant> revoked) {
    Token revokedAt(Instant instant) {
        return new Token(id, name, hash, issued, expires, Optional.of(instant));
    }
}
