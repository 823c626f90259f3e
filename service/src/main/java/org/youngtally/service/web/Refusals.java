package org.youngtally.service.web;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.access.AccountRefusal;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decider;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.FieldFault;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Shortage;
import org.youngtally.service.web.Problem.Type;

/** Puts the ledger's refusals into words. */
public final class Refusals {
    private static final int MOST_CHOICES = 30;
    private static final Pattern INDEX = Pattern.compile("\\[(\\d+)]");

    private Refusals() {}

    public static Problem problem(Refusal refusal) {
        return switch (refusal) {
            case Refusal.UnknownSeries r ->
                new Problem(
                                Type.UNKNOWN_SERIES,
                                "Series ‘" + r.series() + "’ not found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("series", r.nearest().orElse("the key of an existing series"))
                        .with("nearest", r.nearest().orElse(null));
            case Refusal.QuantityOutOfBounds r ->
                new Problem(
                                Type.QUANTITY,
                                r.quantity() < 1
                                        ? "Invalid quantity: " + r.quantity() + " is less than 1."
                                        : "Invalid quantity: " + r.quantity() + " is more than " + r.most()
                                                + ", the most single numbers of one request.")
                        .field(
                                "quantity",
                                r.form().isBlock() ? "1 or more" : "1 to " + r.most() + "; for more, allocate a block")
                        .with("most", r.form().isBlock() ? null : r.most());
            case Refusal.DateNotServed r ->
                new Problem(
                                Type.DATE_NOT_SERVED,
                                "Series ‘" + r.series() + "’ has no active range on " + r.date() + ".")
                        .field("date", "a date " + windows(r.served()))
                        .with(
                                "served",
                                r.served().stream().map(DateWindow::toString).toList());
            case Refusal.Exhausted r ->
                new Problem(
                                Type.EXHAUSTED,
                                "‘" + r.series() + "’ has "
                                        + (r.left() == 0
                                                ? "no numbers"
                                                : r.left() == 1 ? "one number" : r.left() + " numbers")
                                        + " left for " + r.date() + ", " + r.quantity()
                                        + " were requested. Nothing was allocated. "
                                        + r.opensNext()
                                                .map(opens -> "The next range opens on " + opens + ".")
                                                .orElse("No further range is defined."))
                        .field(
                                r.left() == 0 ? "date" : "quantity",
                                r.left() > 0
                                        ? "1 to " + r.left()
                                        : r.opensNext()
                                                .map(opens -> "a date from " + opens)
                                                .orElse("nothing until an administrator adds a range"))
                        .with("left", r.left())
                        .with("opensNext", r.opensNext().orElse(null));
            case Refusal.FieldFaulty r -> field(r.series(), r.fault());
            case Refusal.TooManyDefinitions r ->
                new Problem(
                                Type.DEFINITIONS_FAULTY,
                                "%,d definitions are too many for one act. Nothing was done."
                                        .formatted(r.definitions()))
                        .field("files", "%,d at most; apply them in parts".formatted(r.most()));
            case Refusal.TooManyPieces r ->
                new Problem(
                                Type.QUANTITY,
                                "%,d numbers or runs of numbers of ‘%s’ are too many for one act. Nothing was done."
                                        .formatted(r.pieces(), r.series()))
                        .field(
                                "identifiers",
                                "%,d at most; name a run by its first and last, or send several requests"
                                        .formatted(r.most()))
                        .with("most", r.most());
            case Refusal.BlockInPieces r ->
                new Problem(
                                Type.QUANTITY,
                                "A block of " + r.quantity()
                                        + " would fall into more than 1,000 pieces around the values that ‘"
                                        + r.series() + "’ skips.")
                        .field("quantity", "1 to " + r.most())
                        .with("most", r.most());
            case Refusal.NoBlocks r ->
                new Problem(
                                Type.NO_BLOCKS,
                                "Series ‘" + r.series() + "’ has no blocks: "
                                        + (r.repeats()
                                                ? "its values repeat."
                                                : "its proof is waived, so each number is looked up when it is allocated."))
                        .field("series", "single numbers, up to 10,000 in one request");
            case Refusal.KeyReused r ->
                new Problem(
                                Type.KEY_REUSED,
                                "The idempotency key ‘" + r.key() + "’ belongs to another request, entry " + r.seq()
                                        + ".")
                        .field("Idempotency-Key", "a key that was never used, or the original request")
                        .with("seq", r.seq());
            case Refusal.ReferenceReused r ->
                new Problem(
                                Type.REFERENCE_REUSED,
                                "The reference ‘" + r.reference() + "’ of ‘" + r.series()
                                        + "’ belongs to another request, entry " + r.seq() + ".")
                        .field("reference", "another reference, or the original request")
                        .with("seq", r.seq());
            case Refusal.Retired r ->
                new Problem(
                                Type.RETIRED,
                                "The " + word(r.what()) + " ‘" + r.key() + "’ is retired. Nothing was allocated.")
                        .field(
                                word(r.what()),
                                "one that is in use; or bring it back with retired: false in its definition");
            case Refusal.TypedNotAllowed r ->
                new Problem(
                                Type.TYPED,
                                r.required()
                                        ? "Numbers of ‘" + r.series() + "’ must be typed."
                                        : "Numbers of ‘" + r.series() + "’ cannot be typed.")
                        .field(
                                "typed",
                                r.required()
                                        ? "the number to register"
                                        : "nothing: remove it, and the next number is allocated");
            case Refusal.TypedFaulty r -> typed(r);
            case Refusal.NotChronological r ->
                new Problem(
                                Type.NOT_CHRONOLOGICAL,
                                "‘" + r.series() + "’ is chronological: its newest number is dated " + r.latest()
                                        + ", so none can be dated " + r.date() + ".")
                        .field("date", r.latest() + " or later")
                        .with("latest", r.latest());
            case Refusal.HoldOutOfBounds r ->
                new Problem(Type.MALFORMED, "Invalid hold time: " + r.time() + ".")
                        .field(
                                "hold",
                                "more than zero, up to " + r.most() + ", as an ISO 8601 duration such as PT15M or P2D");
            case Refusal.NeverGiven r ->
                new Problem(
                                Type.UNKNOWN_IDENTIFIER,
                                "‘" + r.text() + "’ was never issued by series ‘" + r.series() + "’.")
                        .field("identifiers", "identifiers that the series issued");
            case Refusal.NotARow r ->
                new Problem(
                                Type.UNFIT,
                                r.first() + " to " + r.last()
                                        + " is not a consecutive run: the first number lies after the last, or they belong to different lanes.")
                        .field("last", "an identifier after the first, of the same lane");
            case Refusal.Unfit r ->
                new Problem(
                                Type.UNFIT,
                                "‘" + r.identifier() + "’ is " + state(r.state()) + " (entry " + r.changed()
                                        + "), and cannot be " + done(r.deed()) + ". Nothing was changed.")
                        .field("identifiers", fit(r.deed()))
                        .with("state", r.state().word())
                        .with("seq", r.changed());
            case Refusal.NothingFit r ->
                new Problem(Type.UNFIT, "None of these numbers of ‘" + r.series() + "’ can be " + done(r.deed()) + ".")
                        .field("identifiers", fit(r.deed()));
            case Refusal.UnknownTaking r ->
                new Problem(
                                Type.UNKNOWN_TAKING,
                                (r.series().isEmpty()
                                                ? "No numbers were issued for "
                                                : "Series ‘" + r.series() + "’ has issued no numbers for ")
                                        + r.what()
                                        + (r.what().startsWith("the reference") ? ", or all of them were returned" : "")
                                        + ".")
                        .field(
                                r.series().isEmpty()
                                        ? "block"
                                        : r.what().startsWith("the reference") ? "reference" : "entry",
                                "one that the lists of entries and blocks show");
            case Refusal.NotOfABlock r ->
                new Problem(
                                Type.UNFIT,
                                "‘" + r.identifier()
                                        + "’ is a single number: only numbers of a block are reported as used.")
                        .field("identifiers", "identifiers of a block");
            case Refusal.BlockTooSmall r ->
                new Problem(
                                Type.QUANTITY,
                                "Block " + r.block() + " has " + r.left() + " numbers left that were not reported, "
                                        + r.quantity() + " were requested.")
                        .field("quantity", r.left() == 0 ? "another block" : "1 to " + r.left())
                        .with("left", r.left());
            case Refusal.NoReturns r ->
                new Problem(Type.NO_RETURNS, "Series ‘" + r.series() + "’ allows no returns of issued numbers.")
                        .field("series", "void the number, with a reason");
            case Refusal.NotContinued r -> notContinued(r);
            case Refusal.NotStated r -> notStated(r);
            case Refusal.PlanOpen r ->
                new Problem(
                                Type.PLAN_OPEN,
                                "A plan for a table of ‘" + r.series() + "’ is being carried out (entry " + r.plan()
                                        + ").")
                        .field(
                                "series",
                                "the same request once the plan is carried out; until then, single numbers that are not typed")
                        .with("plan", r.plan());
            case Refusal.PlanRefused r -> planRefused(r);
            case Refusal.UnknownPlan r ->
                new Problem(Type.UNKNOWN_PLAN, "Entry " + r.plan() + " has no open plan for a table.")
                        .field("plan", "the entry that began a plan which is neither carried out nor abandoned");
            case Refusal.PlanMoved r ->
                new Problem(
                                Type.PLAN_REFUSED,
                                "The plan of entry " + r.plan() + " is carried out by somebody else at the same time.")
                        .field("plan", "the same request again once they are done");
            case Refusal.DocumentMoved r ->
                new Problem(
                                Type.DOCUMENT_CHANGED,
                                "Items of the document ‘" + r.document() + "’ were numbered at the same time, in entry "
                                        + r.seq() + ".")
                        .field("document", "the same request again: those items then keep their numbers");
            case Refusal.LayoutChanged r ->
                new Problem(Type.LABEL_STATE, "Layout ‘" + r.layout() + "’ was changed in the meantime.")
                        .field("layout", "the same request again, once the labels were looked at");
            case Refusal.UnknownLabelJob r ->
                new Problem(Type.UNKNOWN_LABEL_JOB, "Entry " + r.job() + " began no job of labels.")
                        .field("job", "the entry of a job, as the list of jobs has it");
            case Refusal.NoSuchLabel r ->
                new Problem(
                                Type.MALFORMED,
                                "Label job %d has no labels %,d to %,d.".formatted(r.job(), r.from() + 1, r.to() + 1))
                        .field("places", "places from 1 to %,d".formatted(r.size()));
            case Refusal.LabelsTwice r ->
                new Problem(
                                Type.MALFORMED,
                                "The labels %,d to %,d are not behind those before them."
                                        .formatted(r.from() + 1, r.to() + 1))
                        .field("places", "each label once, in their order");
            case Refusal.TooManyLabels r ->
                new Problem(
                                Type.QUANTITY,
                                "%,d labels of job %d are too many for one act. Nothing was changed."
                                        .formatted(r.labels(), r.job()))
                        .field("places", "up to %,d labels; send several requests".formatted(r.most()));
            case Refusal.NoLabels r ->
                new Problem(Type.LABEL_STATE, "Label job " + r.job() + " has no labels to " + r.step() + ".")
                        .field("places", "the job as it is now; its states say what can be done");
            case Refusal.LabelUnfit r ->
                new Problem(
                                Type.LABEL_STATE,
                                "Label %,d of job %d is %s: it cannot be %s."
                                        .formatted(
                                                r.place() + 1,
                                                r.job(),
                                                r.state().word(),
                                                past(r.step())))
                        .field("places", fit(r.step()))
                        .with("state", r.state().word());
            case Refusal.LabelDead r ->
                new Problem(
                                Type.LABEL_STATE,
                                "Label %,d of job %d cannot be printed again: %s is %s."
                                        .formatted(r.place() + 1, r.job(), r.identifier(), state(r.state())))
                        .field("places", "labels whose numbers are issued");
            case Refusal.OnALabel r ->
                new Problem(
                                Type.UNFIT,
                                r.identifier() + " is on a label of job " + r.job() + " and is not returned by itself.")
                        .field("identifiers", "cancel or spoil the label in its job")
                        .with("job", r.job());
            case Refusal.ReasonMissing r ->
                new Problem(Type.REASON_MISSING, "A reason is required.")
                        .field("reason", "a reason that an auditor will understand");
            case Refusal.DateClosed r ->
                new Problem(
                                Type.DATE_CLOSED,
                                r.date() + " is in a closed period: the "
                                        + r.period().scope().word() + " ‘"
                                        + r.period().key() + "’ is closed from "
                                        + r.period().from() + " to "
                                        + r.period().to() + " (entry " + r.closing() + ").")
                        .field("date", "a date outside it")
                        .with("closing", r.closing());
            case Refusal.UnknownScope r ->
                new Problem(
                                Type.UNKNOWN_SERIES,
                                "No " + r.period().scope().word() + " ‘"
                                        + r.period().key() + "’ found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field(r.period().scope().word(), r.nearest().orElse("one that has series"))
                        .with("nearest", r.nearest().orElse(null));
            case Refusal.StillHeld r ->
                new Problem(
                                Type.STILL_HELD,
                                (r.held() == 1 ? "A number dated" : r.held() + " numbers dated") + " from "
                                        + r.period().from() + " to "
                                        + r.period().to() + (r.held() == 1 ? " is" : " are")
                                        + " still held or in doubt.")
                        .field("from", "confirm or release those that are held, settle those that are in doubt")
                        .with("held", r.held());
            case Refusal.ClosedAlready r ->
                new Problem(
                                Type.CLOSED_ALREADY,
                                "The " + r.other().scope().word() + " ‘"
                                        + r.other().key() + "’ is closed from "
                                        + r.other().from() + " to " + r.other().to() + " already (entry " + r.closing()
                                        + ").")
                        .field("from", "dates that are open")
                        .with("closing", r.closing());
            case Refusal.NotClosed r ->
                new Problem(Type.UNKNOWN_CLOSING, "Entry " + r.closing() + " closed no period, or it was opened again.")
                        .field("closing", "the entry of a closing");
            case Refusal.VersionMoved r ->
                new Problem(
                                Type.VERSION_MOVED,
                                r.actual() == 0
                                        ? "The " + word(r.what()) + " ‘" + r.key() + "’ no longer exists."
                                        : r.expected() == 0
                                                ? "The " + word(r.what()) + " ‘" + r.key() + "’ already exists."
                                                : "‘" + r.key() + "’ has version " + r.actual()
                                                        + "; this change was made on version " + r.expected()
                                                        + ".")
                        .field(
                                r.expected() == 0 ? "key" : "If-Match",
                                r.expected() == 0
                                        ? "a key that no " + word(r.what()) + " has"
                                        : "\"" + r.actual() + "\", after a review of what changed")
                        .with("version", r.actual());
            case Refusal.UnknownRoute r ->
                new Problem(
                                Type.UNKNOWN_ROUTE,
                                "Route ‘" + r.route() + "’ not found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("route", r.nearest().orElse("an existing route"))
                        .with("nearest", r.nearest().orElse(null));
            case Refusal.AccountFaulty r -> account(r.refusal());
            case Refusal.UnknownKind r ->
                new Problem(
                                Type.UNKNOWN_KIND,
                                "Kind ‘" + r.kind() + "’ not found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("kind", r.nearest().orElse("an existing kind"));
            case Refusal.UnknownUnit r ->
                new Problem(
                                Type.UNKNOWN_KIND,
                                "Unit ‘" + r.unit() + "’ not found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("unit", r.nearest().orElse("an existing unit"));
            case Refusal.NoRoute r ->
                new Problem(
                                Type.NO_ROUTE,
                                "Missing route: no series is assigned to records of the kind ‘" + r.kind()
                                        + "’ in the unit ‘" + r.unit() + "’.")
                        .field("kind", "a route for " + r.kind());
            case Refusal.RouteMoved r ->
                new Problem(
                                Type.ROUTE_MOVED,
                                "The routes now lead from ‘" + r.kind() + "’ in ‘" + r.unit() + "’ to ‘" + r.series()
                                        + "’. Nothing was done.")
                        .field("kind", "the same request again")
                        .with("series", r.series());
            case Refusal.UnknownRecord r ->
                new Problem(Type.UNKNOWN_RECORD, "Record " + r.record() + " not found.")
                        .field("record", "the internal number of an existing record");
            case Refusal.RecordDeleted r ->
                new Problem(Type.RECORD_DELETED, "The record " + r.text() + " was deleted.")
                        .field("record", "a record that was not deleted")
                        .with("record", r.record());
            case Refusal.RecordMoved r ->
                new Problem(
                                Type.VERSION_MOVED,
                                "The record " + r.text() + " has version " + r.actual()
                                        + "; this change was made on version " + r.expected() + ".")
                        .field("If-Match", "\"" + r.actual() + "\", after a review of what changed")
                        .with("version", r.actual());
            case Refusal.NotInUnit r ->
                new Problem(Type.NOT_IN_UNIT, "The record " + r.text() + " is not in the unit ‘" + r.unit() + "’.")
                        .field("unit", String.join(" or ", r.units()))
                        .with("units", r.units());
            case Refusal.InUnitAlready r ->
                new Problem(
                                Type.IN_UNIT_ALREADY,
                                "The record " + r.text() + " is already in the unit ‘" + r.unit() + "’.")
                        .field("unit", "a unit that does not have it yet")
                        .with("record", r.record());
            case Refusal.Disagreeing r ->
                new Problem(
                                Type.DISAGREEING,
                                r.text() + " has " + value(r.theirs()) + " as its ‘" + r.field() + "’ in ‘" + r.unit()
                                        + "’, and " + value(r.given())
                                        + " here; it must be the same in all units. Nothing was done.")
                        .field("fields." + r.field(), r.theirs().isEmpty() ? "empty" : r.theirs())
                        .with("theirs", r.theirs())
                        .with("given", r.given())
                        .with("unit", r.unit());
            case Refusal.KnownAlready r ->
                new Problem(
                                Type.KNOWN_ALREADY,
                                "‘" + r.value() + "’ as ‘" + r.field() + "’ already identifies the record " + r.text()
                                        + ".")
                        .field("fields." + r.field(), "a value that no other record has")
                        .with("record", r.record())
                        .with("identifier", r.text());
            case Refusal.LineFaulty r ->
                new Problem(
                                Type.FIELD_FAULTY,
                                r.twice()
                                        ? "Line " + r.number() + " occurs twice."
                                        : "Line " + r.number() + " not found.")
                        .field(
                                "lines[" + r.index() + "].number",
                                "the number of an existing line, once; no number for a new line");
            case Refusal.NoLines r ->
                new Problem(Type.FIELD_FAULTY, "Records of the kind ‘" + r.kind() + "’ have no lines.")
                        .field("lines", "none");
            case Refusal.OfARecord r ->
                new Problem(
                                Type.UNFIT,
                                "‘" + r.identifier()
                                        + "’ is the number of an existing record, and would be issued again. Nothing was changed.")
                        .field("identifiers", "delete the record, or void the number")
                        .with("record", r.record());
            case Refusal.RowFaulty r -> {
                Problem problem = problem(r.refusal());
                yield new Problem(problem.type(), "Row " + (r.row() + 1) + ": " + problem.getMessage())
                        .with("row", r.row() + 1)
                        .with(problem);
            }
            case Refusal.IdentifierTaken r ->
                new Problem(
                        Type.IDENTIFIER_TAKEN,
                        "The next identifier of ‘" + r.series() + "’ was already issued for something else.");
            case Refusal.DefinitionsFaulty r -> {
                yield definitionsFaulty(faults(r));
            }
        };
    }

    private static String value(String text) {
        return text.isEmpty() ? "nothing" : "‘" + text + "’";
    }

    private static Problem account(AccountRefusal refusal) {
        return switch (refusal) {
            case AccountRefusal.Unknown r ->
                new Problem(
                                Type.UNKNOWN_ACCOUNT,
                                "Account ‘" + r.account() + "’ not found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("account", r.nearest().orElse("an existing account"));
            case AccountRefusal.Exists r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                "Account ‘" + r.account()
                                        + "’ already exists; a name is never used for another account.")
                        .field("name", "a name that no account has");
            case AccountRefusal.NameFaulty r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                r.fault().path() + " " + r.fault().problem() + ".")
                        .field(r.fault().path(), r.fault().accepted());
            case AccountRefusal.Closed r ->
                new Problem(Type.ACCOUNT_FAULTY, "The account ‘" + r.account() + "’ is closed.")
                        .field("account", "an open account, or reopen it first");
            case AccountRefusal.UnknownScope r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                "No " + r.scope().sort().word() + " ‘"
                                        + r.scope().key() + "’ found."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field(
                                "grants",
                                r.nearest()
                                        .map(near -> r.scope().sort().word() + " " + near)
                                        .orElse("a " + r.scope().sort().word() + " that is defined, or all"));
            case AccountRefusal.LastKeeper r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                "‘" + r.account()
                                        + "’ is the last account with the right access for all; without it nobody could manage accounts.")
                        .field("account", "grant access for all to another person first");
            case AccountRefusal.UnknownToken r ->
                new Problem(Type.UNKNOWN_ACCOUNT, "‘" + r.account() + "’ has no token ‘" + r.token() + "’.")
                        .field("token", "the number of a token of this account");
            case AccountRefusal.TooManyTokens r ->
                new Problem(Type.ACCOUNT_FAULTY, "‘" + r.account() + "’ has " + r.most() + " tokens.")
                        .field("name", "revoke some first; thirty days later they are no longer listed");
            case AccountRefusal.NoPassword r ->
                new Problem(Type.ACCOUNT_FAULTY, "‘" + r.account() + "’ is a program, and signs in with tokens alone.")
                        .field("password", "none; issue a token instead");
        };
    }

    private static Problem notStated(Refusal.NotStated r) {
        String series = "‘" + r.series() + "’";
        String detail =
                switch (r.fault()) {
                    case OUT_OF_ORDER ->
                        "The numbers of " + series
                                + " repeat, so that none is the highest. They are not unique, and none can be in doubt.";
                    case UNPROVED ->
                        series + " has no proof that its numbers are unique, and more than "
                                + "%,d".formatted(Decider.MOST_SINGLES) + " lie before " + r.text() + ".";
                    case IN_PIECES -> "Too many numbers before " + r.text() + " stand alone.";
                    case BEHIND, MOVED -> "The definition of " + series + " changed while the request was under way.";
                };
        String accepted =
                switch (r.fault()) {
                    case OUT_OF_ORDER -> "no highest number: the series as it is";
                    case UNPROVED, IN_PIECES -> "a lower number first, then again from there";
                    case BEHIND, MOVED -> "the same request again";
                };
        return new Problem(Type.NOT_STATED, detail).field("highest", accepted);
    }

    private static Problem notContinued(Refusal.NotContinued r) {
        String series = "‘" + r.series() + "’";
        String detail =
                switch (r.fault()) {
                    case BEHIND ->
                        "The counter has already passed " + r.text() + "."
                                + r.next()
                                        .map(next -> " The next number is " + next + ".")
                                        .orElse("");
                    case OUT_OF_ORDER ->
                        "The numbers of " + series
                                + " are not in order: they are scattered or repeat, so that none lies behind another.";
                    case IN_PIECES -> "Too many numbers were typed between the counter and " + r.text() + ".";
                    case UNPROVED ->
                        series + " has no proof that its numbers are unique, and too many lie before " + r.text()
                                + " to check each.";
                    case MOVED -> "The definition of " + series + " changed while the request was under way.";
                };
        String accepted =
                switch (r.fault()) {
                    case BEHIND -> "a number behind the next one";
                    case OUT_OF_ORDER -> "a plan for the table, or numbers typed one by one";
                    case IN_PIECES, UNPROVED -> "a number nearer to the counter; then again from there";
                    case MOVED -> "the same request again";
                };
        return new Problem(Type.NOT_CONTINUED, detail)
                .field("from", accepted)
                .with("next", r.next().orElse(null));
    }

    private static Problem planRefused(Refusal.PlanRefused r) {
        String series = "‘" + r.series() + "’";
        return switch (r.fault()) {
            case LEDGER_MOVED ->
                new Problem(
                                Type.PLAN_REFUSED,
                                "The numbers or the definition of " + series + " changed since the plan was made.")
                        .field("plan", "a new plan for the same table");
            case CHRONOLOGICAL ->
                new Problem(
                                Type.PLAN_REFUSED,
                                series + " is chronological: a number in a gap would be dated after a higher one.")
                        .field("gaps", "close");
            case OUT_OF_ORDER ->
                new Problem(
                                Type.PLAN_REFUSED,
                                "The numbers of " + series + " are not in order: they are scattered or repeat.")
                        .field("series", "a series whose numbers are counted in order");
            case TOO_MANY_LANES ->
                new Problem(Type.PLAN_REFUSED, "The table reaches into more lanes of " + series + " than one plan may.")
                        .field("file", "a part of the table");
        };
    }

    private static Problem typed(Refusal.TypedFaulty r) {
        String text = "‘" + r.text() + "’";
        String detail =
                switch (r.fault()) {
                    case NOT_OF_THE_PATTERN ->
                        text + " is not a number of ‘" + r.series() + "’ for this date and these fields.";
                    case CHECK_WRONG -> text + " has an invalid check digit.";
                    case OUTSIDE_THE_RANGES -> text + " lies outside the ranges of ‘" + r.series() + "’ for this date.";
                    case SKIPPED -> text + " is a number that ‘" + r.series() + "’ skips.";
                    case TAKEN -> text + " was already issued.";
                    case RETIRED ->
                        text + " was issued and returned, and its position was issued with another text since.";
                };
        String accepted =
                switch (r.fault()) {
                    case NOT_OF_THE_PATTERN -> "a number like " + r.instead().orElseThrow();
                    case CHECK_WRONG -> r.instead().orElseThrow() + ", if nothing else is wrong";
                    case OUTSIDE_THE_RANGES, SKIPPED, TAKEN, RETIRED -> "a number that was not issued yet";
                };
        return new Problem(Type.TYPED, detail)
                .field("typed", accepted)
                .with("fault", r.fault().name().toLowerCase(Locale.ROOT).replace('_', '-'))
                .with("instead", r.instead().orElse(null));
    }

    private static String past(String step) {
        return switch (step) {
            case "send" -> "sent";
            case "note", "confirm" -> "confirmed as printed";
            case "reprint" -> "printed again";
            case "spoil" -> "spoiled";
            default -> "cancelled";
        };
    }

    private static String fit(String step) {
        return switch (step) {
            case "send", "cancel" -> "labels that are waiting";
            case "note", "confirm" -> "labels that were sent or are unconfirmed";
            case "reprint" -> "labels that were sent, are printed, unconfirmed or spoiled";
            default -> "labels that were sent, are printed or unconfirmed";
        };
    }

    /** A state in words that go behind “is”. */
    public static String state(PositionState state) {
        return switch (state) {
            case ISSUED, HELD, RETURNED, USED -> state == PositionState.USED ? "reported as used" : state.word();
            case PREEXISTING -> state.word();
            case IN_DOUBT -> "in doubt";
            case GAP_CLOSED -> "void (gap closed)";
            case SKIPPED, VOIDED, LAPSED, RELEASED, UNUSED, CLOSED -> "void (" + state.word() + ")";
        };
    }

    private static String done(Act.Deed deed) {
        return switch (deed) {
            case CONFIRM -> "confirmed";
            case RELEASE -> "released";
            case RETURN -> "returned";
            case VOID -> "voided";
            case USE -> "reported as used";
        };
    }

    private static String fit(Act.Deed deed) {
        return switch (deed) {
            case CONFIRM, RELEASE -> "numbers that are held";
            case RETURN -> "numbers that are issued";
            case VOID -> "numbers that are held, issued, used, returned or pre-existing";
            case USE -> "numbers of a block that were not reported yet";
        };
    }

    public static List<DefinitionFault> faults(Refusal.DefinitionsFaulty faulty) {
        return faulty.faults().stream()
                .flatMap(draft -> draft.faults().stream().map(fault -> DefinitionFault.of(null, null, draft, fault)))
                .toList();
    }

    /** What is defined, in the word of the interface. */
    public static String word(Refusal.What what) {
        return what.name().toLowerCase(Locale.ROOT);
    }

    private static Problem field(String series, FieldFault fault) {
        String text = "‘" + fault.text() + "’";
        String detail =
                switch (fault.kind()) {
                    case NOT_A_FIELD ->
                        fault.accepted().isEmpty()
                                ? "Series ‘" + series + "’ has no fields; ‘" + fault.field() + "’ was sent."
                                : "Series ‘" + series + "’ has no field ‘" + fault.field() + "’.";
                    case MISSING -> "The field ‘" + fault.field() + "’ of ‘" + series + "’ is missing.";
                    case NOT_A_CHOICE ->
                        text + " is not a choice of the field ‘" + fault.field() + "’"
                                + (fault.accepted().isEmpty() ? ", which has no choices here" : "") + ".";
                    case RETIRED ->
                        text + " is a retired choice of the field ‘" + fault.field()
                                + "’, and can no longer be chosen.";
                    case TOO_LONG -> "The field ‘" + fault.field() + "’ would write " + text + ", which is too long.";
                    case SYMBOL ->
                        "The field ‘" + fault.field() + "’ would write " + text
                                + ", which holds a symbol that the series does not allow.";
                    case NOT_OF_THE_TYPE ->
                        text + " is not what the field ‘" + fault.field() + "’ of ‘" + series + "’ holds.";
                    case FILLED ->
                        "The field ‘" + fault.field() + "’ of ‘" + series
                                + "’ receives the number, and cannot be entered.";
                    case NOTHING_LEFT ->
                        "Nothing of " + text + " is left for the field ‘" + fault.field() + "’ to write.";
                };
        String more = fault.accepted().size() > MOST_CHOICES
                ? " and " + (fault.accepted().size() - MOST_CHOICES) + " more"
                : "";
        String accepted =
                fault.kind() == FieldFault.Kind.FILLED || fault.accepted().isEmpty()
                        ? "none: remove it"
                        : String.join(
                                        ", ",
                                        fault.accepted()
                                                .subList(
                                                        0,
                                                        Math.min(
                                                                MOST_CHOICES,
                                                                fault.accepted().size())))
                                + more;
        return new Problem(
                        Type.FIELD_FAULTY,
                        detail
                                + fault.nearest()
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field("fields." + fault.field(), accepted)
                .with("nearest", fault.nearest().orElse(null));
    }

    /**
     * A fault of a definition.
     *
     * @param file the file, where files were sent
     * @param line its line there, from 1
     * @param what {@code series}, {@code codebook} or {@code namespace}; absent for the file as a whole
     * @param index its place among those of its kind that were sent, from 0; absent for one that stands already
     * @param key its key
     * @param clash the two numbers that would be alike, where that is the fault
     */
    public record DefinitionFault(
            @Nullable String file,
            @Nullable Integer line,
            @Nullable String what,
            @Nullable Integer index,
            @Nullable String key,
            String path,
            String problem,
            String accepted,
            @Nullable ClashView clash) {
        public static DefinitionFault of(String file, Integer line, Refusal.DraftFaults draft, Fault fault) {
            return new DefinitionFault(
                    file,
                    line,
                    word(draft.what()),
                    draft.index() < 0 ? null : draft.index(),
                    draft.key(),
                    fault.path(),
                    fault.problem(),
                    fault.accepted(),
                    draft.clash().map(ClashView::of).orElse(null));
        }
    }

    /**
     * Two numbers that would be written alike.
     *
     * @param text as the first of them is written
     */
    public record ClashView(String text, WayView one, WayView other) {
        static ClashView of(Clash clash) {
            return new ClashView(clash.text(), WayView.of(clash.one()), WayView.of(clash.other()));
        }
    }

    /**
     * One way in which an identifier would arise.
     *
     * @param range the range as people read it
     * @param lane the period that the lane counts for; empty where the count does not restart
     * @param date a business date on which it would be issued
     * @param fields the codes and texts of its fields
     */
    public record WayView(
            String series,
            String range,
            String lane,
            LocalDate date,
            Map<String, String> fields,
            long position,
            long value) {
        static WayView of(Clash.Way way) {
            return new WayView(
                    way.series(),
                    way.rangeText(),
                    way.period(),
                    way.particulars().date(),
                    way.particulars().fields(),
                    way.position(),
                    way.value());
        }
    }

    /** A path into what was sent, with its indices from 1, as people count. */
    public static String forPeople(String path) {
        return INDEX.matcher(path).replaceAll(index -> "[" + (Long.parseLong(index.group(1)) + 1) + "]");
    }

    public static Problem definitionsFaulty(List<DefinitionFault> faults) {
        String key = faults.getFirst().key();
        return faulty(Type.DEFINITIONS_FAULTY, key == null || key.equals("null") ? "" : "‘" + key + "’: ", "", faults);
    }

    public static Problem ruleFaulty(List<DefinitionFault> faults) {
        return faulty(Type.RULE_FAULTY, "", "The rule ", faults);
    }

    /** @param whole what the first fault is of, if it names no property */
    private static Problem faulty(Type type, String front, String whole, List<DefinitionFault> faults) {
        DefinitionFault first = faults.getFirst();
        String more = faults.size() == 1
                ? ""
                : " There "
                        + (faults.size() == 2 ? "is one more fault." : "are " + (faults.size() - 1) + " more faults.");
        return new Problem(
                        type,
                        front + (first.path().isEmpty() ? whole : forPeople(first.path()) + " ") + first.problem() + "."
                                + more)
                .field(first.path(), first.accepted())
                .with("faults", faults);
    }

    public static Problem problem(LedgerUnavailable unavailable) {
        return switch (unavailable.kind()) {
            case BUSY -> new Problem(Type.BUSY, "Nothing was done: " + unavailable.getMessage() + ".");
            case SHARE_TAKEN ->
                new Problem(Type.SHARE_TAKEN, "Nothing was done: " + unavailable.getMessage() + ".")
                        .with("retryAfter", 1L);
            case OUTCOME_UNKNOWN ->
                new Problem(
                        Type.OUTCOME_UNKNOWN, "It is unknown whether this was done: " + unavailable.getMessage() + ".");
            case DISK_FULL ->
                new Problem(Type.DISK_FULL, "Nothing was done: " + unavailable.getMessage() + ".")
                        .with(
                                "place",
                                unavailable
                                        .shortage()
                                        .map(shortage -> shortage.place().toString())
                                        .orElse(null))
                        .with(
                                "bytesLeft",
                                unavailable.shortage().map(Shortage::left).orElse(null));
            case DISK_FAILING -> new Problem(Type.DISK_FAILING, "Nothing was done: " + unavailable.getMessage() + ".");
            case DATE_UNCONFIRMED ->
                new Problem(Type.DATE_UNCONFIRMED, "Nothing was done: " + unavailable.getMessage() + ".");
            case NEWEST_UNKNOWN ->
                new Problem(Type.NEWEST_UNKNOWN, "Nothing was done: " + unavailable.getMessage() + ".");
            case STOPPED -> new Problem(Type.STOPPED, "No numbers are allocated: " + unavailable.getMessage() + ".");
        };
    }

    private static String windows(List<DateWindow> windows) {
        return windows.stream().map(DateWindow::toString).distinct().collect(Collectors.joining(", or "));
    }
}
