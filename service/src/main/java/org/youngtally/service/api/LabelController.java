package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Asked;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindField;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.NearestName;
import org.youngtally.labels.Drawer;
import org.youngtally.labels.LabelPdf;
import org.youngtally.labels.LabelSvg;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.label.ExpectedNumbers;
import org.youngtally.service.label.LabelRun;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Layouts of labels, and what labels would look like with the identifiers that are expected. */
@RestController
@RequestMapping(Api.V1)
class LabelController {
    private static final Logger LOG = LoggerFactory.getLogger(LabelController.class);

    private static final long MOST_LABELS = 20_000;
    /** Above this the numbers would be allocated as a block. */
    private static final long MOST_SINGLES = 1_000;

    private static final long MOST_BYTES = 400_000_000;
    private static final long MOST_SHOWN_BYTES = 20_000_000;

    private static final int MOST_COPIES = 100;
    private static final int MOST_SHOWN = 200;
    private static final int MOST_FAULTS = 50;

    private final Ledger ledger;
    private final HeavyWork work;

    LabelController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * A layout of labels.
     *
     * @param key by which it is known
     * @param title the name for people
     * @param width of a label, in mm
     * @param height of a label, in mm
     * @param labels how many are on a sheet; 1 where each is a page of its own
     * @param advance before which a new identifier is used: label, sheet, row or job
     * @param fields that its texts show
     * @param ask fields that are asked for when labels are printed
     * @param version of the definition; 0 for one that is not applied
     */
    record LayoutView(
            String key,
            String title,
            double width,
            double height,
            int labels,
            String advance,
            List<String> fields,
            List<AskedView> ask,
            int version) {
        static LayoutView of(Layout layout, int version) {
            return new LayoutView(
                    layout.key(),
                    layout.title(),
                    layout.width(),
                    layout.height(),
                    layout.sheet().map(Layout.Sheet::labels).orElse(1),
                    layout.advance().name().toLowerCase(Locale.ROOT),
                    List.copyOf(layout.fields()),
                    layout.asked().stream().map(AskedView::of).toList(),
                    version);
        }
    }

    /**
     * A field that is asked for when labels are printed.
     *
     * @param name of the field
     * @param title the name for people
     */
    record AskedView(String name, String title) {
        static AskedView of(Asked asked) {
            return new AskedView(asked.name(), asked.title());
        }
    }

    @GetMapping("/layouts")
    @SignedIn
    @Operation(operationId = "listLayouts", summary = "The layouts of labels")
    List<LayoutView> layouts(Caller caller) {
        return caller.snapshot().organisation().layouts().values().stream()
                .flatMap(kept -> LayoutCheck.of(kept.draft()).layout().stream()
                        .map(layout -> LayoutView.of(layout, kept.version())))
                .toList();
    }

    /**
     * Which labels.
     *
     * @param layout its key
     * @param definition instead of a layout that is applied: a definition file with one layout
     * @param series whose numbers they bear; or a kind and a unit, for which the routes find it
     * @param kind the kind of record
     * @param unit the key or code of the unit
     * @param fields of the series and of the layout
     * @param quantity how many labels, or sheets where each sheet has a new identifier; default: 1
     * @param copies of each label; default: 1
     * @param date the business date; default: today
     */
    record LabelRequest(
            @Nullable String layout,
            @Nullable String definition,
            @Nullable String series,
            @Nullable String kind,
            @Nullable String unit,
            @Nullable Map<String, String> fields,
            @Nullable Long quantity,
            @Nullable Integer copies,
            @Nullable String date) {}

    /**
     * What labels would look like; nothing is allocated.
     *
     * @param layout how they look
     * @param series whose numbers they bear
     * @param date the business date
     * @param labels how many there are, without further copies
     * @param copies of each label
     * @param pages how many pages they fill with all copies
     * @param shown some of them, in their order
     * @param faults why they cannot be printed, of those that are shown, the first and the last
     */
    record LabelPreview(
            LayoutView layout,
            String series,
            LocalDate date,
            long labels,
            int copies,
            long pages,
            List<LabelView> shown,
            List<LabelFault> faults) {}

    /**
     * @param number from 1
     * @param identifier that is expected
     * @param picture as SVG
     */
    record LabelView(long number, String identifier, String picture) {}

    /**
     * @param label the number of the label, from 1
     * @param identifier that is expected on it
     * @param path the item of the layout, or the field
     * @param problem what is wrong
     * @param accepted what would do
     */
    record LabelFault(long label, String identifier, String path, String problem, String accepted) {}

    /** A run with its numbers. */
    private record Prepared(
            LabelRun run, Series series, ExpectedNumbers numbers, List<LabelFault> missing, int version) {
        String identifier(long label) {
            return numbers.identifier(run.identifierOf(label));
        }
    }

