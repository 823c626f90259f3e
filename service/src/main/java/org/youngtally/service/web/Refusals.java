package org.youngtally.service.web;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.proof.Clash;
import org.youngtally.core.series.DateWindow;
import org.youngtally.core.series.FieldFault;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.service.web.Problem.Type;

/** Puts the ledger's refusals into words. */
public final class Refusals {
    private static final int MOST_CHOICES = 30;

    private Refusals() {}

    public static Problem problem(Refusal refusal) {
        return switch (refusal) {
            case Refusal.UnknownSeries r -> new Problem(Type.UNKNOWN_SERIES, "There is no series ‘" + r.series() + "’." + r.nearest().map(near -> " Did you mean ‘" + near + "’?").orElse(""))
                    .field("series", r.nearest().orElse("the key of a series; GET /api/v1/series lists them")).with("nearest", r.nearest().orElse(null));
            case Refusal.QuantityOutOfBounds r -> new Problem(Type.QUANTITY, r.quantity() < 1 ? "A quantity of " + r.quantity() + " is less than one." : "A quantity of " + r.quantity() + " is more than " + r.most() + ", the most that stand alone in one request.")
                    .field("quantity", r.form() == Act.Form.BLOCK ? "1 or more" : "1 to " + r.most() + "; take more as a block").with("most", r.form() == Act.Form.BLOCK ? null : r.most());
            case Refusal.DateNotServed r -> new Problem(Type.DATE_NOT_SERVED, "No range of ‘" + r.series() + "’ serves " + r.date() + ".").field("date", "a date " + windows(r.served()))
                    .with("served", r.served().stream().map(DateWindow::toString).toList());
            case Refusal.Exhausted r -> new Problem(Type.EXHAUSTED, "‘" + r.series() + "’ has " + (r.left() == 0 ? "no numbers" : r.left() == 1 ? "one number" : r.left() + " numbers") + " left for " + r.date() + ", " + r.quantity() + " were asked for, and none was taken. "
                    + r.opensNext().map(opens -> "The next range opens on " + opens + ".").orElse("No further range is defined."))
                    .field(r.left() == 0 ? "date" : "quantity", r.left() > 0 ? "1 to " + r.left() : r.opensNext().map(opens -> "a date from " + opens).orElse("nothing until an administrator adds a range")).with("left", r.left()).with("opensNext", r.opensNext().orElse(null));
            case Refusal.FieldFaulty r -> field(r.series(), r.fault());
            case Refusal.BlockInPieces r -> new Problem(Type.QUANTITY, "A block of " + r.quantity() + " would fall into more than 1,000 pieces around the values that ‘" + r.series() + "’ never gives.").field("quantity", "1 to " + r.most()).with("most", r.most());
            case Refusal.NoBlocks r -> new Problem(Type.NO_BLOCKS, "‘" + r.series() + "’ gives no blocks: " + (r.repeats() ? "its marks come round again." : "its proof is waived, so that each number is looked up when it is given.")).field("series", "numbers that stand alone, up to 10,000 in one request");
            case Refusal.KeyReused r -> new Problem(Type.KEY_REUSED, "The key ‘" + r.key() + "’ stands for another request, entry " + r.seq() + ".").field("Idempotency-Key", "a key that was never used, or the same request as then").with("seq", r.seq());
            case Refusal.ReferenceReused r -> new Problem(Type.REFERENCE_REUSED, "The reference ‘" + r.reference() + "’ of ‘" + r.series() + "’ stands for another request, entry " + r.seq() + ".").field("reference", "another reference, or the same request as then").with("seq", r.seq());
            case Refusal.VersionMoved r -> new Problem(Type.VERSION_MOVED, r.actual() == 0 ? "There is no " + word(r.what()) + " ‘" + r.key() + "’ any more." : r.expected() == 0 ? "There is a " + word(r.what()) + " ‘" + r.key() + "’ already." : "‘" + r.key() + "’ has version " + r.actual() + " by now; this change was made on version " + r.expected() + ".")
                    .field(r.expected() == 0 ? "key" : "If-Match", r.expected() == 0 ? "a key that no " + word(r.what()) + " has" : "\"" + r.actual() + "\", after a look at what changed").with("version", r.actual());
            case Refusal.IdentifierTaken r -> new Problem(Type.IDENTIFIER_TAKEN, "An identifier that ‘" + r.series() + "’ would give next stands for something else already.");
            case Refusal.DefinitionsFaulty r -> {
                yield definitionsFaulty(faults(r));
            }
        };
    }

    public static List<DefinitionFault> faults(Refusal.DefinitionsFaulty faulty) { return faulty.faults().stream().flatMap(draft -> draft.faults().stream().map(fault -> DefinitionFault.of(null, null, draft, fault))).toList(); }

