package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.numbering.DocumentName;
import org.youngtally.core.numbering.Grid.Sheet;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.NumberPlan;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Rule;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.access.SignedIn;
import org.youngtally.service.api.DocumentViews.DocumentAllocation;
import org.youngtally.service.api.DocumentViews.DocumentChangeView;
import org.youngtally.service.api.DocumentViews.DocumentFile;
import org.youngtally.service.api.DocumentViews.DocumentGroupView;
import org.youngtally.service.api.DocumentViews.DocumentItemView;
import org.youngtally.service.api.DocumentViews.DocumentLine;
import org.youngtally.service.api.DocumentViews.DocumentPlace;
import org.youngtally.service.api.DocumentViews.DocumentPlanView;
import org.youngtally.service.api.DocumentViews.DocumentRequest;
import org.youngtally.service.api.DocumentViews.DocumentSheetView;
import org.youngtally.service.api.DocumentViews.NumberedDocument;
import org.youngtally.service.body.Takes;
import org.youngtally.service.numbering.BesideNumbers;
import org.youngtally.service.numbering.DocumentPlan;
import org.youngtally.service.numbering.DocumentPlan.OfSeries;
import org.youngtally.service.numbering.DocumentSheets;
import org.youngtally.service.numbering.DocumentSheets.NamedFile;
import org.youngtally.service.numbering.ItemSeries;
import org.youngtally.service.numbering.RuleFile;
import org.youngtally.service.table.TableNumbering;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Numbers in documents that are kept elsewhere: what a rule comes to, and the files with it carried out. */
@RestController
@RequestMapping(Api.V1)
class DocumentController {
    private static final int MOST_LINES = 5_000;

    private final Ledger ledger;
    private final HeavyWork work;

    DocumentController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    @Takes(20_000_000)
    @PostMapping("/document-plans")
    @SignedIn
    @Operation(
            operationId = "planDocument",
            summary =
                    "What a rule comes to in a document: the old and the new text of each item, the groups, and every fault of the rule and of the document at its place. Nothing is changed and no file is kept")
    DocumentPlanView plan(@RequestBody DocumentRequest request, Caller caller) {
        boolean reading = Boolean.TRUE.equals(request.reading());
        RuleFile rule = rule(request, !reading);
        if (rule.rule().isEmpty() && request.items() == null) return faulty(rule.faults());
        return work.run(Sort.DOCUMENT, caller.name(), () -> {
            try {
                // For a client that reads the files itself.
                if (reading)
                    return faulty(rule.faults())
                            .with(DocumentSource.of(request, rule).reading());
                return new Work(request, rule, caller, Right.READ, null).plan();
            } catch (UnreadableDocument e) {
                // How it is to be read is in the rule.
                if (rule.rule().isEmpty()) return faulty(rule.faults());
                throw unreadable(e);
            }
        });
    }

    @Takes(20_000_000)
    @PostMapping("/document-numberings")
    @Needs(value = Right.ALLOCATE, at = At.SOMEWHERE)
    @Operation(
            operationId = "numberDocument",
            summary =
                    "Number the items of a document by a rule and return the files with it carried out: every other byte is unchanged. Numbers of a series are allocated in one entry; each item is known in the ledger by the document and itself, so that a repeated request allocates none twice")
    NumberedDocument number(
            @RequestBody DocumentRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        RuleFile rule = rule(request, true);
        if (rule.rule().isEmpty()) throw Refusals.ruleFaulty(rule.faults());
        return work.run(Sort.DOCUMENT, caller.name(), () -> {
            try {
                return new Work(request, rule, caller, Right.ALLOCATE, key).number();
            } catch (UnreadableDocument e) {
                throw unreadable(e);
            }
        });
    }

