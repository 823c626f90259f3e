package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.Organisation;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.RouteCheck;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.Outlook;
import org.youngtally.core.series.PossibleMistake;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerSnapshot;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.body.Takes;
import org.youngtally.service.definitions.DefinitionExport;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.definitions.DefinitionShape;
import org.youngtally.service.definitions.Differences;
import org.youngtally.service.definitions.Differences.Difference;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

@RestController
@RequestMapping(Api.V1)
class DefinitionController {
    private static final Logger LOG = LoggerFactory.getLogger(DefinitionController.class);

    private static final SlipView UNROUTED = new SlipView(
            "key",
            "no route leads to this series: records do not use it, and only a grant for the series itself covers it");

    private static final int COMING = 10;
    private static final int LONGEST_NAME = 200;

    private final Ledger ledger;
    private final HeavyWork work;

    DefinitionController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /** Definition files, to be applied all or none. */
    record DefinitionFiles(List<NamedText> files) {}

    record NamedText(String name, String text) {}

    /** What the files change, or would. */
    record DefinitionReport(
            boolean dryRun,
            List<NamespaceChangeView> namespaces,
            List<CodebookChangeView> codebooks,
            List<SeriesChangeView> series,
            List<PartChangeView> organisation) {}

    /**
     * @param what unit, kind, route or layout
     * @param key of a route: where it stands
     * @param change {@code new}, {@code changed} or {@code unchanged}
     */
    record PartChangeView(String what, String key, String title, String change, int version) {}

    /** @param change {@code new}, {@code changed} or {@code unchanged} */
    record NamespaceChangeView(String key, String title, String change, int version) {}

    /** @param change {@code new}, {@code changed} or {@code unchanged} */
    record CodebookChangeView(String key, String title, String change, int version, List<Difference> differences) {}

    /**
     * @param change {@code new}, {@code changed} or {@code unchanged}
     * @param slips possible mistakes
     */
    record SeriesChangeView(
            String key,
            String title,
            String change,
            int version,
            List<Difference> differences,
            List<String> next,
            List<SlipView> slips) {}

    /**
     * A possible mistake.
     *
     * @param path the property
     */
    record SlipView(String path, String remark) {}

    /** Everything that is defined, by key. */
    private record Defined(
            Map<String, Namespace> namespaces,
            Map<String, Codebook> codebooks,
            Map<String, Series> series,
            Map<String, Unit> units,
            Map<String, Kind> kinds,
            Map<String, Route> routes,
            Map<String, KeptLayout> layouts) {
        static Defined in(LedgerSnapshot snapshot) {
            Organisation organisation = snapshot.organisation();
            return new Defined(
                    snapshot.namespaces(),
                    snapshot.codebooks(),
                    snapshot.series(),
                    organisation.units(),
                    organisation.kinds(),
                    organisation.routes(),
                    organisation.layouts());
        }

        static Defined by(Outcome.Defined outcome) {
            return new Defined(
                    byKey(outcome.namespaces(), Namespace::key),
                    byKey(outcome.codebooks(), Codebook::key),
                    byKey(outcome.series(), Series::key),
                    byKey(outcome.units(), Unit::key),
                    byKey(outcome.kinds(), Kind::key),
                    byKey(outcome.routes(), Route::key),
                    byKey(outcome.layouts(), KeptLayout::key));
        }

        private static <T> Map<String, T> byKey(List<T> all, Function<T, String> key) {
            return all.stream().collect(Collectors.toMap(key, Function.identity()));
        }
    }

    @Takes(4_000_000)
    @PostMapping("/definitions")
    @Needs(value = Right.DEFINE, at = At.REQUEST)
    @Operation(
            operationId = "applyDefinitions",
            summary = "Apply the definitions in YAML files, all of them or none; definitions in no file stay unchanged")
    DefinitionReport apply(
            @RequestBody DefinitionFiles request,
            @Parameter(description = "Only show what would change") @RequestParam(defaultValue = "false")
                    boolean dryRun,
            Caller caller) {
        return work.run(Sort.PROOF, caller.name(), () -> applied(request, dryRun, caller));
    }

