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
                "Series not found",
                "The key names no series. The detail names the closest one there is."),
        UNKNOWN_IDENTIFIER(
                "unknown-identifier",
                HttpStatus.NOT_FOUND,
                "The identifier was never issued",
                "No series of this service has issued the identifier."),
        UNKNOWN_PLACE(
                "unknown-place",
                HttpStatus.NOT_FOUND,
                "Address not found",
                "The address or the method is not one of the service's; /api/openapi.json lists those that are."),
        QUANTITY(
                "quantity-out-of-bounds",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Quantity out of bounds",
                "1 to 10,000 single numbers are allocated at a time; more are allocated as a block."),
        DATE_NOT_SERVED(
                "date-not-served",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "No active range on this date",
                "Each range of a series is active from its opening to its closing date; the business date lies in none of them."),
        EXHAUSTED(
                "exhausted",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The ranges for this date are exhausted",
                "The ranges that are active on the date have fewer positions left than were requested. Nothing was allocated."),
        FIELD_FAULTY(
                "field-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Invalid field",
                "A field of the record is missing, unknown, or has a value that the series does not accept. Nothing was allocated."),
        RETIRED(
                "retired",
                HttpStatus.CONFLICT,
                "The series or unit is retired",
                "A retired series or unit allocates nothing. Nothing was done."),
        NO_BLOCKS(
                "no-blocks",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The series has no blocks",
                "A series whose proof is waived or whose values repeat allocates single numbers only."),
        NOT_STATED(
                "not-stated",
                HttpStatus.CONFLICT,
                "The highest number cannot be stated",
                "After a restore it is stated how far the numbers of each series may have been issued. The detail names what prevents it. Nothing was done."),
        NOT_CONTINUED(
                "not-continued",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The series cannot continue from there",
                "A lane continues from a number that its counter has not reached yet. Nothing was changed."),
        PLAN_OPEN(
                "plan-open",
                HttpStatus.CONFLICT,
                "A plan for a table is being carried out",
                "Until it is carried out or abandoned, blocks and numbers of its table cannot be allocated. Nothing was allocated."),
        PLAN_REFUSED(
                "plan-refused",
                HttpStatus.CONFLICT,
                "The plan cannot be carried out",
                "The table or the ledger changed since the plan was made, or the plan does not suit the series. Nothing was changed."),
        UNKNOWN_PLAN(
                "unknown-plan",
                HttpStatus.NOT_FOUND,
                "Plan not found",
                "The entry began no plan for a table, or the plan was carried out or abandoned already."),
        TYPED(
                "typed-number",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The typed number is not accepted",
                "It does not belong to the series, has an invalid check digit, or was already issued; or the series refuses or requires typed numbers. Nothing was allocated."),
        NOT_CHRONOLOGICAL(
                "not-chronological",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The date lies before that of the newest number",
                "The series is chronological: no number may be dated before the newest one of its lane."),
        UNFIT(
                "unfit-state",
                HttpStatus.CONFLICT,
                "The state of a number does not allow this",
                "What is held can be confirmed or released; what is issued can be returned; numbers of a block are reported once. Nothing was changed."),
        UNKNOWN_TAKING(
                "unknown-taking",
                HttpStatus.NOT_FOUND,
                "No numbers found",
                "The entry, block or reference names no numbers of the series."),
        NO_RETURNS(
                "no-returns",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The series allows no returns",
                "The definition refuses returns. Void the number instead."),
        REASON_MISSING(
                "reason-missing",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "A reason is required",
                "Voiding a number and reopening a closed period require a reason, which is kept in the ledger."),
        DATE_CLOSED(
                "date-closed",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The date is in a closed period",
                "No number can be dated inside a closed period."),
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
                "Closing not found",
                "The number is not that of an entry which closed a period, or it was opened again."),
        UNKNOWN_STARTER(
                "unknown-starter",
                HttpStatus.NOT_FOUND,
                "Starter set not found",
                "The name is not that of a starter set. The detail names the closest one there is."),
        UNKNOWN_ROUTE(
                "unknown-route",
                HttpStatus.NOT_FOUND,
                "Route not found",
                "No route exists for this kind, unit and condition."),
        UNKNOWN_KIND(
                "unknown-kind",
                HttpStatus.NOT_FOUND,
                "Kind or unit not found",
                "The kind of record or the unit is not defined. The detail names the closest one there is."),
        UNKNOWN_LAYOUT(
                "unknown-layout",
                HttpStatus.NOT_FOUND,
                "Layout not found",
                "No layout of labels has that key. The detail names the closest one there is."),
        LABEL_FAULTY(
                "label-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "A label cannot be printed",
                "A text does not fit its box, a bar code cannot be scanned, or a value is missing. Nothing was allocated; faults lists the items."),
        UNKNOWN_LABEL_JOB(
                "unknown-label-job",
                HttpStatus.NOT_FOUND,
                "Label job not found",
                "The entry began no job of labels, or one of a series that the account may not read."),
        LABEL_STATE(
                "label-state",
                HttpStatus.CONFLICT,
                "The state of a label does not allow this",
                "What waits can be sent or cancelled; what was sent can be confirmed, reprinted or spoiled. Nothing was changed."),
        RULE_FAULTY(
                "rule-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The rule cannot be applied",
                "faults says what is wrong, and where: in which line of the rule, or at which item of the document. Nothing was changed."),
        DOCUMENT_FAULTY(
                "document-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The document cannot be read or written",
                "Nothing was changed."),
        DOCUMENT_CHANGED(
                "document-changed",
                HttpStatus.CONFLICT,
                "The document changed in the meantime",
                "Its items are not what they were when it was looked at. Nothing was changed."),
        UNKNOWN_PRINTER(
                "unknown-printer",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Printer not found",
                "The service sends labels only to the printers that its administrator names at the start, with --printer ADDRESS."),
        PRINTER(
                "printer-not-ready",
                HttpStatus.CONFLICT,
                "The printer does not print these labels",
                "It cannot be reached, does not answer as a printer (IPP, RFC 8011), accepts no jobs, or has no media of this size. Nothing was sent."),
        PRINTER_BUSY(
                "printing",
                HttpStatus.CONFLICT,
                "The job is printed already, or is not printed",
                "A job is printed on one printer at a time; only a job that is printed can be stopped. Nothing was changed."),
        NO_ROUTE(
                "no-route",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Missing route",
                "Neither the unit nor one above it has a route for records of this kind whose condition holds. The detail names who can add one. Nothing was allocated."),
        ROUTE_MOVED(
                "route-moved",
                HttpStatus.CONFLICT,
                "The routes have changed",
                "A route or the record's fields changed while the request was under way. Nothing was done; repeat the request."),
        UNKNOWN_RECORD(
                "unknown-record",
                HttpStatus.NOT_FOUND,
                "Record not found",
                "No record has this number. Records are found by their identifiers, by what they are known by, and by the words of their texts."),
        RECORD_DELETED(
                "record-deleted",
                HttpStatus.CONFLICT,
                "The record was deleted",
                "A deleted record is kept with its history, and can no longer be changed."),
        NOT_IN_UNIT(
                "not-in-unit",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The record is not in this unit",
                "A record is changed in one of its units. Share it with another unit first."),
        IN_UNIT_ALREADY(
                "in-unit-already",
                HttpStatus.CONFLICT,
                "The record is already in this unit",
                "A record is in a unit once, with one number in all units."),
        DISAGREEING(
                "disagreeing",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The units would disagree",
                "Some fields of a shared record are the same in all its units: those that its kind lists under agree, those that identify it, and those that its number is made of."),
        KNOWN_ALREADY(
                "known-already",
                HttpStatus.CONFLICT,
                "Another record has this value",
                "The value of an identifying field belongs to one record of its kind."),
        UNKNOWN_FILE("unknown-file", HttpStatus.NOT_FOUND, "File not found", "The record has no file in this place."),
        TABLE_FAULTY(
                "table-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The table cannot be filled",
                "The file is not a table of this format, a column is missing, or a row cannot be numbered. Nothing was allocated."),
        UNKNOWN_ACCOUNT(
                "unknown-account",
                HttpStatus.NOT_FOUND,
                "Account or token not found",
                "No account has the name, or it has no such token."),
        ACCOUNT_FAULTY(
                "account-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The account cannot be changed like this",
                "The detail says why. Nothing was changed."),
        SIGN_IN_NEEDED(
                "sign-in-needed",
                HttpStatus.UNAUTHORIZED,
                "Authentication required",
                "Every request needs a token or the session of a signed-in person; this one has neither, or one that is not valid."),
        SIGN_IN_REFUSED(
                "sign-in-refused",
                HttpStatus.UNAUTHORIZED,
                "Wrong account or password",
                "The account does not exist, is closed or has no password, or the password is wrong; the answer does not say which."),
        SIGN_IN_LATER(
                "sign-in-later",
                HttpStatus.TOO_MANY_REQUESTS,
                "Too many wrong passwords",
                "After several wrong passwords an account can be tried again only after a while, which grows with each further one."),
        GRANT_MISSING(
                "grant-missing",
                HttpStatus.FORBIDDEN,
                "Missing grant",
                "The account may not do this there. The detail names the smallest grant that allows it, and who can grant it."),
        SESSION_FORGED(
                "session-forged",
                HttpStatus.FORBIDDEN,
                "The request does not come from the console",
                "A request that changes something and shows a session must also show that session's secret, which no other page can know."),
        UNKNOWN_CODEBOOK(
                "unknown-codebook",
                HttpStatus.NOT_FOUND,
                "Codebook not found",
                "The key names no codebook. The detail names the closest one there is."),
        KEY_REUSED(
                "key-reused",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The idempotency key belongs to another request",
                "An idempotency key belongs to one request for ever. The same request gets the same answer; another request needs its own key."),
        REFERENCE_REUSED(
                "reference-reused",
                HttpStatus.CONFLICT,
                "The reference belongs to another request",
                "A reference is unique in its series. The same request under it gets the same answer."),
        DEFINITIONS_FAULTY(
                "definitions-faulty",
                HttpStatus.UNPROCESSABLE_CONTENT,
                "The definitions have faults",
                "At least one definition has a fault; none was applied. The faults are listed, each with its place."),
        VERSION_MOVED(
                "version-moved",
                HttpStatus.PRECONDITION_FAILED,
                "Edit conflict",
                "The definition or record was changed since the version that this change was made on."),
        VERSION_NEEDED(
                "version-needed",
                HttpStatus.PRECONDITION_REQUIRED,
                "The request must name the version that it replaces",
                "What replaces a whole definition or record names the version that it was made on, so that nothing that somebody else wrote is lost. Nothing was done."),
        IDENTIFIER_TAKEN(
                "identifier-taken",
                HttpStatus.CONFLICT,
                "The identifier was already issued",
                "The identifier is already in the ledger. The proofs rule this out; run an audit."),
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
                "Method not allowed",
                "The header Allow says which methods are served."),
        MEDIA_TYPE(
                "wrong-media-type",
                HttpStatus.UNSUPPORTED_MEDIA_TYPE,
                "Unsupported media type",
                "Bodies are JSON; files are sent unchanged, to the operations that accept them. Nothing was done."),
        TOO_LARGE(
                "request-too-large",
                HttpStatus.CONTENT_TOO_LARGE,
                "The body is too large",
                "Each operation has a limit for its body. Nothing was done."),
        SHARE_TAKEN(
                "share-taken",
                HttpStatus.TOO_MANY_REQUESTS,
                "Too many requests of this account",
                "Nothing was done. Repeat the request after the time in Retry-After."),
        BUSY(
                "busy",
                HttpStatus.SERVICE_UNAVAILABLE,
                "Too many requests are waiting",
                "Nothing was done. Repeat the request after the time in Retry-After."),
        OUTCOME_UNKNOWN(
                "outcome-unknown",
                HttpStatus.SERVICE_UNAVAILABLE,
                "Unknown outcome",
                "Writing failed while the request was under way. Repeat it with the same Idempotency-Key: it is done once at most."),
        DISK_FULL(
                "disk-full",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The disk is full",
                "Nothing was done, because the service's disk is full. Reading still works; allocation resumes by itself once there is room."),
        DISK_FAILING(
                "disk-failing",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The disk is failing",
                "Nothing was done, because the service's disk accepts nothing at the moment. Allocation resumes by itself once the disk works again."),
        NEWEST_UNKNOWN(
                "newest-unknown",
                HttpStatus.SERVICE_UNAVAILABLE,
                "It is not known whether this ledger is the newest",
                "The ledger was restored, or a receipt was shown of an entry that it lacks. Nothing is done until it has caught up, has been proved by a head, or an administrator has stated what may have been issued."),
        NO_ROLLBACK(
                "no-rollback",
                HttpStatus.CONFLICT,
                "There is nothing to state",
                "The ledger is the newest as far as is known, and allocates numbers. Nothing was done."),
        NO_BACKUPS(
                "no-backups",
                HttpStatus.CONFLICT,
                "There is no folder for backups",
                "The service makes backups where it was started with --backups."),
        BACKUP_FAILED(
                "backup-failed",
                HttpStatus.INTERNAL_SERVER_ERROR,
                "The backup was not made",
                "The detail names what prevented it. What was written of it was deleted."),
        DATE_UNCONFIRMED(
                "date-unconfirmed",
                HttpStatus.SERVICE_UNAVAILABLE,
                "The date must be confirmed",
                "The service was started with a clock that lies more than a day from the ledger's last instant. Nothing that depends on the date is done until an administrator has confirmed it."),
        STOPPED(
                "stopped",
                HttpStatus.SERVICE_UNAVAILABLE,
                "Numbering has stopped",
                "No numbers are allocated, because the ledger cannot be trusted or the service is stopping. The detail says why."),
        INTERNAL(
                "internal",
                HttpStatus.INTERNAL_SERVER_ERROR,
                "Internal error",
                "The service failed. Its log has details.");

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
