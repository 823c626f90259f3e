package org.youngtally.service.api;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PositionState;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Keeping;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.series.Order;
import org.youngtally.core.series.Policy;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.service.web.Refusals;

/** What texts of the interface can be, and what properties are called everywhere. */
final class Vocabulary {
    private Vocabulary() {}

    private static final List<String> ACTS = words(Entry.Kind.values(), Entry.Kind::word);
    private static final List<String> STATES = words(PositionState.values(), PositionState::word);
    private static final List<String> TYPING = words(Policy.Typed.values(), Policy.Typed::word);

    private static final List<String> ORDERS = words(Order.Kind.values(), Order.Kind::word);
    private static final List<String> CHANGES = List.of("new", "changed", "unchanged");

    /** The words that a property can hold, by schema and property. */
    static final Map<String, List<String>> WORDS = Map.ofEntries(
            Map.entry("EntryView.act", ACTS),
            Map.entry("ChangeView.act", ACTS),
            Map.entry("RecordVersion.act", ACTS),
            Map.entry("VoidView.act", ACTS),
            Map.entry("Settlement.act", ACTS),
            Map.entry("EntryView.state", STATES),
            Map.entry("Settlement.state", STATES),
            Map.entry("VoidView.kind", STATES),
            Map.entry("VoidLine.kind", STATES),
            Map.entry("IdentifierView.state", told("retired")),
            Map.entry("RecordDetail.state", told("returned")),
            Map.entry("AccountView.sort", words(Account.Sort.values(), Account.Sort::word)),
            Map.entry("OpeningRequest.sort", words(Account.Sort.values(), Account.Sort::word)),
            Map.entry("GrantView.right", words(Right.values(), Right::word)),
            Map.entry("PolicyView.typed", TYPING),
            Map.entry("RecordPreview.typing", TYPING),
            Map.entry("SeriesView.order", ORDERS),
            Map.entry("SeriesView.state", List.of("serving", "exhausted", "closed")),
            Map.entry("RangeView.state", List.of("serving", "not open", "closed", "exhausted")),
            Map.entry("TokenView.state", List.of("in force", "expired", "revoked")),
            Map.entry("NamespaceChangeView.change", CHANGES),
            Map.entry("CodebookChangeView.change", CHANGES),
            Map.entry("SeriesChangeView.change", CHANGES),
            Map.entry("PartChangeView.change", CHANGES),
            Map.entry("PartChangeView.what", List.of("unit", "kind", "route", "layout")),
            Map.entry("LayoutView.advance", LayoutDraft.ADVANCES),
            Map.entry("Scan.form", List.of("joined", "bracketed", "link", "plain")),
            Map.entry("PlanView.state", List.of("open", "carried out", "abandoned")),
            Map.entry("PlanView.gaps", words(TablePlan.Gaps.values(), TablePlan.Gaps::word)),
            Map.entry("RepairView.slip", List.of("wrong symbol", "swap")),
            Map.entry("KindFieldView.type", words(KindField.Type.values(), KindField.Type::word)),
            Map.entry("KindView.deleting", words(Keeping.Deleting.values(), Keeping.Deleting::word)),
            Map.entry("ClosingView.scope", words(Period.Scope.values(), Period.Scope::word)),
            Map.entry("Statement.scope", words(Period.Scope.values(), Period.Scope::word)),
            Map.entry("TriedView.verdict", List.of("chosen", "condition-fails", "not-reached")),
            Map.entry("Progress.step", List.of("waiting", "reading", "numbering", "writing the file")));

    /** Texts that are dates. */
    static final Set<String> DATES = Set.of(
            "AllocationRequest.date",
            "BlockRequest.date",
            "RecordRequest.date",
            "SavingRequest.date",
            "PreviewRequest.date",
            "DateRequest.date",
            "ClosingRequest.from",
            "ClosingRequest.to",
            "TokenRequest.expires");

    static final Set<String> DURATIONS =
            Set.of("AllocationRequest.hold", "RecordRequest.hold", "ClearingRequest.olderThan");