    /** What is defined, in the word of the interface. */
    public static String word(Refusal.What what) { return what.name().toLowerCase(Locale.ROOT); }

    private static Problem field(String series, FieldFault fault) {
        String text = "‘" + fault.text() + "’";
        String detail = switch (fault.kind()) {
            case NOT_A_FIELD -> fault.accepted().isEmpty() ? "‘" + series + "’ takes no fields, and was given ‘" + fault.field() + "’." : "‘" + series + "’ takes no field ‘" + fault.field() + "’.";
            case MISSING -> "The field ‘" + fault.field() + "’ of ‘" + series + "’ is missing.";
            case NOT_A_CHOICE -> text + " is not a choice of the field ‘" + fault.field() + "’" + (fault.accepted().isEmpty() ? ", which has none here" : "") + ".";
            case RETIRED -> text + " is a retired choice of the field ‘" + fault.field() + "’, and is not given any more.";
            case TOO_LONG -> "The field ‘" + fault.field() + "’ would write " + text + ", which is too long.";
            case SYMBOL -> "The field ‘" + fault.field() + "’ would write " + text + ", which holds a symbol that the series does not allow.";
            case NOTHING_LEFT -> "Nothing of " + text + " is left for the field ‘" + fault.field() + "’ to write.";
        };
        String more = fault.accepted().size() > MOST_CHOICES ? " and " + (fault.accepted().size() - MOST_CHOICES) + " more" : "";
        String accepted = fault.accepted().isEmpty() ? "leave it out" : String.join(", ", fault.accepted().subList(0, Math.min(MOST_CHOICES, fault.accepted().size()))) + more;
        return new Problem(Type.FIELD_FAULTY, detail + fault.nearest().map(near -> " Did you mean ‘" + near + "’?").orElse("")).field("fields." + fault.field(), accepted).with("nearest", fault.nearest().orElse(null));
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
    public record DefinitionFault(@Nullable String file, @Nullable Integer line, @Nullable String what, @Nullable Integer index, @Nullable String key, String path, String problem, String accepted, @Nullable ClashView clash) {
        public static DefinitionFault of(String file, Integer line, Refusal.DraftFaults draft, Fault fault) {
            return new DefinitionFault(file, line, word(draft.what()), draft.index() < 0 ? null : draft.index(), draft.key(), fault.path(), fault.problem(), fault.accepted(), draft.clash().map(ClashView::of).orElse(null));
        }
    }

    /** Two numbers that would be written alike. @param text as the first of them is written */
    public record ClashView(String text, WayView one, WayView other) {
        static ClashView of(Clash clash) { return new ClashView(clash.text(), WayView.of(clash.one()), WayView.of(clash.other())); }
    }

    /**
     * One way in which an identifier would arise.
     *
     * @param range the range as people read it
     * @param lane the period that the lane counts for; empty where the count does not restart
     * @param date a business date on which it would be given
     * @param fields the codes and texts of its fields
     */
    public record WayView(String series, String range, String lane, LocalDate date, Map<String, String> fields, long position, long value) {
        static WayView of(Clash.Way way) { return new WayView(way.series(), way.rangeText(), way.period(), way.particulars().date(), way.particulars().fields(), way.position(), way.value()); }
    }

    public static Problem definitionsFaulty(List<DefinitionFault> faults) {
        DefinitionFault first = faults.getFirst();
        String more = faults.size() == 1 ? "" : " There " + (faults.size() == 2 ? "is one more fault." : "are " + (faults.size() - 1) + " more faults.");
        String series = first.key() == null || first.key().equals("null") ? "" : "‘" + first.key() + "’: ";
        return new Problem(Type.DEFINITIONS_FAULTY, series + (first.path().isEmpty() ? "" : first.path() + " ") + first.problem() + "." + more).field(first.path(), first.accepted()).with("faults", faults);
    }

    public static Problem problem(LedgerUnavailable unavailable) {
        return switch (unavailable.kind()) {
            case BUSY -> new Problem(Type.BUSY, "Nothing was done: " + unavailable.getMessage() + ".");
            case OUTCOME_UNKNOWN -> new Problem(Type.OUTCOME_UNKNOWN, "It is not known whether this was done: " + unavailable.getMessage() + ".");
            case STOPPED -> new Problem(Type.STOPPED, "No numbers are given: " + unavailable.getMessage() + ".");
        };
    }

    private static String windows(List<DateWindow> windows) {
        return windows.stream().map(DateWindow::toString).distinct().collect(Collectors.joining(", or "));
    }
}
