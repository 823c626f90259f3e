package org.youngtally.ledger;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.series.LaneKey;
import org.youngtally.ledger.journal.Entry;

/** What an entry says of the act that it records. */
final class Entries {
    private Entries() {}

    static Entry.Kind kind(Act<?> act) {
        return switch (act) {
            case Act.Define define -> Entry.Kind.DEFINE;
            case Act.Allocate allocate ->
                switch (allocate.form()) {
                    case Act.Form.Singles singles -> Entry.Kind.ALLOCATE;
                    case Act.Form.Block block -> Entry.Kind.BLOCK;
                    case Act.Form.Held held -> Entry.Kind.HOLD;
                    case Act.Form.Typed typed -> Entry.Kind.TYPE;
                };
            case Act.Settle settle ->
                switch (settle.deed()) {
                    case CONFIRM -> Entry.Kind.CONFIRM;
                    case RELEASE -> Entry.Kind.RELEASE;
                    case RETURN -> Entry.Kind.RETURN;
                    case VOID -> Entry.Kind.VOID;
                    case USE -> Entry.Kind.USE;
                };
            case Act.Lapse lapse -> Entry.Kind.LAPSE;
            case Act.Split split -> Entry.Kind.SPLIT;
            case Act.Close close -> Entry.Kind.CLOSE;
            case Act.Reopen reopen -> Entry.Kind.REOPEN;
            case Act.RemoveRoute remove -> Entry.Kind.REMOVE;
            case Act.ChangeAccount change -> Entry.Kind.ACCESS;
            case Act.SaveRecord save -> Entry.Kind.SAVE;
            case Act.ChangeRecord change ->
                switch (change.change()) {
                    case RecordChange.Edit edit -> Entry.Kind.CHANGE;
                    case RecordChange.Fix fix -> Entry.Kind.CHANGE;
                    case RecordChange.Attach attach -> Entry.Kind.CHANGE;
                    case RecordChange.Renumber renumber -> Entry.Kind.RENUMBER;
                    case RecordChange.Delete delete -> Entry.Kind.DELETE;
                    case RecordChange.TakeOver over -> Entry.Kind.SHARE;
                };
            case Act.FillTable fill -> Entry.Kind.FILL;
            case Act.NumberRows rows -> Entry.Kind.FILL;
            case Act.NumberDocument number -> Entry.Kind.FILL;
            case Act.PrintLabels print -> Entry.Kind.PRINT;
            case Act.ChangeLabels change ->
                switch (change.step()) {
                    case LabelStep.Send send -> Entry.Kind.SEND;
                    case LabelStep.Note note -> Entry.Kind.NOTE;
                    case LabelStep.Confirm confirm -> Entry.Kind.NOTE;
                    case LabelStep.Reprint reprint -> Entry.Kind.REPRINT;
                    case LabelStep.Spoil spoil -> Entry.Kind.SPOIL;
                    case LabelStep.Cancel cancel -> Entry.Kind.CANCEL;
                };
            case Act.Continue on -> Entry.Kind.CONTINUE;
            case Act.StateHighest stated -> Entry.Kind.STATE;
            case Act.Resume resume -> Entry.Kind.RESUME;
            case Act.CarryOut carry ->
                switch (carry.step()) {
                    case PlanStep.Begin begin -> Entry.Kind.PLAN;
                    case PlanStep.Record record -> Entry.Kind.RECORD;
                    case PlanStep.CloseGaps close -> Entry.Kind.CLOSE_GAPS;
                    case PlanStep.Complete complete -> Entry.Kind.CARRY_OUT;
                    case PlanStep.Abandon abandon -> Entry.Kind.ABANDON;
                };
        };
    }