    private static RuleFile rule(DocumentRequest request, boolean withFiles) {
        boolean without = request.files() == null || request.files().isEmpty();
        if (request.rule() == null || withFiles && without)
            throw new Problem(Type.MALFORMED, "A document has a rule and at least one file.")
                    .field(request.rule() == null ? "rule" : "files", "the text of a rule, and files with their names");
        return RuleFile.read(request.rule());
    }

    private static Problem unreadable(UnreadableDocument e) {
        return new Problem(Type.DOCUMENT_FAULTY, e.getMessage() + ".").field("files", e.accepted());
    }

    private static DocumentPlanView faulty(List<DefinitionFault> faults) {
        return new DocumentPlanView(
                "", List.of(), List.of(), List.of(), List.of(), 0, 0, faults, null, null, List.of(), 0, 0, null, null,
                null);
    }

    /** One request. */
    private final class Work {
        private final DocumentRequest request;
        private final RuleFile rule;
        private final Caller caller;
        private final Right right;
        private final String key;
        private final Optional<LocalDate> date;
        private final DocumentSource source;
        private final DocumentSheets document;
        private final String digest;
        /** What the document is called in the ledger; absent where it counts itself. */
        private Optional<String> name = Optional.empty();

        /** How many numbers were allocated for the document before. */
        private int known;

        private final List<DefinitionFault> unnamed = new ArrayList<>();

        Work(DocumentRequest request, RuleFile rule, Caller caller, Right right, String key) throws UnreadableDocument {
            this.request = request;
            this.rule = rule;
            this.caller = caller;
            this.right = right;
            this.key = key;
            this.date = Requests.date(request.date());
            this.source = DocumentSource.of(request, rule);
            this.document = source.document();
            this.digest = source.digest(document);
            try {
                name = rule.document(
                        source.values(), document.sheets().getFirst().name());
            } catch (DocumentName.Faulty e) {
                unnamed.add(rule.located(e.fault()));
            }
        }

        DocumentPlanView plan() throws UnreadableDocument {
            if (rule.rule().isEmpty() || !unnamed.isEmpty())
                return view(
                        new NumberPlan(List.of(), List.of(), List.of()),
                        0,
                        rule.rule().isEmpty() ? rule.faults() : unnamed,
                        List.of(),
                        Map.of());
            Optional<OfSeries> ofSeries = ofSeries();
            NumberPlan plan = ofSeries.map(OfSeries::expected).orElseGet(this::ofItself);
            var beside = new BesideNumbers(document, plan.changes());
            Map<String, Map<String, String>> also = beside.also(rule.also());
            List<String> names = names(beside);
            known = ofSeries.map(OfSeries::known).orElse(0);
            return view(plan, ofSeries.map(OfSeries::allocated).orElse(0L), faults(plan, beside), names, also);
        }

        private List<String> names(BesideNumbers beside) {
            return rule.fileName()
                    .map(writing -> beside.names(writing, source.values()))
                    .orElse(List.of());
        }

        private NumberPlan ofItself() {
            return DocumentPlan.ofItself(
                    rule(),
                    document,
                    date.orElseGet(ledger::today),
                    request.originals() == null ? Map.of() : request.originals());
        }

        private Rule rule() {
            return rule.rule().orElseThrow();
        }

        private Optional<OfSeries> ofSeries() {
            Optional<ItemSeries> series = rule.kind().isPresent()
                    ? Optional.of(new KindSeries(
                            caller, right, rule.kind().get(), rule.unit().orElseThrow()))
                    : rule.series().map(this::one);
            return series.map(each -> DocumentPlan.ofSeries(
                    ledger,
                    new DocumentPlan.Request(each, name.orElseThrow(), date),
                    rule(),
                    document,
                    // A look ahead has no key, so that it is no repetition.
                    mark(rule.series().or(rule::kind).orElseThrow(), null)));
        }

        private ItemSeries one(String series) {
            var found = Requests.series(caller, series);
            caller.need(right, Where.series(series));
            return ItemSeries.one(found);
        }

