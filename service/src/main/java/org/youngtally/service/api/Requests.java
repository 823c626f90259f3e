package org.youngtally.service.api;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.springframework.http.MediaType;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.access.Caller;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;

/** Reads the parts that requests have in common, and turns refusals into problems. */
final class Requests {
    private static final int FIRST_YEAR = 1_000;
    private static final int LAST_YEAR = 9_999;
    private static final int LONGEST_NAME = 200;
    private static final int LONGEST_NOTE = 500;

    private Requests() {}

    static Optional<LocalDate> date(String text) {
        return date("date", text);
    }

    static Optional<LocalDate> date(String field, String text) {
        if (text == null) return Optional.empty();
        try {
            LocalDate date = LocalDate.parse(text);
            if (date.getYear() < FIRST_YEAR || date.getYear() > LAST_YEAR)
                throw new Problem(Type.MALFORMED, "‘" + text + "’ is out of bounds.")
                        .field(field, "a date from " + FIRST_YEAR + " to " + LAST_YEAR + ", or none");
            return Optional.of(date);
        } catch (DateTimeParseException e) {
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a date of the calendar.")
                    .field(field, "year-month-day, such as 2026-01-31, or none");
        }
    }

    /** A reference or a key: absent, or a text without control symbols. */
    static Optional<String> name(String field, String text) {
        if (text == null) return Optional.empty();
        if (text.isBlank() || text.length() > LONGEST_NAME || text.chars().anyMatch(Character::isISOControl))
            throw new Problem(
                            Type.MALFORMED,
                            "The " + field + " is "
                                    + (text.isBlank()
                                            ? "empty"
                                            : text.length() > LONGEST_NAME
                                                    ? text.length() + " symbols long"
                                                    : "holding control symbols")
                                    + ".")
                    .field(field, "1 to " + LONGEST_NAME + " visible symbols, or none");
        return Optional.of(text);
    }

    /** A series that exists, as far as the caller may know. */
    static Series series(Caller caller, String key) {
        Series found = caller.snapshot().series().get(key);
        if (found == null || !caller.knows(key)) throw caller.unknownSeries(key);
        return found;
    }

    /**
     * Of what somebody may look at: the series that is named, or all that may be read.
     *
     * @return absent for all there is
     */
    static Optional<Collection<String>> readable(Caller caller, String series) {
        if (series != null) {
            series(caller, series);
            caller.need(Right.READ, Where.series(series));
            return Optional.of(List.of(series));
        }
        return caller.readsAll()
                ? Optional.empty()
                : Optional.of(caller.snapshot().series().keySet().stream()
                        .filter(caller::reads)
                        .toList());
    }

    /** The fields of a record and its unit, which is a field too. */
    static SortedMap<String, String> fields(Map<String, String> fields, String unit) {
        var all = new TreeMap<String, String>();
        if (fields != null) fields.forEach((name, text) -> all.put(name, readable("fields." + name, text)));
        if (unit != null && all.put(Particulars.UNIT, readable("unit", unit)) != null)
            throw new Problem(Type.MALFORMED, "The unit is set twice.").field("unit", "the unit once");
        return all;
    }

    private static String readable(String field, String text) {
        if (text == null || text.chars().anyMatch(Character::isISOControl))
            throw new Problem(
                            Type.MALFORMED, "The field is " + (text == null ? "null" : "holding control symbols") + ".")
                    .field(field, "a text on one line");
        return text;
    }

    /** By which a request is known: a date left out and a date given are two requests. */
    static RequestMark mark(String actor, String key, RequestText asked) {
        return new RequestMark(actor, name(Api.KEY, key), asked.digest());
    }

    /** Of an act that is decided and not performed. */
    static RequestMark unmarked() {
        return mark("", null, RequestText.of(""));
    }

    /**
     * A file that is the body of a request. What is called a form is read as one before it comes here, and nothing is
     * left of it.
     */
    static InputStream file(HttpServletRequest request) throws IOException {
        String type = request.getContentType();
        if (type != null && type.toLowerCase(Locale.ROOT).startsWith(MediaType.APPLICATION_FORM_URLENCODED_VALUE))
            throw new Problem(Type.MALFORMED, "The file was sent as a form. Nothing was done.")
                    .field("Content-Type", "the type of the file, or " + MediaType.APPLICATION_OCTET_STREAM_VALUE);
        return request.getInputStream();
    }

