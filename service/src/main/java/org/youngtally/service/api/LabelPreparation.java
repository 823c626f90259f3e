package org.youngtally.service.api;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.Refusal.DraftFaults;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.api.LabelController.LabelFault;
import org.youngtally.service.api.LabelController.LabelRequest;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.label.ExpectedNumbers;
import org.youngtally.service.label.LabelRun;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;

/** Finds what labels are drawn from: their layout, their series, and the numbers that it would allocate. */
@Component
class LabelPreparation {
    /** What a layout that is sent is called as a file. */
    private static final String WRITTEN = "definition";

    private static final long MOST_LABELS = 1_000_000;
    /** The most that are drawn for one answer. */
    static final int MOST_DRAWN = 20_000;

    private static final int MOST_COPIES = 100;

    private final Ledger ledger;

    LabelPreparation(Ledger ledger) {
        this.ledger = ledger;
    }

    /**
     * A run of labels with its numbers.
     *
     * @param act what would allocate them
     * @param missing fields that are asked for and have no value
     * @param version of the layout; 0 for one that is not applied
     * @param file in which the layout is written; absent for one that is applied
     */
    record Prepared(
            LabelRun run,
            Series series,
            Act.Allocate act,
            ExpectedNumbers numbers,
            List<LabelFault> missing,
            int version,
            Optional<DefinitionFile> file) {
        String identifier(long label) {
            return numbers.identifier(run.identifierOf(label));
        }

        /** What prints them. */
        Act.PrintLabels print(RequestMark mark) {
            var job = new LabelJob(
                    run.layout().key(),
                    version,
                    series.key(),
                    run.date(),
                    act.purpose().kind(),
                    act.purpose().unit(),
                    run.fields(),
                    Optional.empty(),
                    run.labels(),
                    run.labels() / run.identifiers(),
                    run.copies(),
                    Optional.empty());
            return new Act.PrintLabels(job, act.date(), List.of(new Act.LabelRow(act.fields(), act.quantity())), mark);
        }

        /** The line of an item of the layout, where it is written. */
        Integer line(String path) {
            return file.map(each -> each.line(What.LAYOUT, 0, path)).orElse(null);
        }
    }