        private RequestMark mark(String series, String by) {
            return Requests.mark(
                    caller.name(),
                    by,
                    RequestText.of("NUMBER DOCUMENT")
                            .part(series)
                            .part(name.orElseThrow())
                            .part(digest));
        }

        /** Where routes lead to several series, each has an act of its own, and the key of a request is of one act. */
        private String key(String series) {
            return key == null || rule.kind().isEmpty()
                    ? key
                    : UUID.nameUUIDFromBytes((key + "\n" + series).getBytes(StandardCharsets.UTF_8))
                            .toString();
        }

        NumberedDocument number() throws UnreadableDocument {
            if (request.plan() != null && !request.plan().equals(digest))
                throw new Problem(Type.DOCUMENT_CHANGED, "A file or the rule changed since the plan was made.")
                        .field("plan", "a new plan for the document as it is");
            if (!unnamed.isEmpty()) throw Refusals.ruleFaulty(unnamed);
            Optional<OfSeries> ofSeries = ofSeries();
            NumberPlan plan = ofSeries.map(OfSeries::expected).orElseGet(this::ofItself);
            var beside = new BesideNumbers(document, plan.changes());
            Map<String, Map<String, String>> also = beside.also(rule.also());
            names(beside);
            List<DefinitionFault> faults = faults(plan, beside);
            if (!faults.isEmpty()) throw Refusals.ruleFaulty(faults);
            // What cannot be written is better known before numbers are allocated.
            if (document.isHere()) document.with(plan.changes(), also);
            var allocations = new ArrayList<DocumentAllocation>();
            known = ofSeries.map(OfSeries::known).orElse(0);
            if (ofSeries.isPresent() && ofSeries.get().allocated() > 0) {
                Map<String, List<String>> identifiers = new HashMap<>();
                for (String series : ofSeries.get().rows().keySet()) {
                    Outcome.Filled allocated = allocate(series, ofSeries.get());
                    identifiers.put(series, allocated.identifiers());
                    allocations.add(
                            new DocumentAllocation(series, allocated.entry().seq(), allocated.identifiers()));
                }
                plan = ofSeries.get().with(identifiers);
            }
            return numbered(plan, allocations);
        }

        private NumberedDocument numbered(NumberPlan plan, List<DocumentAllocation> allocations)
                throws UnreadableDocument {
            var beside = new BesideNumbers(document, plan.changes());
            Map<String, Map<String, String>> also = beside.also(rule.also());
            return new NumberedDocument(
                    digest,
                    files(document.isHere() ? document.with(plan.changes(), also) : List.of(), names(beside)),
                    changes(plan, also),
                    rule().restarts(),
                    groups(plan),
                    unchanged(plan),
                    allocations,
                    lines(plan),
                    document.filled(),
                    known,
                    name.orElse(null));
        }

        private List<DocumentFile> files(List<NamedFile> written, List<String> names) {
            var files = new ArrayList<DocumentFile>();
            for (int i = 0; i < document.sheets().size(); i++)
                files.add(new DocumentFile(
                        document.sheets().get(i).name(),
                        written.isEmpty() ? null : encoded(written.get(i).bytes()),
                        names.isEmpty() ? null : names.get(i)));
            return files;
        }

        private Outcome.Filled allocate(String series, OfSeries wanted) {
            return switch (Requests.perform(ledger, wanted.act(series, mark(series, key(series))), caller.name())) {
                case Outcome.Refused<Answer.Table> refused -> throw Refusals.problem(refused.refusal());
                case Outcome.Filled filled
                when filled.withdrawn() > 0 -> throw TableNumbering.withdrawn(filled, "document");
                case Outcome.Filled filled -> filled;
            };
        }