    private DefinitionReport applied(DefinitionFiles request, boolean dryRun, Caller caller) {
        List<DefinitionFile> files = read(request);
        Drafts drafts = together(files);
        var act = new Act.Define(drafts, kept(request), Optional.empty());
        List<DefinitionFault> faults = faults(files, act, caller);
        if (!faults.isEmpty()) throw Refusals.definitionsFaulty(faults);
        DefiningRights.need(caller, ledger, act);
        LedgerSnapshot now = ledger.snapshot();
        Defined before = Defined.in(now);
        Defined after = Defined.by(dryRun ? decided(now, act, files) : performed(act, caller.name(), files));
        Map<String, LocalDate> defined = defined(before.series().keySet(), drafts);
        return new DefinitionReport(
                dryRun,
                drafts.namespaces().stream()
                        .map(draft -> view(
                                before.namespaces().get(draft.key()),
                                after.namespaces().get(draft.key()),
                                draft))
                        .toList(),
                drafts.codebooks().stream()
                        .map(draft -> view(
                                before.codebooks().get(draft.key()),
                                after.codebooks().get(draft.key())))
                        .toList(),
                drafts.series().stream()
                        .map(draft -> view(
                                before.series().get(draft.key()),
                                after.series().get(draft.key()),
                                now,
                                Optional.ofNullable(defined.get(draft.key())),
                                routed(draft.key(), now, after)))
                        .toList(),
                parts(drafts, before, after));
    }

    /** When those that were defined before were first defined. */
    private Map<String, LocalDate> defined(Set<String> known, Drafts drafts) {
        List<String> keys = drafts.series().stream()
                .map(SeriesDraft::key)
                .filter(known::contains)
                .toList();
        var dates = new HashMap<String, LocalDate>();
        if (!keys.isEmpty())
            ledger.read(dsl -> new EntryQueries(dsl).firstDefined(keys))
                    .forEach((key, at) -> dates.put(key, LocalDate.ofInstant(at, ledger.zone())));
        return dates;
    }

    private static boolean routed(String series, LedgerSnapshot now, Defined after) {
        return !now.organisation().routesTo(series).isEmpty()
                || after.routes().values().stream()
                        .anyMatch(route -> route.series().equals(series));
    }

    private static Drafts together(List<DefinitionFile> files) {
        List<Drafts> all = files.stream().map(DefinitionFile::drafts).toList();
        return all.stream().reduce(Drafts.NONE, Drafts::and);
    }

    private Outcome.Defined decided(LedgerSnapshot now, Act.Define act, List<DefinitionFile> files) {
        return switch (ledger.decide(now, act)) {
            case Decision.Refused refused -> throw located(refused.refusal(), files);
            case Decision.Done done -> Outcome.Defined.by(done.effects());
            case Decision.Repeated repeated -> throw new IllegalStateException("definitions have no keys");
            case Decision.Known known -> throw new IllegalStateException("definitions keep no records");
        };
    }

    private Outcome.Defined performed(Act.Define act, String actor, List<DefinitionFile> files) {
        return switch (ledger.perform(act, actor)) {
            case Outcome.Refused<Answer.Definitions> refused -> throw located(refused.refusal(), files);
            case Outcome.Defined defined -> defined;
        };
    }

    @GetMapping("/definitions")
    @Needs(value = Right.READ, at = At.ALL)
    @Operation(
            operationId = "exportDefinitions",
            summary =
                    "The files of definitions as they were applied, with all changes since; definitions of no file are in console.yaml")
    DefinitionFiles export() {
        LedgerSnapshot now = ledger.snapshot();
        Organisation organisation = now.organisation();
        var current = new Drafts(
                now.namespaces().values().stream()
                        .sorted(Comparator.comparing(Namespace::key))
                        .map(NamespaceDraft::of)
                        .toList(),
                now.codebooks().values().stream()
                        .sorted(Comparator.comparing(Codebook::key))
                        .map(CodebookDraft::of)
                        .toList(),
                now.series().values().stream().map(SeriesDraft::of).toList(),
                organisation.units().values().stream().map(UnitDraft::of).toList(),
                organisation.kinds().values().stream().map(KindDraft::of).toList(),
                organisation.routes().values().stream().map(RouteDraft::of).toList(),
                organisation.layouts().values().stream().map(KeptLayout::draft).toList());
        List<KeptFile> kept = ledger.read(dsl -> new StateQueries(dsl).files());
        return new DefinitionFiles(DefinitionExport.of(
                        kept, current, draft -> RouteCheck.of(draft, organisation, now.series(), now::choices)
                                .route()
                                .map(RouteDraft::of)
                                .orElse(draft))
                .stream()
                .map(file -> new NamedText(file.name(), file.text()))
                .toList());
    }