    /**
     * Finds the layout, the series and the numbers that are expected.
     *
     * @param right that it takes
     * @throws Problem where one of them is missing or cannot be
     */
    Prepared of(LabelRequest request, Right right, Caller caller) {
        if ((request.layout() == null) == (request.definition() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.layout() == null
                                    ? "No layout is named."
                                    : "A layout is named, and a definition sent with it.")
                    .field("layout", "the key of a layout; or, as definition, the text of a file with one");
        Optional<DefinitionFile> file =
                Optional.ofNullable(request.definition()).map(LabelPreparation::written);
        KeptLayout kept = file.map(
                        each -> new KeptLayout(each.drafts().layouts().getFirst(), 0))
                .orElseGet(() -> kept(request.layout(), caller));
        Layout layout = checked(kept.draft(), file);
        long quantity = request.quantity() == null ? 1 : request.quantity();
        int copies = request.copies() == null ? 1 : request.copies();
        if (copies < 1 || copies > MOST_COPIES)
            throw new Problem(Type.MALFORMED, copies + " copies of a label are not made.")
                    .field("copies", "1 to " + MOST_COPIES);
        long most = MOST_LABELS / copies / LabelRun.labels(layout, 1);
        if (quantity < 1 || quantity > most)
            throw new Problem(Type.QUANTITY, "More than %,d labels are not printed at once.".formatted(MOST_LABELS))
                    .field("quantity", most < 1 ? "fewer copies" : "1 to %,d with these copies".formatted(most));
        SortedMap<String, String> given =
                Requests.fields(request.fields(), request.series() == null ? null : request.unit());
        Act.Allocate act = act(request, layout, quantity, given, right, caller);
        Series series = caller.snapshot().series().get(act.series());
        ExpectedNumbers numbers =
                switch (ledger.decide(caller.snapshot(), act)) {
                    case Decision.Done done -> new ExpectedNumbers(series, caller.snapshot(), done.effects());
                    case Decision.Refused refused -> throw Refusals.problem(refused.refusal());
                    case Decision.Repeated repeated -> throw new IllegalStateException("a preview has no key");
                    case Decision.Known known -> throw new IllegalStateException("a preview keeps no record");
                };
        LabelRun run = LabelRun.of(
                layout, quantity, copies, numbers.date(), act.purpose().unit(), given);
        List<LabelFault> missing = layout.asked().stream()
                .filter(asked -> given.getOrDefault(asked.name(), "").isBlank())
                .map(asked -> new LabelFault(
                        1,
                        numbers.identifier(0),
                        "fields." + asked.name(),
                        "(" + asked.title() + ") is asked for, and has no value",
                        "a value for " + asked.name(),
                        null))
                .toList();
        return new Prepared(run, series, act, numbers, missing, kept.version(), file);
    }

    /** The layout that is applied under a key. */
    static KeptLayout kept(String layout, Caller caller) {
        Map<String, KeptLayout> layouts = caller.snapshot().organisation().layouts();
        return Optional.ofNullable(layouts.get(layout)).orElseThrow(() -> new Problem(
                        Type.UNKNOWN_LAYOUT,
                        "Layout ‘" + layout + "’ not found."
                                + NearestName.to(layout, layouts.keySet())
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field("layout", "a layout that is applied"));
    }

    /** A definition file that holds one layout, and nothing else that matters. */
    private static DefinitionFile written(String text) {
        DefinitionFile file = DefinitionFile.read(WRITTEN, text);
        if (!file.faults().isEmpty()) throw Refusals.definitionsFaulty(file.faults());
        int layouts = file.drafts().layouts().size();
        if (layouts != 1)
            throw new Problem(Type.MALFORMED, "The definition holds " + layouts + " layouts.")
                    .field("definition", "layouts: and one layout");
        return file;
    }

    static Layout checked(LayoutDraft draft, Optional<DefinitionFile> file) {
        LayoutCheck.Result checked = LayoutCheck.of(draft);
        if (checked.layout().isPresent()) return checked.layout().get();
        var faults = new DraftFaults(What.LAYOUT, 0, String.valueOf(draft.key()), checked.faults(), Optional.empty());
        throw Refusals.definitionsFaulty(checked.faults().stream()
                .map(fault -> DefinitionFault.of(
                        file.map(DefinitionFile::name).orElse(null),
                        file.map(each -> each.line(What.LAYOUT, 0, fault.path()))
                                .orElse(null),
                        faults,
                        fault))
                .toList());
    }

    /** What would be allocated: above a thousand as a block. */
    private Act.Allocate act(
            LabelRequest request,
            Layout layout,
            long quantity,
            SortedMap<String, String> given,
            Right right,
            Caller caller) {
        long identifiers = layout.advance() == Layout.Advance.JOB ? 1 : quantity;
        Optional<LocalDate> date = Requests.date(request.date());
        if ((request.series() == null) == (request.kind() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.series() == null
                                    ? "Neither a series nor a kind is named."
                                    : "A series and a kind are named, and one is wanted.")
                    .field("series", "the key of a series; or a kind and a unit");
        if (request.series() != null) {
            Series series = Requests.series(caller, request.series());
            Optional<String> unit = Optional.ofNullable(request.unit())
                    .map(text -> RecordSeries.unit(caller.snapshot(), text).key());
            caller.need(right, new Where(Optional.of(series.key()), Optional.empty(), unit));
            known(given, layout, series.fields().stream().map(FieldRule::name).toList());
            return act(series, given, identifiers, date, new Purpose(Optional.empty(), unit));
        }
        Kind kind = RecordSeries.kind(caller.snapshot(), request.kind());
        known(given, layout, kind.fields().stream().map(KindField::name).toList());
        var own = new TreeMap<>(given);
        own.keySet().removeIf(name -> kind.field(name).isEmpty());
        SeriesAssignment.Assigned found = RecordSeries.of(
                caller.snapshot(), kind, RecordSeries.unit(caller.snapshot(), request.unit()), own, Map.of());
        caller.need(right, RecordSeries.where(found));
        Series series = caller.snapshot().series().get(found.route().series());
        return act(series, found.given(), identifiers, date, RecordSeries.purpose(found));
    }

    /** Every field is one of the layout, or one of the series or kind. */
    private static void known(SortedMap<String, String> given, Layout layout, List<String> others) {
        var names = new TreeSet<>(layout.fields());
        layout.asked().forEach(asked -> names.add(asked.name()));
        names.addAll(others);
        for (String name : given.keySet())
            if (!names.contains(name) && !name.equals(Particulars.UNIT))
                throw new Problem(
                                Type.FIELD_FAULTY,
                                "Neither the layout nor what it numbers has a field ‘" + name + "’."
                                        + NearestName.to(name, names)
                                                .map(near -> " Did you mean ‘" + near + "’?")
                                                .orElse(""))
                        .field("fields." + name, names.isEmpty() ? "none" : String.join(", ", names));
    }

    private static Act.Allocate act(
            Series series, Map<String, String> given, long identifiers, Optional<LocalDate> date, Purpose purpose) {
        var own = new TreeMap<>(given);
        own.keySet().removeIf(name -> series.field(name).isEmpty());
        return new Act.Allocate(
                series.key(),
                date,
                own,
                identifiers,
                Act.Form.ofLabels(series, identifiers),
                Optional.empty(),
                purpose,
                Requests.mark("", null));
    }
}