        /** The faults of a document: those of its items, each with the sheet that it is on, and those of the rule. */
        private List<DefinitionFault> faults(NumberPlan plan, BesideNumbers beside) {
            Map<String, Integer> sheetOf = sheetOf();
            return Stream.concat(
                            Stream.of(plan.faults(), beside.itemFaults())
                                    .flatMap(List::stream)
                                    .map(fault -> fault(fault, sheetOf.get(fault.item()))),
                            beside.faults().stream().map(rule::located))
                    .toList();
        }

        private DefinitionFault fault(ItemFault fault, int sheet) {
            return new DefinitionFault(
                    document.sheets().get(sheet - 1).name(),
                    null,
                    null,
                    null,
                    null,
                    fault.item(),
                    fault.problem(),
                    fault.accepted(),
                    null);
        }

        private Map<String, Integer> sheetOf() {
            var sheetOf = new HashMap<String, Integer>();
            for (Item item : document.items()) sheetOf.put(item.id(), item.sheet());
            return sheetOf;
        }

        private DocumentPlanView view(
                NumberPlan plan,
                long allocated,
                List<DefinitionFault> faults,
                List<String> names,
                Map<String, Map<String, String>> also)
                throws UnreadableDocument {
            return new DocumentPlanView(
                    digest,
                    document.sheets().stream().map(DocumentController::view).toList(),
                    rule.rule().map(Rule::restarts).orElse(List.of()),
                    groups(plan),
                    changes(plan, also),
                    unchanged(plan),
                    allocated,
                    faults,
                    Boolean.TRUE.equals(request.items()) ? items() : null,
                    Boolean.TRUE.equals(request.pictures()) ? pictures(plan) : null,
                    lines(plan),
                    document.filled(),
                    known,
                    name.orElse(null),
                    names.isEmpty() ? null : names,
                    null);
        }

        private List<DocumentFile> pictures(NumberPlan plan) throws UnreadableDocument {
            return document.pictures(plan.changes()).stream()
                    .map(picture -> new DocumentFile(picture.name(), encoded(picture.bytes()), null))
                    .toList();
        }

        private List<DocumentLine> lines(NumberPlan plan) throws UnreadableDocument {
            return document.lines(plan.changes(), MOST_LINES).stream()
                    .map(each -> new DocumentLine(
                            each.sheet(),
                            each.line().line(),
                            each.line().before(),
                            each.line().after()))
                    .toList();
        }

        private static long unchanged(NumberPlan plan) {
            long bearing =
                    plan.groups().stream().mapToLong(NumberPlan.Group::items).sum();
            return bearing
                    - plan.changes().stream()
                            .filter(change -> change.number().isPresent())
                            .count();
        }

        private List<DocumentChangeView> changes(NumberPlan plan, Map<String, Map<String, String>> also) {
            Map<String, Integer> sheetOf = sheetOf();
            return plan.changes().stream()
                    .map(each -> new DocumentChangeView(
                            each.item(),
                            sheetOf.get(each.item()),
                            each.before(),
                            each.after(),
                            each.number().orElse(null),
                            also.getOrDefault(each.item(), Map.of())))
                    .toList();
        }

        private List<DocumentItemView> items() {
            Map<String, Integer> elements = document.elements();
            return document.items().stream()
                    .map(item -> new DocumentItemView(
                            item.id(),
                            item.sheet(),
                            item.text(),
                            item.attributes(),
                            item.place()
                                    .map(place -> new DocumentPlace(place.x(), place.y()))
                                    .orElse(null),
                            elements.get(item.id())))
                    .toList();
        }
    }

    private static List<DocumentGroupView> groups(NumberPlan plan) {
        return plan.groups().stream()
                .map(each -> new DocumentGroupView(each.values(), each.items(), each.first(), each.last()))
                .toList();
    }

    private static DocumentSheetView view(Sheet sheet) {
        return new DocumentSheetView(sheet.name(), sheet.width(), sheet.height());
    }

    private static String encoded(byte[] bytes) {
        return Base64.getEncoder().encodeToString(bytes);
    }
}