    /** What properties and parameters mean wherever they stand, where the source says nothing of its own. */
    static final Map<String, String> MEANINGS = Map.ofEntries(
            Map.entry("seq", "The number of the entry in the ledger"),
            Map.entry("entry", "The number of an entry in the ledger"),
            Map.entry("at", "When it was done, by the service's clock"),
            Map.entry("by", "The account that did it"),
            Map.entry("series", "The key of a series"),
            Map.entry("namespace", "The key of a namespace: the set within which identifiers are unique"),
            Map.entry("codebook", "The key of a codebook"),
            Map.entry("kind", "The key of a kind of record"),
            Map.entry("unit", "The key of a unit"),
            Map.entry("key", "The key"),
            Map.entry("title", "The name for people"),
            Map.entry("name", "The name"),
            Map.entry("date", "The business date"),
            Map.entry("quantity", "How many"),
            Map.entry("reference", "The caller's own name for what the numbers are for, unique in the series"),
            Map.entry("identifier", "The number as text"),
            Map.entry("identifiers", "The numbers as texts"),
            Map.entry("first", "The first of them"),
            Map.entry("last", "The last of them, included"),
            Map.entry("fields", "Values by the names of the fields"),
            Map.entry("version", "How often it was defined or changed, counted from 1"),
            Map.entry("note", "A note on it"),
            Map.entry("reason", "The reason, kept in the ledger"),
            Map.entry("record", "The number of a record inside the service, not its identifier"),
            Map.entry("account", "The name of an account"),
            Map.entry("token", "A token, or the name by which one is known"),
            Map.entry("block", "The number of the block, that of its entry"),
            Map.entry("closing", "The number of the entry that closed the period"),
            Map.entry("repeated", "Whether this is the answer to an earlier request with the same key or reference"),
            Map.entry("state", "What it is now"),
            Map.entry("act", "What was done"),
            Map.entry("holder", "Who uses the numbers of a block"),
            Map.entry("typed", "The typed number; default: the next of the count"),
            Map.entry("hold", "How long they are held; default: they are issued immediately"),
            Map.entry("head", "The number and the hash of the newest entry"),
            Map.entry("lane", "The independent counter, by its period or fields"),
            Map.entry("position", "Counted from 0 within the lane"),
            Map.entry("opens", "The first date"),
            Map.entry("closes", "The last date"),
            Map.entry("step", "From one value to the next"),
            Map.entry("pattern", "The text of an identifier with fields in braces"),
            Map.entry("grants", "The grants: rights and scopes"),
            Map.entry("right", "The right"),
            Map.entry("scope", "The scope: all, or a type and a key, such as unit works"),
            Map.entry("warnings", "What people should know"),
            Map.entry("remarks", "What people should know"),
            Map.entry("text", "As it is written"),
            Map.entry("password", "As plain text; only a hash is stored"),
            Map.entry("accepted", "What is accepted"),
            Map.entry("after", "What it is afterwards"),
            Map.entry("before", "What it was before"),
            Map.entry("answer", "What is answered"),
            Map.entry("cells", "The cells of the grid"),
            Map.entry("choices", "The choices, in order"),
            Map.entry("chronological", "Whether no number may be dated before the newest one of its lane"),
            Map.entry("closed", "Whether it is closed"),
            Map.entry("codebooks", "Codebooks"),
            Map.entry("condition", "When it holds, in words"),
            Map.entry("day", "The day of the month"),
            Map.entry("differences", "What differs"),
            Map.entry("dryRun", "Whether nothing was done"),
            Map.entry("entries", "Entries of the ledger"),
            Map.entry("example", "A valid value"),
            Map.entry("expires", "The last day on which it is valid"),
            Map.entry("faults", "What is wrong"),
            Map.entry("field", "The name of a field"),
            Map.entry("files", "Files"),
            Map.entry("findings", "What the audit found"),
            Map.entry("from", "The start"),
            Map.entry("gaps", "Whether positions may stay without a number: refused or allowed"),
            Map.entry("id", "The number"),
            Map.entry("into", "The field that receives the number"),
            Map.entry("issued", "How many, or when, it was issued"),
            Map.entry("kinds", "Kinds of record"),
            Map.entry("lanes", "Its independent counters"),
            Map.entry("latest", "The newest"),
            Map.entry("lines", "Lines of a record, in order"),
            Map.entry("meaning", "The meaning"),
            Map.entry("more", "How many more there are"),
            Map.entry("namespaces", "Namespaces"),
            Map.entry("next", "A preview of the next numbers"),
            Map.entry("number", "A number of a line"),
            Map.entry("organisation", "Units, kinds and routes"),
            Map.entry("path", "The place in the file"),
            Map.entry("positions", "How many positions"),
            Map.entry("problem", "What is wrong"),
            Map.entry("ranges", "Its ranges, in order"),
            Map.entry("rates", "Numbers per day"),
            Map.entry("remark", "What people should know"),
            Map.entry("required", "Whether it is required"),
            Map.entry("restarts", "What the count restarts with"),
            Map.entry("retired", "Whether it is out of use"),
            Map.entry("returns", "Whether issued numbers can be returned: allowed or refused"),
            Map.entry("revoked", "When it was revoked"),
            Map.entry("route", "A route"),
            Map.entry("scheme", "The name of a check scheme"),
            Map.entry("status", "What it is now"),
            Map.entry("steps", "What was tried, in order"),
            Map.entry("to", "The end, included"),
            Map.entry("today", "Today by the service's clock"),
            Map.entry("tokens", "Tokens"),
            Map.entry("tried", "What was tried"),
            Map.entry("units", "Units"),
            Map.entry("until", "When the hold ends"),
            Map.entry("value", "The value"),
            Map.entry("variables", "What is filled in"),
            Map.entry("voids", "Void numbers"),
            Map.entry("within", "The field whose choice narrows this one"),
            Map.entry("zone", "The time zone of the service"),
            Map.entry("If-Match", "The ETag of the version that is to be changed"),
            Map.entry("If-None-Match", "*, for a new one"));

    private static <T> List<String> words(T[] all, Function<T, String> word) {
        return Arrays.stream(all).map(word).distinct().toList();
    }

    /** States as they are told of one number, and one more. */
    private static List<String> told(String more) {
        return Stream.concat(Arrays.stream(PositionState.values()).map(Refusals::state), Stream.of(more))
                .distinct()
                .toList();
    }
}