    @PostMapping("/label-previews")
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "previewLabels",
            summary = "What labels would look like, with the identifiers that are expected. Nothing is allocated")
    LabelPreview preview(
            @RequestBody LabelRequest request,
            @Parameter(description = "The first label to show, from 1") @RequestParam(defaultValue = "1") long from,
            @Parameter(description = "How many labels to show, up to 200") @RequestParam(defaultValue = "24") int most,
            Caller caller) {
        if (from < 1 || most < 0 || most > MOST_SHOWN)
            throw new Problem(Type.MALFORMED, most + " labels from number " + from + " cannot be shown.")
                    .field(from < 1 ? "from" : "most", from < 1 ? "1 or more" : "0 to " + MOST_SHOWN);
        return work.run(Sort.TABLE, caller.name(), () -> {
            Prepared prepared = prepared(request, caller);
            LabelRun run = prepared.run();
            var drawer = new Drawer(run.layout());
            var shown = new ArrayList<LabelView>();
            long size = 0;
            var faults = new ArrayList<>(prepared.missing());
            for (long label = from - 1; label < Math.min(run.labels(), from - 1 + most); label++) {
                Drawer.Drawn drawn = drawn(drawer, prepared, label, 1, faults);
                String picture = LabelSvg.of(drawn.drawing().expected());
                shown.add(new LabelView(label + 1, prepared.identifier(label), picture));
                size += picture.length();
                if (size > MOST_SHOWN_BYTES) throw tooMuch();
            }
            if (from > 1 || most == 0) drawn(drawer, prepared, 0, 1, faults);
            if (from - 1 + most < run.labels()) drawn(drawer, prepared, run.labels() - 1, run.copies(), faults);
            return new LabelPreview(
                    LayoutView.of(run.layout(), prepared.version()),
                    prepared.series().key(),
                    run.date(),
                    run.labels(),
                    run.copies(),
                    run.pages(),
                    shown,
                    faults.stream().limit(MOST_FAULTS).toList());
        });
    }

    @PostMapping(path = "/label-preview-files", produces = MediaType.APPLICATION_PDF_VALUE)
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "previewLabelsAsPdf",
            summary =
                    "The same as PDF, every label marked as expected. Nothing is allocated; one label that cannot be printed refuses all",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content =
                                    @Content(
                                            mediaType = MediaType.APPLICATION_PDF_VALUE,
                                            schema = @Schema(type = "string", format = "binary"))))
    void file(@RequestBody LabelRequest request, Caller caller, @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        try (TemporaryFile pdf = TemporaryFile.create()) {
            work.run(Sort.TABLE, caller.name(), () -> write(prepared(request, caller), pdf));
            response.setContentType(MediaType.APPLICATION_PDF_VALUE);
            pdf.send(response);
        }
    }

    private Void write(Prepared prepared, TemporaryFile to) {
        LabelRun run = prepared.run();
        var drawer = new Drawer(run.layout());
        var faults = new ArrayList<>(prepared.missing());
        try (var pdf = new LabelPdf(run.layout(), Instant.now(), MOST_BYTES);
                OutputStream out = new BufferedOutputStream(Files.newOutputStream(to.path()))) {
            for (long label = 0; label < run.labels() && faults.isEmpty(); label++)
                for (int copy = 1; copy <= run.copies() && faults.isEmpty(); copy++)
                    pdf.add(drawn(drawer, prepared, label, copy, faults)
                            .drawing()
                            .expected());
            if (!faults.isEmpty()) throw faulty(faults);
            pdf.write(out);
            return null;
        } catch (LabelPdf.TooLarge e) {
            LOG.debug("a preview was too large", e);
            throw tooMuch();
        } catch (IOException e) {
            throw new UncheckedIOException("the labels could not be written to a temporary file", e);
        }
    }

    private static Problem tooMuch() {
        return new Problem(Type.QUANTITY, "These labels hold more than is drawn at once.")
                .field("quantity", "fewer labels, or a layout with less on it");
    }

    private static Problem faulty(List<LabelFault> faults) {
        LabelFault first = faults.getFirst();
        return new Problem(
                        Type.LABEL_FAULTY,
                        "Label " + first.label() + " (" + first.identifier() + ") cannot be printed: " + first.path()
                                + " " + first.problem() + ".")
                .field(first.path(), first.accepted())
                .with("faults", faults);
    }

    private static Drawer.Drawn drawn(Drawer drawer, Prepared prepared, long label, int copy, List<LabelFault> faults) {
        String identifier = prepared.identifier(label);
        Drawer.Drawn drawn = drawer.of(prepared.run().content(label, copy, identifier));
        // What is wrong with all of them alike is told once.
        for (Fault fault : drawn.faults())
            if (faults.stream()
                    .noneMatch(each ->
                            each.path().equals(fault.path()) && each.problem().equals(fault.problem())))
                faults.add(new LabelFault(label + 1, identifier, fault.path(), fault.problem(), fault.accepted()));
        return drawn;
    }

    private Prepared prepared(LabelRequest request, Caller caller) {
        KeptLayout kept = kept(request, caller);
        LayoutCheck.Result checked = LayoutCheck.of(kept.draft());
        Layout layout = checked.layout().orElseThrow(() -> unfit(kept, checked.faults()));
        long quantity = request.quantity() == null ? 1 : request.quantity();
        int copies = request.copies() == null ? 1 : request.copies();
        if (copies < 1 || copies > MOST_COPIES)
            throw new Problem(Type.MALFORMED, copies + " copies of a label are not made.")
                    .field("copies", "1 to " + MOST_COPIES);
        if (quantity < 1 || quantity > MOST_LABELS / copies)
            throw new Problem(Type.QUANTITY, "%,d labels in %,d copies are not previewed.".formatted(quantity, copies))
                    .field("quantity", "1 to %,d with these copies".formatted(MOST_LABELS / copies));
        SortedMap<String, String> given =
                Requests.fields(request.fields(), request.series() == null ? null : request.unit());
        Act.Allocate act = act(request, layout, quantity, given, caller);
        Series series = caller.snapshot().series().get(act.series());
        LocalDate date = act.date().orElseGet(ledger::today);
        LabelRun run = LabelRun.of(
                layout,
                quantity,
                copies,
                date,
                act.purpose().unit().or(() -> Optional.ofNullable(request.unit())),
                given);
        ExpectedNumbers numbers =
                switch (ledger.decide(caller.snapshot(), act)) {
                    case Decision.Done done -> new ExpectedNumbers(series, caller.snapshot(), done.effects());
                    case Decision.Refused refused -> throw Refusals.problem(refused.refusal());
                    case Decision.Repeated repeated -> throw new IllegalStateException("a preview has no key");
                    case Decision.Known known -> throw new IllegalStateException("a preview keeps no record");
                };
        List<LabelFault> missing = layout.asked().stream()
                .filter(asked -> given.getOrDefault(asked.name(), "").isBlank())
                .map(asked -> new LabelFault(
                        1,
                        numbers.identifier(0),
                        "fields." + asked.name(),
                        "(" + asked.title() + ") is asked for, and has no value",
                        "a value for " + asked.name()))
                .toList();
        return new Prepared(run, series, numbers, missing, kept.version());
    }

    private static Problem unfit(KeptLayout kept, List<Fault> faults) {
        Fault first = faults.getFirst();
        return new Problem(
                        Type.LABEL_FAULTY,
                        "The layout ‘" + kept.key() + "’ is not accepted: " + Refusals.forPeople(first.path()) + " "
                                + first.problem() + ".")
                .field("layout", first.accepted())
                .with("faults", faults);
    }

    private static KeptLayout kept(LabelRequest request, Caller caller) {
        if ((request.layout() == null) == (request.definition() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.layout() == null
                                    ? "No layout is named."
                                    : "A layout is named, and a definition sent with it.")
                    .field("layout", "the key of a layout; or, as definition, the text of a file with one");
        if (request.definition() != null) return written(request.definition());
        Map<String, KeptLayout> layouts = caller.snapshot().organisation().layouts();
        return Optional.ofNullable(layouts.get(request.layout())).orElseThrow(() -> new Problem(
                        Type.UNKNOWN_LAYOUT,
                        "Layout ‘" + request.layout() + "’ not found."
                                + NearestName.to(request.layout(), layouts.keySet())
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field("layout", "a layout that is applied"));
    }

    private static KeptLayout written(String text) {
        DefinitionFile file = DefinitionFile.read("definition", text);
        if (!file.faults().isEmpty()) throw Refusals.definitionsFaulty(file.faults());
        List<LayoutDraft> layouts = file.drafts().layouts();
        if (layouts.size() != 1)
            throw new Problem(Type.MALFORMED, "The definition holds " + layouts.size() + " layouts.")
                    .field("definition", "layouts: and one layout");
        return new KeptLayout(layouts.getFirst(), 0);
    }

    /** What would be allocated: above a thousand as a block. */
    private Act.Allocate act(
            LabelRequest request, Layout layout, long quantity, SortedMap<String, String> given, Caller caller) {
        long identifiers = layout.advance() == Layout.Advance.JOB ? 1 : quantity;
        Act.Form form = identifiers > MOST_SINGLES ? Act.Form.BLOCK : Act.Form.SINGLES;
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
            caller.need(Right.READ, Where.series(series.key()));
            known(given, layout, series.fields().stream().map(FieldRule::name).toList());
            return act(series, given, identifiers, form, date, Purpose.NONE);
        }
        Kind kind = RecordSeries.kind(caller.snapshot(), request.kind());
        known(given, layout, kind.fields().stream().map(KindField::name).toList());
        var own = new TreeMap<>(given);
        own.keySet().removeIf(name -> kind.field(name).isEmpty());
        SeriesAssignment.Assigned found = RecordSeries.of(
                caller.snapshot(), kind, RecordSeries.unit(caller.snapshot(), request.unit()), own, Map.of());
        caller.need(Right.READ, RecordSeries.where(found));
        Series series = caller.snapshot().series().get(found.route().series());
        return act(series, found.given(), identifiers, form, date, RecordSeries.purpose(found));
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
            Series series,
            Map<String, String> given,
            long identifiers,
            Act.Form form,
            Optional<LocalDate> date,
            Purpose purpose) {
        var own = new TreeMap<>(given);
        own.keySet().removeIf(name -> series.field(name).isEmpty());
        return new Act.Allocate(
                series.key(), date, own, identifiers, form, Optional.empty(), purpose, Requests.mark("", null));
    }
}
