package org.youngtally.service.web;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.access.AccountRefusal;
import org.youngtally.core.act.Act;
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

    private Refusals() {}

    public static Problem problem(Refusal refusal) {
        return switch (refusal) {
            case Refusal.UnknownSeries r ->
                new Problem(
                                Type.UNKNOWN_SERIES,
                                "There is no series ‘" + r.series() + "’."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("series", r.nearest().orElse("the key of a series; GET /api/v1/series lists them"))
                        .with("nearest", r.nearest().orElse(null));
            case Refusal.QuantityOutOfBounds r ->
                new Problem(
                                Type.QUANTITY,
                                r.quantity() < 1
                                        ? "A quantity of " + r.quantity() + " is less than one."
                                        : "A quantity of " + r.quantity() + " is more than " + r.most()
                                                + ", the most that stand alone in one request.")
                        .field(
                                "quantity",
                                r.form().isBlock() ? "1 or more" : "1 to " + r.most() + "; take more as a block")
                        .with("most", r.form().isBlock() ? null : r.most());
            case Refusal.DateNotServed r ->
                new Problem(Type.DATE_NOT_SERVED, "No range of ‘" + r.series() + "’ serves " + r.date() + ".")
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
                                        + " were asked for, and none was taken. "
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
                                "%,d at most; name a run by its first and last, or do it in parts".formatted(r.most()))
                        .with("most", r.most());
            case Refusal.BlockInPieces r ->
                new Problem(
                                Type.QUANTITY,
                                "A block of " + r.quantity()
                                        + " would fall into more than 1,000 pieces around the values that ‘"
                                        + r.series() + "’ never gives.")
                        .field("quantity", "1 to " + r.most())
                        .with("most", r.most());
            case Refusal.NoBlocks r ->
                new Problem(
                                Type.NO_BLOCKS,
                                "‘" + r.series() + "’ gives no blocks: "
                                        + (r.repeats()
                                                ? "its marks come round again."
                                                : "its proof is waived, so that each number is looked up when it is given."))
                        .field("series", "numbers that stand alone, up to 10,000 in one request");
            case Refusal.KeyReused r ->
                new Problem(
                                Type.KEY_REUSED,
                                "The key ‘" + r.key() + "’ stands for another request, entry " + r.seq() + ".")
                        .field("Idempotency-Key", "a key that was never used, or the same request as then")
                        .with("seq", r.seq());
            case Refusal.ReferenceReused r ->
                new Problem(
                                Type.REFERENCE_REUSED,
                                "The reference ‘" + r.reference() + "’ of ‘" + r.series()
                                        + "’ stands for another request, entry " + r.seq() + ".")
                        .field("reference", "another reference, or the same request as then")
                        .with("seq", r.seq());
            case Refusal.TypedNotAllowed r ->
                new Problem(
                                Type.TYPED,
                                r.required()
                                        ? "The numbers of ‘" + r.series() + "’ are typed, not counted."
                                        : "The numbers of ‘" + r.series() + "’ are counted, not typed.")
                        .field("typed", r.required() ? "the number as it was typed" : "leave it out");
            case Refusal.TypedFaulty r -> typed(r);
            case Refusal.NotChronological r ->
                new Problem(
                                Type.NOT_CHRONOLOGICAL,
                                "‘" + r.series() + "’ follows the calendar: a number for " + r.latest()
                                        + " has been given, so that none can be dated " + r.date() + ".")
                        .field("date", r.latest() + " or later")
                        .with("latest", r.latest());
            case Refusal.HoldOutOfBounds r ->
                new Problem(Type.MALFORMED, "A number cannot be held for " + r.time() + ".")
                        .field(
                                "hold",
                                "more than nothing, up to " + r.most()
                                        + ", as an ISO 8601 duration such as PT15M or P2D");
            case Refusal.NeverGiven r ->
                new Problem(Type.UNKNOWN_IDENTIFIER, "‘" + r.series() + "’ has not given ‘" + r.text() + "’.")
                        .field("identifiers", "identifiers that the series has given");
            case Refusal.NotARow r ->
                new Problem(
                                Type.UNFIT,
                                "‘" + r.first() + "’ to ‘" + r.last()
                                        + "’ is not a row: the first lies behind the last, or they are counted apart from each other.")
                        .field("last", "an identifier that was counted behind the first");
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
                                (r.series().isEmpty() ? "There is no " : "‘" + r.series() + "’ has given nothing for ")
                                        + r.what()
                                        + (r.what().startsWith("the reference") ? ", or all of it was given back" : "")
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
                                        + "’ stands alone, and is used as it is: only numbers of a block are reported.")
                        .field("identifiers", "identifiers of a block");
            case Refusal.BlockTooSmall r ->
                new Problem(
                                Type.QUANTITY,
                                "Block " + r.block() + " has " + r.left() + " numbers left that were not reported, and "
                                        + r.quantity() + " are wanted of it.")
                        .field("quantity", r.left() == 0 ? "another block" : "1 to " + r.left())
                        .with("left", r.left());
            case Refusal.NoReturns r ->
                new Problem(Type.NO_RETURNS, "Numbers of ‘" + r.series() + "’ are not given back once they are issued.")
                        .field("series", "void the number, with a reason");
            case Refusal.ReasonMissing r ->
                new Problem(
                                Type.REASON_MISSING,
                                "It is not said why, and without a reason nobody can " + r.what() + ".")
                        .field("reason", "a reason that an auditor will understand");
            case Refusal.DateClosed r ->
                new Problem(
                                Type.DATE_CLOSED,
                                r.date() + " lies in a closed period: the "
                                        + r.period().scope().word() + " ‘"
                                        + r.period().key() + "’ is closed from "
                                        + r.period().from() + " to "
                                        + r.period().to() + " (entry " + r.closing() + ").")
                        .field("date", "a date outside it")
                        .with("closing", r.closing());
            case Refusal.UnknownScope r ->
                new Problem(
                                Type.UNKNOWN_SERIES,
                                "There is no " + r.period().scope().word() + " ‘"
                                        + r.period().key() + "’."
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
                                        + r.period().to() + (r.held() == 1 ? " is" : " are") + " still held.")
                        .field("from", "confirm or release them first; GET /api/v1/holds lists them")
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
                        .field("closing", "the entry of a closing; GET /api/v1/closings lists them");
            case Refusal.VersionMoved r ->
                new Problem(
                                Type.VERSION_MOVED,
                                r.actual() == 0
                                        ? "There is no " + word(r.what()) + " ‘" + r.key() + "’ any more."
                                        : r.expected() == 0
                                                ? "There is a " + word(r.what()) + " ‘" + r.key() + "’ already."
                                                : "‘" + r.key() + "’ has version " + r.actual()
                                                        + " by now; this change was made on version " + r.expected()
                                                        + ".")
                        .field(
                                r.expected() == 0 ? "key" : "If-Match",
                                r.expected() == 0
                                        ? "a key that no " + word(r.what()) + " has"
                                        : "\"" + r.actual() + "\", after a look at what changed")
                        .with("version", r.actual());
            case Refusal.UnknownRoute r ->
                new Problem(
                                Type.UNKNOWN_ROUTE,
                                "There is no route ‘" + r.route() + "’."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("route", r.nearest().orElse("one that GET /api/v1/routes lists"))
                        .with("nearest", r.nearest().orElse(null));
            case Refusal.AccountFaulty r -> account(r.refusal());
            case Refusal.UnknownKind r ->
                new Problem(
                                Type.UNKNOWN_KIND,
                                "There is no kind ‘" + r.kind() + "’."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("kind", r.nearest().orElse("one that GET /api/v1/kinds lists"));
            case Refusal.UnknownUnit r ->
                new Problem(
                                Type.UNKNOWN_KIND,
                                "There is no unit ‘" + r.unit() + "’."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("unit", r.nearest().orElse("one that GET /api/v1/units lists"));
            case Refusal.NoRoute r ->
                new Problem(
                                Type.NO_ROUTE,
                                "No rule says which series numbers a record of the kind ‘" + r.kind()
                                        + "’ in the unit ‘" + r.unit() + "’.")
                        .field("kind", "a route for " + r.kind());
            case Refusal.RouteMoved r ->
                new Problem(
                                Type.ROUTE_MOVED,
                                "The rules lead from ‘" + r.kind() + "’ in ‘" + r.unit() + "’ to ‘" + r.series()
                                        + "’ by now. Nothing was done.")
                        .field("kind", "the same request again")
                        .with("series", r.series());
            case Refusal.UnknownRecord r ->
                new Problem(Type.UNKNOWN_RECORD, "There is no record " + r.record() + ".")
                        .field("record", "the number of a record; GET /api/v1/records finds them");
            case Refusal.RecordDeleted r ->
                new Problem(Type.RECORD_DELETED, "The record " + r.text() + " was deleted.")
                        .field("record", "one that stands")
                        .with("record", r.record());
            case Refusal.RecordMoved r ->
                new Problem(
                                Type.VERSION_MOVED,
                                "The record " + r.text() + " has version " + r.actual()
                                        + " by now; this change was made on version " + r.expected() + ".")
                        .field("If-Match", "\"" + r.actual() + "\", after a look at what changed")
                        .with("version", r.actual());
            case Refusal.NotInUnit r ->
                new Problem(Type.NOT_IN_UNIT, "The record " + r.text() + " does not stand in ‘" + r.unit() + "’.")
                        .field("unit", String.join(" or ", r.units()))
                        .with("units", r.units());
            case Refusal.InUnitAlready r ->
                new Problem(Type.IN_UNIT_ALREADY, "The record " + r.text() + " stands in ‘" + r.unit() + "’ already.")
                        .field("unit", "a unit in which it does not")
                        .with("record", r.record());
            case Refusal.Disagreeing r ->
                new Problem(
                                Type.DISAGREEING,
                                r.text() + " has " + value(r.theirs()) + " as its ‘" + r.field() + "’ in ‘" + r.unit()
                                        + "’, and would have " + value(r.given())
                                        + " here; it is the same in all units. Nothing was done.")
                        .field("fields." + r.field(), r.theirs().isEmpty() ? "leave it empty" : r.theirs())
                        .with("theirs", r.theirs())
                        .with("given", r.given())
                        .with("unit", r.unit());
            case Refusal.KnownAlready r ->
                new Problem(
                                Type.KNOWN_ALREADY,
                                "‘" + r.value() + "’ as ‘" + r.field() + "’ is what " + r.text() + " is known by.")
                        .field("fields." + r.field(), "a value that no other record has")
                        .with("record", r.record())
                        .with("identifier", r.text());
            case Refusal.LineFaulty r ->
                new Problem(
                                Type.FIELD_FAULTY,
                                r.twice()
                                        ? "The line " + r.number() + " stands here twice."
                                        : "There is no line " + r.number() + ".")
                        .field(
                                "lines[" + r.index() + "].number",
                                "the number of a line that there is, once; leave it out for a new line");
            case Refusal.NoLines r ->
                new Problem(Type.FIELD_FAULTY, "Records of the kind ‘" + r.kind() + "’ have no lines.")
                        .field("lines", "leave them out");
            case Refusal.OfARecord r ->
                new Problem(
                                Type.UNFIT,
                                "‘" + r.identifier()
                                        + "’ is the number of a record that stands, and would be given to another. Nothing was changed.")
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
                        "An identifier that ‘" + r.series() + "’ would give next stands for something else already.");
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
                                "There is no account ‘" + r.account() + "’."
                                        + r.nearest()
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("account", r.nearest().orElse("one that GET /api/v1/accounts lists"));
            case AccountRefusal.Exists r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                "There is an account ‘" + r.account()
                                        + "’ already; a name stands for one account for ever.")
                        .field("name", "a name that no account has");
            case AccountRefusal.NameFaulty r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                r.fault().path() + " " + r.fault().problem() + ".")
                        .field(r.fault().path(), r.fault().accepted());
            case AccountRefusal.Closed r ->
                new Problem(Type.ACCOUNT_FAULTY, "The account ‘" + r.account() + "’ is closed.")
                        .field("account", "an open one; or open it again first");
            case AccountRefusal.UnknownScope r ->
                new Problem(
                                Type.ACCOUNT_FAULTY,
                                "There is no " + r.scope().sort().word() + " ‘"
                                        + r.scope().key() + "’."
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
                                        + "’ is the last who manages access for all; nobody could open accounts any more.")
                        .field("account", "give another person access for all first");
            case AccountRefusal.UnknownToken r ->
                new Problem(Type.UNKNOWN_ACCOUNT, "‘" + r.account() + "’ has no token ‘" + r.token() + "’.")
                        .field("token", "the number of a token of this account");
            case AccountRefusal.TooManyTokens r ->
                new Problem(Type.ACCOUNT_FAULTY, "‘" + r.account() + "’ has " + r.most() + " tokens.")
                        .field("name", "revoke some first; thirty days later they are listed no more");
            case AccountRefusal.NoPassword r ->
                new Problem(Type.ACCOUNT_FAULTY, "‘" + r.account() + "’ is a program, and signs in with tokens alone.")
                        .field("password", "leave it out, and issue a token");
        };
    }

    private static Problem typed(Refusal.TypedFaulty r) {
        String text = "‘" + r.text() + "’";
        String detail =
                switch (r.fault()) {
                    case NOT_OF_THE_PATTERN ->
                        text + " is not a number of ‘" + r.series() + "’ for this date and these fields.";
                    case CHECK_WRONG -> text + " has a wrong check digit.";
                    case OUTSIDE_THE_RANGES -> text + " lies outside the ranges of ‘" + r.series() + "’ for this date.";
                    case SKIPPED -> text + " is a number that ‘" + r.series() + "’ never gives.";
                    case TAKEN -> text + " is taken.";
                    case RETIRED -> text + " was given and returned, and its place has read otherwise since.";
                };
        String accepted =
                switch (r.fault()) {
                    case NOT_OF_THE_PATTERN -> "a number like " + r.instead().orElseThrow();
                    case CHECK_WRONG -> r.instead().orElseThrow() + ", if nothing else is wrong";
                    case OUTSIDE_THE_RANGES, SKIPPED, TAKEN, RETIRED ->
                        "a number that is free; GET /api/v1/identifiers?text= tells what this one stands for";
                };
        return new Problem(Type.TYPED, detail)
                .field("typed", accepted)
                .with("fault", r.fault().name().toLowerCase(Locale.ROOT).replace('_', '-'))
                .with("instead", r.instead().orElse(null));
    }

    /** A state in words that go behind “is”. */
    public static String state(PositionState state) {
        return switch (state) {
            case ISSUED, HELD, RETURNED, USED -> state == PositionState.USED ? "reported as used" : state.word();
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
            case VOID -> "numbers that are held, issued, used or returned";
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
                                ? "‘" + series + "’ takes no fields, and was given ‘" + fault.field() + "’."
                                : "‘" + series + "’ takes no field ‘" + fault.field() + "’.";
                    case MISSING -> "The field ‘" + fault.field() + "’ of ‘" + series + "’ is missing.";
                    case NOT_A_CHOICE ->
                        text + " is not a choice of the field ‘" + fault.field() + "’"
                                + (fault.accepted().isEmpty() ? ", which has none here" : "") + ".";
                    case RETIRED ->
                        text + " is a retired choice of the field ‘" + fault.field() + "’, and is not given any more.";
                    case TOO_LONG -> "The field ‘" + fault.field() + "’ would write " + text + ", which is too long.";
                    case SYMBOL ->
                        "The field ‘" + fault.field() + "’ would write " + text
                                + ", which holds a symbol that the series does not allow.";
                    case NOT_OF_THE_TYPE ->
                        text + " is not what the field ‘" + fault.field() + "’ of ‘" + series + "’ holds.";
                    case FILLED -> "The field ‘" + fault.field() + "’ of ‘" + series + "’ is where the number goes.";
                    case NOTHING_LEFT ->
                        "Nothing of " + text + " is left for the field ‘" + fault.field() + "’ to write.";
                };
        String more = fault.accepted().size() > MOST_CHOICES
                ? " and " + (fault.accepted().size() - MOST_CHOICES) + " more"
                : "";
        String accepted =
                fault.kind() == FieldFault.Kind.FILLED || fault.accepted().isEmpty()
                        ? "leave it out"
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
     * @param file the file it stands in, where files were sent
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
     * @param date a business date on which it would be given
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

    public static Problem definitionsFaulty(List<DefinitionFault> faults) {
        DefinitionFault first = faults.getFirst();
        String more = faults.size() == 1
                ? ""
                : " There "
                        + (faults.size() == 2 ? "is one more fault." : "are " + (faults.size() - 1) + " more faults.");
        String series = first.key() == null || first.key().equals("null") ? "" : "‘" + first.key() + "’: ";
        return new Problem(
                        Type.DEFINITIONS_FAULTY,
                        series + (first.path().isEmpty() ? "" : first.path() + " ") + first.problem() + "." + more)
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
                        Type.OUTCOME_UNKNOWN,
                        "It is not known whether this was done: " + unavailable.getMessage() + ".");
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
            case STOPPED -> new Problem(Type.STOPPED, "No numbers are given: " + unavailable.getMessage() + ".");
        };
    }

    private static String windows(List<DateWindow> windows) {
        return windows.stream().map(DateWindow::toString).distinct().collect(Collectors.joining(", or "));
    }
}