    /** The files under their own names, without the folders they came from. */
    private static List<KeptFile> kept(DefinitionFiles request) {
        var names = new HashSet<String>();
        return request.files().stream()
                .map(file -> {
                    String name = file.name()
                            .substring(Math.max(
                                            file.name().lastIndexOf('/'),
                                            file.name().lastIndexOf('\\'))
                                    + 1);
                    if (name.isBlank()
                            || name.length() > LONGEST_NAME
                            || name.chars().anyMatch(Character::isISOControl)
                            || !names.add(name))
                        throw new Problem(
                                        Type.MALFORMED, "‘" + file.name() + "’ is not accepted as the name of a file.")
                                .field(
                                        "files",
                                        "names of 1 to " + LONGEST_NAME + " symbols, each once, regardless of folders");
                    return new KeptFile(name, file.text());
                })
                .toList();
    }

    @GetMapping(path = "/definition-schema", produces = "application/schema+json")
    @SignedIn
    @Operation(
            operationId = "definitionSchema",
            summary = "The JSON Schema of definition files, for editors",
            responses =
                    @ApiResponse(
                            responseCode = "200",
                            content =
                                    @Content(mediaType = "application/schema+json", schema = @Schema(type = "object"))))
    String schema() {
        return DefinitionShape.schema().toPrettyString();
    }

    private static List<DefinitionFile> read(DefinitionFiles request) {
        if (request.files() == null || request.files().isEmpty())
            throw new Problem(Type.MALFORMED, "No file was sent.")
                    .field("files", "a list of files, each with its name and text");
        var files = new ArrayList<DefinitionFile>();
        for (NamedText file : request.files()) {
            if (file.text() == null || file.name() == null)
                throw new Problem(Type.MALFORMED, "A file has no name or no text.")
                        .field("files", "files with name and text");
            files.add(DefinitionFile.read(file.name(), file.text()));
        }
        return files;
    }

    /** All that is wrong with what was read, and with what could be read well. */
    private List<DefinitionFault> faults(List<DefinitionFile> files, Act.Define act, Caller caller) {
        var faults = new ArrayList<>(
                files.stream().flatMap(file -> file.faults().stream()).toList());
        // Where a file could not be read at all, others may rest on what it holds.
        if (faults.isEmpty() || faults.stream().anyMatch(fault -> fault.what() == null)) return faults;
        try {
            DefiningRights.need(caller, ledger, act);
        } catch (Problem mayNot) {
            LOG.debug("no more is told than what is wrong with the files", mayNot);
            return faults;
        }
        if (ledger.decide(ledger.snapshot(), act) instanceof Decision.Refused refused
                && refused.refusal() instanceof Refusal.DefinitionsFaulty faulty)
            located(faulty, files).stream()
                    .filter(fault -> faults.stream()
                            .noneMatch(own ->
                                    Objects.equals(own.what(), fault.what()) && Objects.equals(own.key(), fault.key())))
                    .toList()
                    .forEach(faults::add);
        return faults;
    }

    /** Adds to each fault the file and line where it stands. */
    private static Problem located(Refusal refusal, List<DefinitionFile> files) {
        return refusal instanceof Refusal.DefinitionsFaulty faulty
                ? Refusals.definitionsFaulty(located(faulty, files))
                : Refusals.problem(refusal);
    }

    private static List<DefinitionFault> located(Refusal.DefinitionsFaulty faulty, List<DefinitionFile> files) {
        var faults = new ArrayList<DefinitionFault>();
        for (Refusal.DraftFaults draft : faulty.faults()) {
            int index = draft.index();
            int at = 0;
            while (index >= 0 && index >= files.get(at).count(draft.what()))
                index -= files.get(at++).count(draft.what());
            DefinitionFile file = index < 0 ? null : files.get(at);
            int place = index;
            draft.faults()
                    .forEach(fault -> faults.add(DefinitionFault.of(
                            file == null ? null : file.name(),
                            file == null ? null : file.line(draft.what(), place, fault.path()),
                            draft,
                            fault)));
        }
        return faults;
    }

