package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.Slip;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.definitions.DefinitionExport;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.definitions.DefinitionShape;
import org.youngtally.service.definitions.Differences;
import org.youngtally.service.definitions.Differences.Difference;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.SeriesFault;

@RestController
@RequestMapping(Api.V1)
class DefinitionController {
    private static final int COMING = 10;
    private static final int LONGEST_NAME = 200;

    private final Ledger ledger;

    DefinitionController(Ledger ledger) {
        this.ledger = ledger;
    }

    /** Definition files, to be taken all together or not at all. */
    record DefinitionFiles(List<NamedText> files) {}

    record NamedText(String name, String text) {}

    /** What the files change, or would. */
    record DefinitionReport(boolean dryRun, List<SeriesChangeView> series) {}

    /** @param change {@code new}, {@code changed} or {@code unchanged} @param slips what is allowed and looks like a slip */
    record SeriesChangeView(String key, String title, String change, int version, List<Difference> differences, List<String> next, List<SlipView> slips) {}

    /** Something that is allowed and looks like a slip. @param path the property */
    record SlipView(String path, String remark) {}

    @PostMapping("/definitions")
    @Operation(operationId = "applyDefinitions", summary = "Define all series of YAML files, or none of them; what stands in no file is left alone")
    DefinitionReport apply(@RequestBody DefinitionFiles request, @Parameter(description = "Only say what would change") @RequestParam(defaultValue = "false") boolean dryRun, @Parameter(description = "Who acts") @RequestHeader(name = Api.ACTOR, required = false) String actor) {
        List<DefinitionFile> files = read(request);
        List<SeriesDraft> drafts = files.stream().flatMap(file -> file.drafts().stream()).toList();
        var act = new Act.Define(drafts, kept(request), Optional.empty());
        Map<String, Series> before = ledger.read(dsl -> new StateQueries(dsl).series()).stream().collect(Collectors.toMap(Series::key, Function.identity()));
        List<Series> changed;
        if (dryRun) {
            changed = switch (ledger.decide(act)) {
                case Decision.Refused refused -> throw located(refused.refusal(), files);
                case Decision.Done done -> done.effects().stream().filter(Effect.Defined.class::isInstance).map(effect -> ((Effect.Defined) effect).series()).toList();
                case Decision.Repeated repeated -> throw new IllegalStateException("definitions have no keys");
            };
        } else {
            changed = switch (ledger.perform(act, Requests.actor(actor))) {
                case Outcome.Refused refused -> throw located(refused.refusal(), files);
                case Outcome.Defined defined -> defined.changed();
                case Outcome.Taken taken -> throw new IllegalStateException("definitions take no numbers");
            };
        }
        Map<String, Series> after = changed.stream().collect(Collectors.toMap(Series::key, Function.identity()));
        return new DefinitionReport(dryRun, drafts.stream().map(draft -> view(before.get(draft.key()), after.get(draft.key()))).toList());
    }

    @GetMapping("/definitions")
    @Operation(operationId = "exportDefinitions", summary = "The files of definitions as they were applied, brought up to date; series that stand in none are in console.yaml")
    DefinitionFiles export() {
        return ledger.read(dsl -> {
            var state = new StateQueries(dsl);
            return new DefinitionFiles(DefinitionExport.of(state.files(), state.series()).stream().map(file -> new NamedText(file.name(), file.text())).toList());
        });
    }

    /** The files under their own names, without the folders they came from. */
    private static List<KeptFile> kept(DefinitionFiles request) {
        var names = new HashSet<String>();
        return request.files().stream().map(file -> {
            String name = file.name().substring(Math.max(file.name().lastIndexOf('/'), file.name().lastIndexOf('\\')) + 1);
            if (name.isBlank() || name.length() > LONGEST_NAME || name.chars().anyMatch(Character::isISOControl) || !names.add(name))
                throw new Problem(Type.MALFORMED, "‘" + file.name() + "’ cannot be the name of a file here.").field("files", "names of 1 to " + LONGEST_NAME + " symbols, each once whatever its folder");
            return new KeptFile(name, file.text());
        }).toList();
    }

    @GetMapping(path = "/definition-schema", produces = "application/schema+json")
    @Operation(operationId = "definitionSchema", summary = "The JSON Schema of definition files, for editors", responses = @ApiResponse(responseCode = "200", content = @Content(mediaType = "application/schema+json", schema = @Schema(type = "object"))))
    String schema() {
        return DefinitionShape.schema().toPrettyString();
    }

    private static List<DefinitionFile> read(DefinitionFiles request) {
        if (request.files() == null || request.files().isEmpty()) throw new Problem(Type.MALFORMED, "No file was sent.").field("files", "a list of files, each with its name and text");
        var files = new ArrayList<DefinitionFile>();
        for (NamedText file : request.files()) {
            if (file.text() == null || file.name() == null) throw new Problem(Type.MALFORMED, "A file has no name or no text.").field("files", "files with name and text");
            files.add(DefinitionFile.read(file.name(), file.text()));
        }
        List<SeriesFault> faults = files.stream().flatMap(file -> file.faults().stream()).toList();
        if (!faults.isEmpty()) throw Refusals.definitionsFaulty(faults);
        return files;
    }

