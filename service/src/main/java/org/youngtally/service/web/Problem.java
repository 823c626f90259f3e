package org.youngtally.service.web;

import java.net.URI;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;

/**
 * A refusal on its way out, as problem details by RFC 9457: a stable type, what happened, and where it can be said the
 * field at fault and what would be accepted.
 */
public final class Problem extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** The sorts of problem; the type's address ends in the code, and explains it. */
    public enum Type {
        UNKNOWN_SERIES(
                "unknown-series",
                HttpStatus.NOT_FOUND,
                "There is no such series",
                "The key names no series. The detail names the closest one there is."),
        UNKNOWN_IDENTIFIER(
                "unknown-identifier",
                HttpStatus.NOT_FOUND,
                "This identifier was never given",
                "No series of this service has given the identifier."),
        UNKNOWN_PLACE(
                "unknown-place",
                HttpStatus.NOT_FOUND,
                "There is nothing here",
                "The address or the method is not one of the service's; /api/openapi.json lists those that are."),
        QUANTITY(
                "quantity-out-of-bounds",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "This many cannot be taken at once",
                "Numbers that stand alone are taken from 1 to 10,000 at a time; more are taken as a block."),
        DATE_NOT_SERVED(
                "date-not-served",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "No range serves this date",
                "Each range of a series serves the dates from its opening to its closing; the business date lies in none of them."),
        EXHAUSTED(
                "exhausted",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The ranges for this date have run out",
                "The ranges that serve the date have fewer positions left than were asked for. Nothing was taken."),
        FIELD_FAULTY(
                "field-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "A field cannot be taken",
                "A field of the record is missing, unknown, or holds what the series cannot take. Nothing was taken."),
        NO_BLOCKS(
                "no-blocks",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The series gives no blocks",
                "A series whose proof is waived or whose marks come round again gives numbers that stand alone, and no blocks."),
        TYPED(
                "typed-number",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The typed number cannot be taken",
                "It is not one of the series, has a wrong check digit, or is taken; or the series wants its numbers counted, or typed. Nothing was taken."),
        NOT_CHRONOLOGICAL(
                "not-chronological",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The date lies before one that was given",
                "The series follows the calendar: no number may be dated before the one given last in its lane."),
        UNFIT(
                "unfit-state",
                HttpStatus.CONFLICT,
                "A number is not in a state for this",
                "What is held can be confirmed or released; what is issued can be returned; numbers of a block are reported once. Nothing was changed."),
        UNKNOWN_TAKING(
                "unknown-taking",
                HttpStatus.NOT_FOUND,
                "No numbers were taken so",
                "The entry, block or reference names no numbers of the series."),
        NO_RETURNS(
                "no-returns",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The series takes nothing back",
                "The definition refuses returns; a number can be voided."),
        REASON_MISSING(
                "reason-missing",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "There is no reason",
                "Voiding a number and opening a closed period are done with a reason, which stands in the ledger."),
        DATE_CLOSED(
                "date-closed",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The date lies in a closed period",
                "Nothing is given any more that is dated inside a closed period."),
        STILL_HELD(
                "still-held",
                HttpStatus.CONFLICT,
                "Numbers inside the period are still held",
                "A period is closed once everything inside it was confirmed or released, or has lapsed."),
        CLOSED_ALREADY(
                "closed-already",
                HttpStatus.CONFLICT,
                "Some of the period is closed already",
                "Closed periods of one series or namespace do not overlap."),
        UNKNOWN_CLOSING(
                "unknown-closing",
                HttpStatus.NOT_FOUND,
                "There is no such closing",
                "The number is not that of an entry which closed a period, or it was opened again."),
        UNKNOWN_STARTER(
                "unknown-starter",
                HttpStatus.NOT_FOUND,
                "There is no such starter set",
                "The name is not that of a starter set. The detail names the closest one there is."),
        UNKNOWN_ROUTE(
                "unknown-route",
                HttpStatus.NOT_FOUND,
                "There is no such route",
                "No route stands for this kind in this unit under this condition."),
        UNKNOWN_KIND(
                "unknown-kind",
                HttpStatus.NOT_FOUND,
                "There is no such kind or unit",
                "The kind of record or the unit is not defined. The detail names the closest one there is."),
        NO_ROUTE(
                "no-route",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "No rule says which series numbers this record",
                "Neither the unit nor one above it has a route for records of this kind whose condition holds. The detail names who can add one. Nothing was taken."),
        ROUTE_MOVED(
                "route-moved",
                HttpStatus.CONFLICT,
                "The rules have changed meanwhile",
                "Between the look at the rules and the taking of the number somebody changed a route or the record's fields. Nothing was done; the same request finds the series that serves now."),
        UNKNOWN_RECORD(
                "unknown-record",
                HttpStatus.NOT_FOUND,
                "There is no such record",
                "No record has this number. Records are found by their identifiers, by what they are known by, and by the words of their texts."),
        RECORD_DELETED(
                "record-deleted",
                HttpStatus.CONFLICT,
                "The record was deleted",
                "A deleted record stays as it is, with its history; nothing is changed about it any more."),
        NOT_IN_UNIT(
                "not-in-unit",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The record does not stand in this unit",
                "A record is changed in a unit in which it stands; another unit takes it over first."),
        IN_UNIT_ALREADY(
                "in-unit-already",
                HttpStatus.CONFLICT,
                "The record stands in this unit already",
                "A record stands in a unit once, with one number in all of them."),
        DISAGREEING(
                "disagreeing",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The units would not agree",
                "Some fields of a shared record are the same in all units in which it stands: those that its kind names under agree, those by which it is known, and those of which its number is made."),
        KNOWN_ALREADY(
                "known-already",
                HttpStatus.CONFLICT,
                "Another record is known by this",
                "What a record is known by belongs to one record of its kind."),
        UNKNOWN_FILE(
                "unknown-file", HttpStatus.NOT_FOUND, "There is no such file", "The record has no file in this place."),
        TABLE_FAULTY(
                "table-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The table cannot be filled",
                "The file is no table of this format, a column is missing, or a row cannot be numbered. Nothing was taken."),
        UNKNOWN_ACCOUNT(
                "unknown-account",
                HttpStatus.NOT_FOUND,
                "There is no such account or token",
                "No account has the name, or it has no such token."),
        ACCOUNT_FAULTY(
                "account-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The account cannot be changed so",
                "The detail says what stands against it. Nothing was changed."),
        SIGN_IN_NEEDED(
                "sign-in-needed",
                HttpStatus.UNAUTHORIZED,
                "It is not known who asks",
                "Every request shows a token, or the session of somebody who has signed in; this one shows neither, or one that is not taken."),
        SIGN_IN_REFUSED(
                "sign-in-refused",
                HttpStatus.UNAUTHORIZED,
                "The account and the password do not go together",
                "There is no such account, it is closed, it has no password, or the password is another one; which of them is not said."),
        SIGN_IN_LATER(
                "sign-in-later",
                HttpStatus.TOO_MANY_REQUESTS,
                "Too many wrong passwords",
                "After several wrong passwords an account can be tried again only after a while, which grows with each further one."),
        GRANT_MISSING(
                "grant-missing",
                HttpStatus.FORBIDDEN,
                "A grant is missing",
                "The account may not do this there. The detail names the grant that would do, and who can give it."),
        SESSION_FORGED(
                "session-forged",
                HttpStatus.FORBIDDEN,
                "The request does not come from the console",
                "A request that changes something and shows a session must also show that session's secret, which no other page can know."),
        UNKNOWN_CODEBOOK(
                "unknown-codebook",
                HttpStatus.NOT_FOUND,
                "There is no such codebook",
                "The key names no codebook. The detail names the closest one there is."),
        KEY_REUSED(
                "key-reused",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The key stands for another request",
                "An Idempotency-Key stands for one request for ever. The same request under it gets the same answer; another needs a key of its own."),
        REFERENCE_REUSED(
                "reference-reused",
                HttpStatus.CONFLICT,
                "The reference stands for another request",
                "A reference is unique in its series. The same request under it gets the same answer."),
        DEFINITIONS_FAULTY(
                "definitions-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The definitions do not hold",
                "At least one definition has a fault; none was taken. The faults are listed, each with its place."),
        VERSION_MOVED(
                "version-moved",
                HttpStatus.PRECONDITION_FAILED,
                "The definition was changed in the meantime",
                "The definition has another version than the one this change was made on."),
        VERSION_NEEDED(
                "version-needed",
                HttpStatus.PRECONDITION_REQUIRED,
                "The request must name the version that it replaces",
                "What replaces a whole definition or record names the version that it was made on, so that nothing that somebody else wrote is lost. Nothing was done."),
        IDENTIFIER_TAKEN(
                "identifier-taken",
                HttpStatus.CONFLICT,
                "The identifier stands for something else",
                "The store holds this identifier already. The proofs rule this out; please have the ledger audited."),
        MALFORMED(
                "malformed",
                HttpStatus.BAD_REQUEST,
                "The request cannot be read",
                "The body is not JSON, a property is unknown or of the wrong kind, or a parameter cannot be read."),
        FOREIGN_REQUEST(
                "foreign-request",
                HttpStatus.FORBIDDEN,
                "The request comes from elsewhere",
                "The service answers only requests that name it as their host, and none that a page of another origin has sent."),
        METHOD_NOT_SERVED(
                "method-not-served",
                HttpStatus.METHOD_NOT_ALLOWED,
                "The address does not take this method",
                "The header Allow says which methods are served."),
        MEDIA_TYPE(
                "wrong-media-type",
                HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                "The body is of a type that is not read",
                "Bodies are JSON; files are sent as they are, to the operations that take them. Nothing was done."),
        TOO_LARGE(
                "request-too-large",
                HttpStatus.CONTENT_TOO_LARGE,
                "The body is too large",
                "Each operation takes so many bytes and no more. Nothing was done."),
        SHARE_TAKEN(
                "share-taken",
                HttpStatus.TOO_MANY_REQUESTS,
                "An account may have only so much under way",
                "Nothing was done. Repeat the request after the time that Retry-After says, when less of this account is under way."),
        BUSY(
                "busy",
                HttpStatus.SERVICE_UNAVAILABLE,
                "Too many requests are waiting",
                "Nothing was done. Repeat the request after the time that Retry-After says."),
        OUTCOME_UNKNOWN(
                "outcome-unknown",
                HttpStatus.SERVICE_UNAVAILABLE,
                "It is not known whether this was done",
                "Writing failed while the request was under way. Repeat it with the same Idempotency-Key: it is done once at most."),
        DISK_FULL(
                "disk-full",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The disk is full",
                "Nothing was done, for want of room on the service's disk. Questions are answered as before; numbers are given again by themselves once there is room."),
        DISK_FAILING(
                "disk-failing",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The disk takes nothing",
                "Nothing was done, because the service's disk takes nothing at the moment. It goes on by itself when the disk does."),
        DATE_UNCONFIRMED(
                "date-unconfirmed",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The date is to be confirmed first",
                "The service was started with a clock that lies more than a day from the ledger's last instant. Nothing is done that goes by the date before an administrator has confirmed it."),
        STOPPED(
                "stopped",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The service gives no numbers",
                "Numbering has stopped, because the ledger cannot be trusted or the service is ending. The detail says why."),
        INTERNAL(
                "internal",
                HttpStatus.INTERNAL_SERVER_ERROR,
                "The service failed",
                "A fault of the service. Its log says more.");

        private final String code;
        private final HttpStatus status;
        private final String title;
        private final String explanation;

        Type(String code, HttpStatus status, String title, String explanation) {
            this.code = code;
            this.status = status;
            this.title = title;
            this.explanation = explanation;
        }

        public String code() {
            return code;
        }

        public String title() {
            return title;
        }

        public String explanation() {
            return explanation;
        }
    }

    private final Type type;
    private final Map<String, Object> facts = new LinkedHashMap<>();

    public Problem(Type type, String detail) {
        super(detail);
        this.type = type;
    }

    /** Names the field at fault and what it would accept. */
    public Problem field(String field, String accepted) {
        return with("field", field).with("accepted", accepted);
    }

    /** Adds a fact; one that is absent adds nothing. */
    public Problem with(String name, Object fact) {
        if (fact != null) facts.put(name, fact);
        return this;
    }

    /** Adds the facts of another problem. */
    public Problem with(Problem other) {
        other.facts.forEach(facts::putIfAbsent);
        return this;
    }

    /** What would be accepted, where that can be said. */
    public Optional<String> accepted() {
        return Optional.ofNullable((String) facts.get("accepted"));
    }

    /** The field at fault, where that can be said. */
    public Optional<String> field() {
        return Optional.ofNullable((String) facts.get("field"));
    }

    public Type type() {
        return type;
    }

    public HttpStatus status() {
        return type.status;
    }

    /** The headers that go with it. */
    public HttpHeaders headers() {
        var headers = new HttpHeaders();
        if (type.status == HttpStatus.SERVICE_UNAVAILABLE) headers.set(HttpHeaders.RETRY_AFTER, "1");
        if (type.status == HttpStatus.TOO_MANY_REQUESTS)
            headers.set(HttpHeaders.RETRY_AFTER, String.valueOf(facts.get("retryAfter")));
        if (type == Type.SIGN_IN_NEEDED) headers.set(HttpHeaders.WWW_AUTHENTICATE, "Bearer");
        return headers;
    }

    public ProblemDetail detail() {
        ProblemDetail detail = ProblemDetail.forStatusAndDetail(type.status, getMessage());
        detail.setType(URI.create("/problems/" + type.code));
        detail.setTitle(type.title);
        facts.forEach(detail::setProperty);
        return detail;
    }
}
