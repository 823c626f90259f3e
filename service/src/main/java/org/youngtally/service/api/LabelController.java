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
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.fault.Fault;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Asked;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.labels.Drawer;
import org.youngtally.labels.Drawing;
import org.youngtally.labels.LabelPdf;
import org.youngtally.labels.LabelPng;
import org.youngtally.labels.LabelSvg;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.api.LabelPreparation.Prepared;
import org.youngtally.service.body.Takes;
import org.youngtally.service.definitions.DefinitionExport;
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

    private static final String SVG = "image/svg+xml";
    private static final long MOST_BYTES = 400_000_000;
    private static final long MOST_SHOWN_BYTES = 20_000_000;

    private static final int MOST_SHOWN = 200;
    private static final int MOST_FAULTS = 50;

    private final HeavyWork work;
    private final LabelPreparation preparation;

    LabelController(HeavyWork work, LabelPreparation preparation) {
        this.work = work;
        this.preparation = preparation;
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
     * A layout with its definition.
     *
     * @param layout what it is
     * @param text a definition file with this layout alone
     */
    record LayoutDefinition(LayoutView layout, String text) {}

    @GetMapping("/layouts/{layout}")
    @SignedIn
    @Operation(operationId = "showLayout", summary = "One layout, and the text of a definition file with it")
    LayoutDefinition layout(@PathVariable String layout, Caller caller) {
        KeptLayout kept = LabelPreparation.kept(layout, caller);
        Drafts drafts =
                new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(kept.draft()));
        return new LayoutDefinition(
                LayoutView.of(LabelPreparation.checked(kept.draft(), Optional.empty()), kept.version()),
                DefinitionExport.of(List.of(), drafts, UnaryOperator.identity())
                        .getFirst()
                        .text());
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
     * @param printer of a job: the address of a printer that prints them at once; default: they wait. A preview does
     *     not look at it
     * @param table a table that was sent before, with a row for each label, or for so many in a row as the quantity
     *     says
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
            @Nullable String date,
            @Nullable String printer,
            @Nullable String table) {}

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
     * @param line of the definition that was sent, from 1
     */
    record LabelFault(
            long label,
            String identifier,
            String path,
            String problem,
            String accepted,
            @Nullable Integer line) {
        /** @param place from 0 */
        static LabelFault of(long place, String identifier, Fault fault, Integer line) {
            return new LabelFault(place + 1, identifier, fault.path(), fault.problem(), fault.accepted(), line);
        }
    }

    @Takes(Takes.A_LIST)
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
            Prepared prepared = preparation.of(request, Right.READ, caller);
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
                    prepared.wanted().series().key(),
                    run.date(),
                    run.labels(),
                    run.copies(),
                    run.pages(),
                    shown,
                    faults.stream().limit(MOST_FAULTS).toList());
        });
    }

    @Takes(Takes.A_LIST)
    @PostMapping(
            path = "/label-preview-files",
            produces = {MediaType.APPLICATION_PDF_VALUE, SVG, MediaType.IMAGE_PNG_VALUE})
    @Needs(value = Right.READ, at = At.REQUEST)
    @Operation(
            operationId = "previewLabelsAsFile",
            summary =
                    "The same as a file, every label marked as expected: all as PDF, or one as SVG or PNG. Nothing is allocated; one label that cannot be printed refuses all",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content = {
                                @Content(
                                        mediaType = MediaType.APPLICATION_PDF_VALUE,
                                        schema = @Schema(type = "string", format = "binary")),
                                @Content(mediaType = SVG, schema = @Schema(type = "string")),
                                @Content(
                                        mediaType = MediaType.IMAGE_PNG_VALUE,
                                        schema = @Schema(type = "string", format = "binary"))
                            }))
    void file(
            @RequestBody LabelRequest request,
            @Parameter(description = "pdf, svg or png") @RequestParam(defaultValue = "pdf") String format,
            @Parameter(description = "Of SVG and PNG: the label, from 1") @RequestParam(defaultValue = "1") long label,
            Caller caller,
            @Parameter(hidden = true) HttpServletResponse response)
            throws IOException {
        Format wanted = Arrays.stream(Format.values())
                .filter(each -> each.name().toLowerCase(Locale.ROOT).equals(format))
                .findFirst()
                .orElseThrow(() -> new Problem(Type.MALFORMED, "‘" + format + "’ is not a format of labels.")
                        .field("format", "pdf, svg or png"));
        try (TemporaryFile file = TemporaryFile.create()) {
            work.run(Sort.TABLE, caller.name(), () -> {
                Prepared prepared = preparation.of(request, Right.READ, caller);
                return wanted == Format.PDF ? write(prepared, file) : picture(prepared, label, wanted, file);
            });
            response.setContentType(wanted.type);
            file.send(response);
        }
    }

    private enum Format {
        PDF(MediaType.APPLICATION_PDF_VALUE),
        SVG(LabelController.SVG),
        PNG(MediaType.IMAGE_PNG_VALUE);

        private final String type;

        Format(String type) {
            this.type = type;
        }
    }

    private Void picture(Prepared prepared, long label, Format format, TemporaryFile to) {
        if (label < 1 || label > prepared.run().labels())
            throw new Problem(Type.MALFORMED, "There is no label " + label + ".")
                    .field("label", "1 to " + prepared.run().labels());
        var faults = new ArrayList<>(prepared.missing());
        Drawing drawing = drawn(new Drawer(prepared.run().layout()), prepared, label - 1, 1, faults)
                .drawing()
                .expected();
        if (!faults.isEmpty()) throw faulty(faults);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(to.path()))) {
            if (format == Format.SVG) out.write(LabelSvg.of(drawing).getBytes(StandardCharsets.UTF_8));
            else LabelPng.write(drawing, out);
            return null;
        } catch (LabelPng.TooLarge e) {
            LOG.debug("a picture was too large", e);
            throw tooMuch();
        } catch (IOException e) {
            throw new UncheckedIOException("the label could not be written to a temporary file", e);
        }
    }

    private Void write(Prepared prepared, TemporaryFile to) {
        LabelRun run = prepared.run();
        if (run.labels() * run.copies() > LabelPreparation.MOST_DRAWN)
            throw new Problem(
                            Type.QUANTITY,
                            "More than %,d labels are not drawn at once.".formatted(LabelPreparation.MOST_DRAWN))
                    .field("quantity", "up to %,d labels, with all copies".formatted(LabelPreparation.MOST_DRAWN));
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

    static Problem tooMuch() {
        return new Problem(Type.QUANTITY, "These labels hold more than is drawn at once.")
                .field("quantity", "fewer labels, or a layout with less on it");
    }

    static Problem faulty(List<LabelFault> faults) {
        LabelFault first = faults.getFirst();
        return new Problem(
                        Type.LABEL_FAULTY,
                        "Label " + first.label() + " (" + first.identifier() + ") cannot be printed: "
                                + Refusals.forPeople(first.path()) + " " + first.problem() + ".")
                .field(first.path(), first.accepted())
                .with("faults", faults);
    }

    /** Why labels cannot be printed; of more than are drawn at once, as many are drawn, spread over all of them. */
    static List<LabelFault> faults(Prepared prepared) {
        LabelRun run = prepared.run();
        var drawer = new Drawer(run.layout());
        var faults = new ArrayList<>(prepared.missing());
        long step = Math.ceilDiv(run.labels(), LabelPreparation.MOST_DRAWN);
        for (long label = 0; label < run.labels() && faults.size() < MOST_FAULTS; label += step)
            drawn(drawer, prepared, label, run.copies(), faults);
        // The last number is the longest, where they are not padded.
        drawn(drawer, prepared, run.labels() - 1, run.copies(), faults);
        return faults;
    }

    private static Drawer.Drawn drawn(Drawer drawer, Prepared prepared, long label, int copy, List<LabelFault> faults) {
        String identifier = prepared.identifier(label);
        Drawer.Drawn drawn = drawer.of(prepared.run().content(label, copy, identifier));
        // What is wrong with all of them alike is told once.
        for (Fault fault : drawn.faults())
            if (faults.stream()
                    .noneMatch(each ->
                            each.path().equals(fault.path()) && each.problem().equals(fault.problem())))
                faults.add(LabelFault.of(label, identifier, fault, prepared.line(fault.path())));
        return drawn;
    }
}