    /** Adds to each fault the file and line where it stands. */
    private static Problem located(Refusal refusal, List<DefinitionFile> files) {
        if (!(refusal instanceof Refusal.DefinitionsFaulty faulty)) return Refusals.problem(refusal);
        var faults = new ArrayList<SeriesFault>();
        for (Refusal.SeriesFaults series : faulty.faults()) {
            int index = series.index();
            int at = 0;
            while (index >= files.get(at).drafts().size()) index -= files.get(at++).drafts().size();
            DefinitionFile file = files.get(at);
            int place = index;
            series.faults().forEach(fault -> faults.add(SeriesFault.of(file.name(), file.line(place, fault.path()), series, fault)));
        }
        return Refusals.definitionsFaulty(faults);
    }

    private SeriesChangeView view(Series before, Series after) {
        Series now = after == null ? before : after;
        String change = after == null ? "unchanged" : before == null ? "new" : "changed";
        List<Difference> differences = after == null || before == null ? List.of() : Differences.between(before, after);
        List<String> next = before != null ? List.of() : Outlook.of(now, firstServed(now, ledger.today()), lane -> 0, 1).next().stream().map(Outlook.Coming::identifier).toList();
        return new SeriesChangeView(now.key(), now.title(), change, now.version(), differences, next, slips(now, Optional.ofNullable(before)));
    }

    private List<SlipView> slips(Series series, Optional<Series> before) {
        Map<LaneKey, Long> given = given(series);
        return Slip.of(series, before, ledger.today(), lane -> given.getOrDefault(lane, 0L)).stream().map(slip -> new SlipView(slip.path(), slip.remark())).toList();
    }

    /** How many positions of each lane of a series were given. */
    private Map<LaneKey, Long> given(Series series) {
        return ledger.read(dsl -> new StateQueries(dsl).lanes()).stream().filter(lane -> lane.key().series().equals(series.key())).collect(Collectors.toMap(StateQueries.LaneRow::key, StateQueries.LaneRow::next));
    }

    /** The date if it is served, or else the first date that is. */
    private static LocalDate firstServed(Series series, LocalDate date) {
        return series.serving(date).isEmpty() ? series.ranges().stream().map(range -> range.serves().opens()).min(LocalDate::compareTo).orElseThrow() : date;
    }

    /** @param date the business date to look at; today, or the first date served, where it is left out */
    record PreviewRequest(SeriesForm series, @Nullable String date) {}

    /**
     * What a definition would give, or what is wrong with it.
     *
     * @param date the business date that was looked at; absent where the definition has faults
     * @param slips what is allowed and looks like a slip
     */
    record Preview(@Nullable LocalDate date, List<PreviewNumber> next, @Nullable Long left, List<SeriesFault> faults, List<SlipView> slips) {}

    /** @param range the range's place among those sent, from 1 @param lane the period that its lane counts for */
    record PreviewNumber(String identifier, int range, String lane, long position, long value) {}

    @PostMapping("/previews")
    @Operation(operationId = "preview", summary = "The next ten identifiers that a definition would give, or every fault it has; nothing is changed")
    Preview preview(@RequestBody PreviewRequest request) {
        if (request.series() == null) throw new Problem(Type.MALFORMED, "There is no series to look at.").field("series", "a series as it would be defined");
        SeriesDraft draft = request.series().draft();
        return switch (ledger.decide(new Act.Define(List.of(draft), Optional.empty()))) {
            case Decision.Refused refused -> new Preview(null, List.of(), null, faults(refused.refusal()), List.of());
            case Decision.Done done -> preview(done.effects().isEmpty() ? find(draft.key()).orElseThrow() : ((Effect.Defined) done.effects().getFirst()).series(), request.date());
            case Decision.Repeated repeated -> throw new IllegalStateException("definitions have no keys");
        };
    }

    private Optional<Series> find(String key) {
        return ledger.read(dsl -> new StateQueries(dsl).series()).stream().filter(series -> series.key().equals(key)).findFirst();
    }

    private static List<SeriesFault> faults(Refusal refusal) {
        if (!(refusal instanceof Refusal.DefinitionsFaulty faulty)) throw Refusals.problem(refusal);
        return faulty.faults().stream().flatMap(series -> series.faults().stream().map(fault -> SeriesFault.of(null, null, series, fault))).toList();
    }

    private Preview preview(Series series, String wanted) {
        LocalDate date = Requests.date(wanted).orElseGet(() -> firstServed(series, ledger.today()));
        Map<LaneKey, Long> next = given(series);
        Outlook outlook = Outlook.of(series, date, lane -> next.getOrDefault(lane, 0L), COMING);
        return new Preview(date, outlook.next().stream().map(coming -> new PreviewNumber(coming.identifier(), series.ranges().indexOf(coming.range()) + 1, coming.lane().period(), coming.position(), coming.value())).toList(), outlook.left(), List.of(), slips(series, find(series.key())));
    }
}