    private static List<PartChangeView> parts(Drafts drafts, Defined before, Defined after) {
        var parts = new ArrayList<PartChangeView>();
        for (UnitDraft draft : drafts.units())
            parts.add(part(
                    "unit",
                    before.units().get(draft.key()),
                    after.units().get(draft.key()),
                    Unit::key,
                    Unit::title,
                    Unit::version));
        for (KindDraft draft : drafts.kinds())
            parts.add(part(
                    "kind",
                    before.kinds().get(draft.key()),
                    after.kinds().get(draft.key()),
                    Kind::key,
                    Kind::title,
                    Kind::version));
        // A condition may name its values otherwise than it is kept, so that a route that stood so already is not found
        // by what was written.
        for (Route route : after.routes().values())
            parts.add(
                    part("route", before.routes().get(route.key()), route, Route::key, Route::series, Route::version));
        for (LayoutDraft draft : drafts.layouts())
            parts.add(part(
                    "layout",
                    before.layouts().get(draft.key()),
                    after.layouts().get(draft.key()),
                    KeptLayout::key,
                    KeptLayout::title,
                    KeptLayout::version));
        return parts;
    }

    private static <T> PartChangeView part(
            String what,
            T before,
            T after,
            Function<T, String> key,
            Function<T, String> title,
            ToIntFunction<T> version) {
        T now = after == null ? before : after;
        return new PartChangeView(
                what, key.apply(now), title.apply(now), change(before, after), version.applyAsInt(now));
    }

    private static String change(Object before, Object after) {
        return after == null ? "unchanged" : before == null ? "new" : "changed";
    }

    private static NamespaceChangeView view(Namespace before, Namespace after, NamespaceDraft draft) {
        // One that says what namespaces are anyway is not kept.
        Namespace now = after != null ? after : before != null ? before : Namespace.usual(draft.key());
        return new NamespaceChangeView(now.key(), now.title(), change(before, after), now.version());
    }

    private static CodebookChangeView view(Codebook before, Codebook after) {
        Codebook now = after == null ? before : after;
        return new CodebookChangeView(
                now.key(),
                now.title(),
                change(before, after),
                now.version(),
                after == null || before == null ? List.of() : Differences.between(before, after));
    }

    private SeriesChangeView view(
            Series before, Series after, LedgerSnapshot stood, Optional<LocalDate> defined, boolean routed) {
        Series now = after == null ? before : after;
        List<Difference> differences = after == null || before == null ? List.of() : Differences.between(before, after);
        List<String> next = before != null || !now.restsOnDateAlone()
                ? List.of()
                : Outlook.of(now, Particulars.on(firstServed(now, ledger.today())), lane -> Outlook.Used.NOT, 1)
                        .next()
                        .stream()
                        .map(Outlook.Coming::identifier)
                        .toList();
        return new SeriesChangeView(
                now.key(),
                now.title(),
                change(before, after),
                now.version(),
                differences,
                next,
                Stream.concat(
                                slips(now, Optional.ofNullable(before), stood, defined).stream(),
                                before == null && !routed ? Stream.of(UNROUTED) : Stream.empty())
                        .toList());
    }

    private List<SlipView> slips(
            Series series, Optional<Series> before, LedgerSnapshot stood, Optional<LocalDate> defined) {
        return PossibleMistake.of(series, before, ledger.today(), defined, lane -> stood.counters()
                        .used(lane)
                        .next())
                .stream()
                .map(slip -> new SlipView(slip.path(), slip.remark()))
                .toList();
    }

    /** The date if it is served, or else the first date that is. */
    private static LocalDate firstServed(Series series, LocalDate date) {
        return series.serving(date).isEmpty()
                ? series.ranges().stream()
                        .map(range -> range.serves().opens())
                        .min(LocalDate::compareTo)
                        .orElseThrow()
                : date;
    }

    /**
     * @param date the business date; default: today, or the first date of a range
     * @param fields the fields of the series, including the unit; default: the first choices
     */
    record PreviewRequest(
            SeriesForm series,
            @Nullable String date,
            @Nullable Map<String, String> fields) {}

