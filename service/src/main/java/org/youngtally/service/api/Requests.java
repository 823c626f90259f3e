package org.youngtally.service.api;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.Base64;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.RequestMark;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/** Reads the parts that requests have in common, and turns refusals into problems. */
final class Requests {
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_ACTOR = 60;
    private static final int DIGEST_BYTES = 16;

    private Requests() {}

    static Optional<LocalDate> date(String text) {
        if (text == null || text.isEmpty()) return Optional.empty();
        try {
            return Optional.of(LocalDate.parse(text));
        } catch (DateTimeParseException e) {
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a date of the calendar.").field("date", "year-month-day, such as 2026-01-31");
        }
    }

    /** A reference or a key: absent, or a text without control symbols. */
    static Optional<String> name(String field, String text) {
        if (text == null) return Optional.empty();
        if (text.isBlank() || text.length() > LONGEST_NAME || text.chars().anyMatch(Character::isISOControl))
            throw new Problem(Type.MALFORMED, "The " + field + " is " + (text.isBlank() ? "empty" : text.length() > LONGEST_NAME ? text.length() + " symbols long" : "holding control symbols") + ".").field(field, "1 to " + LONGEST_NAME + " symbols that can be seen, or leave it out");
        return Optional.of(text);
    }

    static String actor(String header) {
        if (header == null) return "local";
        if (header.isBlank() || header.length() > LONGEST_ACTOR || header.chars().anyMatch(Character::isISOControl))
            throw new Problem(Type.MALFORMED, "The name of the one who acts is empty, too long or holds control symbols.").field(Api.ACTOR, "1 to " + LONGEST_ACTOR + " symbols that can be seen, or leave it out");
        return header.strip();
    }

    /** A digest of everything that was asked, as it was sent: a date left out and a date given are two requests. */
    static RequestMark mark(String actor, String key, Act.Form form, String series, Optional<LocalDate> date, long quantity, Optional<String> reference) {
        String asked = String.join("\n", form.name(), series, date.map(LocalDate::toString).orElse(""), Long.toString(quantity), reference.orElse(""));
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256").digest(asked.getBytes(StandardCharsets.UTF_8));
            return new RequestMark(actor, name(Api.KEY, key), Base64.getUrlEncoder().withoutPadding().encodeToString(Arrays.copyOf(digest, DIGEST_BYTES)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    /** Performs an act; a refusal becomes a problem. */
    static Outcome perform(Ledger ledger, Act act, String actor) {
        try {
            Outcome outcome = ledger.perform(act, actor);
            if (outcome instanceof Outcome.Refused refused) throw Refusals.problem(refused.refusal());
            return outcome;
        } catch (LedgerUnavailable e) {
            throw Refusals.problem(e);
        }
    }
}