    /**
     * @param series of a block, by the number of its lane
     * @param effects what became of it
     */
    static Optional<Entry.Request> request(Act<?> act, List<Effect> effects, IntFunction<LaneKey> series) {
        return switch (act) {
            case Act.Define define -> Optional.empty();
            case Act.Lapse lapse -> Optional.empty();
            case Act.RemoveRoute remove -> Optional.empty();
            case Act.ChangeAccount change ->
                Optional.of(request(
                        Optional.empty(),
                        Optional.empty(),
                        0,
                        Optional.empty(),
                        change.mark(),
                        Optional.of(change.note())));
            case Act.Allocate a ->
                Optional.of(new Entry.Request(
                        Optional.of(a.series()),
                        Optional.of(particulars(effects)),
                        a.quantity(),
                        a.reference(),
                        a.mark().key(),
                        a.mark().digest(),
                        a.form() instanceof Act.Form.Block block ? block.holder() : Optional.empty(),
                        a.purpose()));
            case Act.SaveRecord a ->
                Optional.of(new Entry.Request(
                        Optional.of(a.series()),
                        Optional.of(particulars(effects)),
                        1,
                        Optional.empty(),
                        a.mark().key(),
                        a.mark().digest(),
                        Optional.empty(),
                        new Purpose(Optional.of(a.kind()), Optional.of(a.unit()))));
            case Act.ChangeRecord a -> Optional.of(changed(a, effects));
            case Act.FillTable a -> Optional.of(filled(a, effects, series));
            case Act.NumberRows a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        Optional.empty(),
                        a.rows().stream().mapToLong(Act.PlanRow::quantity).sum(),
                        Optional.empty(),
                        a.mark(),
                        Optional.of("plan " + a.plan())));
            case Act.NumberDocument a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        same(effects),
                        a.rows().size(),
                        Optional.empty(),
                        a.mark(),
                        Optional.of("document " + a.document())));
            case Act.PrintLabels a ->
                Optional.of(new Entry.Request(
                        Optional.of(a.job().series()),
                        same(effects),
                        a.job().numbers(),
                        Optional.empty(),
                        a.mark().key(),
                        a.mark().digest(),
                        Optional.empty(),
                        a.purpose()));
            case Act.ChangeLabels a ->
                Optional.of(new Entry.Request(
                        Optional.of(a.series()),
                        Optional.empty(),
                        quantity(effects),
                        Optional.empty(),
                        a.mark().key(),
                        a.mark().digest(),
                        Optional.of(note(a)),
                        a.purpose()));
            case Act.Continue a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        Optional.of(a.particulars()),
                        issued(effects).mapToLong(Effect.Issued::quantity).sum(),
                        Optional.empty(),
                        a.mark(),
                        a.reason()));
            case Act.StateHighest a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        Optional.empty(),
                        quantity(effects),
                        Optional.empty(),
                        a.mark(),
                        a.reason()));
            case Act.Resume a ->
                Optional.of(request(Optional.empty(), Optional.empty(), 0, Optional.empty(), a.mark(), a.reason()));
            case Act.CarryOut a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        Optional.empty(),
                        quantity(a.step(), effects),
                        Optional.empty(),
                        a.mark(),
                        note(a.step())));
            case Act.Settle a ->
                Optional.of(request(
                        Optional.of(a.series()),
                        Optional.empty(),
                        quantity(effects),
                        Optional.empty(),
                        a.mark(),
                        a.reason()));
            case Act.Split a ->
                Optional.of(request(
                        effects.stream()
                                .filter(Effect.Handed.class::isInstance)
                                .findFirst()
                                .map(effect -> series.apply(((Effect.Handed) effect).lane())
                                        .series()),
                        Optional.empty(),
                        a.quantity(),
                        Optional.empty(),
                        a.mark(),
                        a.holder()));
            case Act.Close a ->
                Optional.of(request(
                        a.period().scope() == Period.Scope.SERIES
                                ? Optional.of(a.period().key())
                                : Optional.empty(),
                        Optional.empty(),
                        quantity(effects),
                        Optional.empty(),
                        a.mark(),
                        a.note()));
            case Act.Reopen a ->
                Optional.of(request(Optional.empty(), Optional.empty(), 0, Optional.empty(), a.mark(), a.reason()));
        };
    }

    private static long quantity(PlanStep step, List<Effect> effects) {
        return switch (step) {
            case PlanStep.Begin begin ->
                begin.plan().preexisting() + begin.plan().rows();
            case PlanStep.Record record ->
                issued(effects).mapToLong(Effect.Issued::quantity).sum();
            case PlanStep.CloseGaps close ->
                effects.stream()
                        .filter(Effect.GapClosed.class::isInstance)
                        .mapToLong(effect -> ((Effect.GapClosed) effect).quantity())
                        .sum();
            case PlanStep.Complete complete -> 0;
            case PlanStep.Abandon abandon -> 0;
        };
    }

    private static Optional<String> note(PlanStep step) {
        return switch (step) {
            case PlanStep.Begin begin ->
                Optional.of(begin.plan().file()
                        + begin.reason().map(reason -> ": " + reason).orElse(""));
            case PlanStep.Record record -> Optional.of("plan " + record.plan());
            case PlanStep.CloseGaps close -> Optional.of("plan " + close.plan());
            case PlanStep.Complete complete -> Optional.of("plan " + complete.plan());
            case PlanStep.Abandon abandon ->
                Optional.of("plan " + abandon.plan() + ": " + abandon.reason().orElse(""));
        };
    }

    private static String note(Act.ChangeLabels act) {
        Optional<String> reason =
                switch (act.step()) {
                    case LabelStep.Reprint reprint -> reprint.reason();
                    case LabelStep.Spoil spoil -> spoil.reason();
                    case LabelStep.Cancel cancel -> cancel.reason();
                    case LabelStep.Send send -> send.printer().map(printer -> "to " + printer);
                    case LabelStep.Note note -> note.reason();
                    case LabelStep.Confirm confirm -> Optional.empty();
                };
        return "label job " + act.job() + reason.map(why -> ": " + why).orElse("");
    }

    private static Entry.Request changed(Act.ChangeRecord act, List<Effect> effects) {
        KeptRecord record = effects.stream()
                .filter(Effect.RecordKept.class::isInstance)
                .map(effect -> ((Effect.RecordKept) effect).record())
                .findFirst()
                .orElseThrow();
        Optional<String> note =
                switch (act.change()) {
                    case RecordChange.Renumber renumber -> renumber.reason();
                    case RecordChange.Delete delete -> delete.reason();
                    case RecordChange.Fix fix -> Optional.of("the lines keep their numbers");
                    case RecordChange.Attach attach ->
                        Optional.of("attached " + record.fileName(record.files().size() - 1));
                    case RecordChange.Edit edit -> Optional.empty();
                    case RecordChange.TakeOver over -> Optional.empty();
                };
        Optional<Particulars> particulars = issued(effects).findFirst().map(Effect.Issued::particulars);
        return new Entry.Request(
                Optional.of(record.number().series()),
                particulars,
                particulars.isPresent() ? 1 : quantity(effects),
                Optional.empty(),
                act.mark().key(),
                act.mark().digest(),
                note,
                new Purpose(Optional.of(record.kind()), Optional.of(act.unit())));
    }

    /** Its series and what its numbers are for, where these are the same in all rows. */
    private static Entry.Request filled(Act.FillTable act, List<Effect> effects, IntFunction<LaneKey> series) {
        // A lane that this act opens is not among the others yet.
        Map<Integer, LaneKey> opened = effects.stream()
                .filter(Effect.LaneOpened.class::isInstance)
                .map(Effect.LaneOpened.class::cast)
                .collect(Collectors.toMap(Effect.LaneOpened::lane, Effect.LaneOpened::key));
        List<String> used = issued(effects)
                .map(Effect.Issued::lane)
                .distinct()
                .map(lane -> (opened.containsKey(lane) ? opened.get(lane) : series.apply(lane)).series())
                .distinct()
                .toList();
        return new Entry.Request(
                used.size() == 1 ? Optional.of(used.getFirst()) : Optional.empty(),
                same(effects),
                act.rows().size(),
                Optional.empty(),
                act.mark().key(),
                act.mark().digest(),
                Optional.empty(),
                new Purpose(Optional.of(act.kind()), Optional.of(act.unit())));
    }

    private static Stream<Effect.Issued> issued(List<Effect> effects) {
        return effects.stream().filter(Effect.Issued.class::isInstance).map(Effect.Issued.class::cast);
    }

    private static Entry.Request request(
            Optional<String> series,
            Optional<Particulars> particulars,
            long quantity,
            Optional<String> reference,
            RequestMark mark,
            Optional<String> note) {
        return new Entry.Request(
                series, particulars, quantity, reference, mark.key(), mark.digest(), note, Purpose.NONE);
    }

    private static long quantity(List<Effect> effects) {
        return effects.stream()
                .filter(Effect.Settled.class::isInstance)
                .mapToLong(effect -> ((Effect.Settled) effect).quantity())
                .sum();
    }

    /** What numbers were taken for, where it is the same for all of them. */
    private static Optional<Particulars> same(List<Effect> effects) {
        List<Particulars> taken =
                issued(effects).map(Effect.Issued::particulars).distinct().toList();
        return taken.size() == 1 ? Optional.of(taken.getFirst()) : Optional.empty();
    }

    /** What all numbers of one act were taken for. */
    private static Particulars particulars(List<Effect> effects) {
        return issued(effects).map(Effect.Issued::particulars).findFirst().orElseThrow();
    }
}