    /** What somebody has to say: a reason, a holder. */
    static Optional<String> note(String field, String text) {
        if (text == null || text.isBlank()) return Optional.empty();
        if (text.length() > LONGEST_NOTE || text.chars().anyMatch(Character::isISOControl))
            throw new Problem(
                            Type.MALFORMED,
                            "The " + field + " is "
                                    + (text.length() > LONGEST_NOTE
                                            ? text.length() + " symbols long"
                                            : "holding control symbols")
                                    + ".")
                    .field(field, "up to " + LONGEST_NOTE + " visible symbols");
        return Optional.of(text.strip());
    }

    static Optional<Duration> duration(String field, String text) {
        if (text == null || text.isBlank()) return Optional.empty();
        try {
            return Optional.of(Duration.parse(text.strip()));
        } catch (DateTimeParseException | ArithmeticException e) {
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a duration.")
                    .field(field, "an ISO 8601 duration in days or less, such as PT15M or P2D");
        }
    }

    /** What became of numbers or of a period. */
    static Settlement settled(Ledger ledger, Act<Answer.Settlement> act, String actor) {
        return switch (perform(ledger, act, actor)) {
            case Outcome.Settled settled -> Settlement.of(settled.entry(), settled.repeated());
            case Outcome.Refused<Answer.Settlement> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    /**
     * Changes an account.
     *
     * @param note what is done, in words
     * @return the account as it is from now on
     */
    static Account changed(Ledger ledger, Caller caller, String account, AccountChange change, String note) {
        var act = new Act.ChangeAccount(
                account,
                change,
                note,
                mark(caller.name(), null, RequestText.of("ACCESS").part(account).part(note)));
        return switch (perform(ledger, act, caller.name())) {
            case Outcome.Changed changed -> changed.account();
            case Outcome.Refused<Answer.AccountState> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    /** Performs an act; where the ledger cannot answer it becomes a problem. */
    static <A extends Answer> Outcome<A> perform(Ledger ledger, Act<A> act, String actor) {
        try {
            return ledger.perform(act, actor);
        } catch (LedgerUnavailable e) {
            throw Refusals.problem(e);
        }
    }

    /** Defines; a refusal becomes a problem. */
    static Outcome.Defined defined(Ledger ledger, Act<Answer.Definitions> act, String actor) {
        return switch (perform(ledger, act, actor)) {
            case Outcome.Defined defined -> defined;
            case Outcome.Refused<Answer.Definitions> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    /** The version that is replaced, as {@link #expected} reads it; a request that names none is refused. */
    static Optional<Integer> replaced(String match, String noneMatch) {
        if (match == null && noneMatch == null) throw versionNeeded();
        return expected(match, noneMatch);
    }

    static Problem versionNeeded() {
        return new Problem(Type.VERSION_NEEDED, "If-Match is missing. Nothing was done.")
                .field("If-Match", "the ETag of the version to replace, such as \"3\"; If-None-Match: * for a new one");
    }

    /** The version that a definition is to have now: 0 for one that is not to exist yet; absent for whichever. */
    static Optional<Integer> expected(String match, String noneMatch) {
        if (noneMatch != null && !noneMatch.equals("*"))
            throw new Problem(Type.MALFORMED, "If-None-Match is ‘" + noneMatch + "’.")
                    .field("If-None-Match", "*, for a new definition");
        if (noneMatch != null) return Optional.of(0);
        if (match == null || match.equals("*")) return Optional.empty();
        if (!match.matches("\"[0-9]{1,9}\""))
            throw new Problem(Type.MALFORMED, "If-Match is ‘" + match + "’.")
                    .field("If-Match", "the ETag of the definition, such as \"3\"");
        return Optional.of(Integer.valueOf(match.substring(1, match.length() - 1)));
    }

    /** Fields as they are in an address: NAME=VALUE. */
    static Map<String, String> fields(List<String> given) {
        var fields = new TreeMap<String, String>();
        for (String each : given == null ? List.<String>of() : given) {
            int equals = each.indexOf('=');
            if (equals < 1 || fields.put(each.substring(0, equals), each.substring(equals + 1)) != null)
                throw new Problem(
                                Type.MALFORMED,
                                "‘" + each + "’ " + (equals < 1 ? "is not a field" : "sets a field twice") + ".")
                        .field("field", "NAME=VALUE, once for each field");
        }
        return fields;
    }

    /**
     * What a number would be taken for.
     *
     * @param fields as they were given; none where they are not known yet
     */
    static Particulars particulars(Series series, LocalDate date, Map<String, String> fields, LedgerSnapshot snapshot) {
        if (fields.isEmpty()) return Particulars.on(date);
        return switch (Fields.of(series, snapshot::choices).read(fields)) {
            case Fields.Reading.Faulty faulty ->
                throw Refusals.problem(new Refusal.FieldFaulty(series.key(), faulty.fault()));
            case Fields.Reading.Understood understood -> new Particulars(date, understood.fields());
        };
    }
}