    /**
     * A preview of a definition, or what is wrong with it.
     *
     * @param date the business date that was looked at; absent where the definition has faults
     * @param fields the codes and texts that the numbers are shown for
     * @param left absent where the definition has faults, or the series starts over
     * @param fieldFault what is wrong with the fields of the request
     * @param slips possible mistakes
     */
    record Preview(
            @Nullable LocalDate date,
            Map<String, String> fields,
            List<PreviewNumber> next,
            @Nullable Long left,
            @Nullable String fieldFault,
            List<DefinitionFault> faults,
            List<SlipView> slips) {}

    /**
     * @param checks where the check symbols are in the identifier
     * @param range the range's place among those sent, from 1
     * @param lane what its lane counts for
     */
    record PreviewNumber(String identifier, List<Stretch> checks, int range, String lane, long position, long value) {}

    /** Symbols of a text, from the first, counted from 0, to the one behind the last. */
    record Stretch(int from, int to) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/previews")
    @Needs(value = Right.DEFINE, at = At.SOMEWHERE)
    @Operation(
            operationId = "preview",
            summary = "A preview of the next ten identifiers of a definition, or all its faults; nothing is changed")
    Preview preview(@RequestBody PreviewRequest request, Caller caller) {
        return work.run(Sort.PROOF, caller.name(), () -> preview(request));
    }

    private Preview preview(PreviewRequest request) {
        if (request.series() == null)
            throw new Problem(Type.MALFORMED, "No series was sent.").field("series", "the definition of a series");
        SeriesDraft draft = request.series().draft();
        LedgerSnapshot now = ledger.snapshot();
        return switch (ledger.decide(now, new Act.Define(List.of(draft), Optional.empty()))) {
            case Decision.Refused refused ->
                new Preview(null, Map.of(), List.of(), null, null, faults(refused.refusal()), List.of());
            case Decision.Done done ->
                preview(
                        done.effects().stream()
                                .filter(Effect.Defined.class::isInstance)
                                .map(effect -> ((Effect.Defined) effect).series())
                                .findFirst()
                                .orElseGet(() -> now.series().get(draft.key())),
                        request,
                        now);
            case Decision.Repeated repeated -> throw new IllegalStateException("definitions have no keys");
            case Decision.Known known -> throw new IllegalStateException("definitions keep no records");
        };
    }

    private static List<DefinitionFault> faults(Refusal refusal) {
        if (!(refusal instanceof Refusal.DefinitionsFaulty faulty)) throw Refusals.problem(refusal);
        return Refusals.faults(faulty);
    }

    private Preview preview(Series series, PreviewRequest request, LedgerSnapshot now) {
        LocalDate date = Requests.date(request.date()).orElseGet(() -> firstServed(series, ledger.today()));
        Fields fields = Fields.of(series, now::choices);
        var given = new LinkedHashMap<String, String>();
        // Fields that the definition has lost while it is being written are passed over.
        if (request.fields() != null)
            request.fields().forEach((name, text) -> {
                if (text != null && !text.isBlank() && series.field(name).isPresent()) given.put(name, text);
            });
        List<SlipView> slips =
                slips(series, Optional.ofNullable(now.series().get(series.key())), now, Optional.empty());
        return switch (fields.read(fields.example(given))) {
            case Fields.Reading.Faulty faulty ->
                new Preview(
                        date,
                        Map.of(),
                        List.of(),
                        null,
                        Refusals.problem(new Refusal.FieldFaulty(series.key(), faulty.fault()))
                                .getMessage(),
                        List.of(),
                        slips);
            case Fields.Reading.Understood understood ->
                preview(series, new Particulars(date, understood.fields()), slips, now);
        };
    }

    private Preview preview(Series series, Particulars particulars, List<SlipView> slips, LedgerSnapshot now) {
        Outlook outlook = Outlook.of(series, particulars, now.counters()::used, COMING);
        List<PreviewNumber> next = outlook.next().stream()
                .map(coming -> new PreviewNumber(
                        coming.identifier(),
                        series.pattern().on(particulars).checks(coming.value()).stream()
                                .map(stretch -> new Stretch(stretch.from(), stretch.to()))
                                .toList(),
                        series.ranges().indexOf(coming.range()) + 1,
                        coming.lane().period(),
                        coming.position(),
                        coming.value()))
                .toList();
        return new Preview(
                particulars.date(),
                particulars.fields(),
                next,
                outlook.left() < 0 ? null : outlook.left(),
                null,
                List.of(),
                slips);
    }
}
