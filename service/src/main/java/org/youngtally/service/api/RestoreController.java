package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Stretch;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.Range;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.LedgerUnavailable;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.PossibleRollback;
import org.youngtally.ledger.store.DoubtQueries;
import org.youngtally.ledger.store.StateQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.printing.UnconfirmedLabels;
import org.youngtally.service.restore.HighestNumbers;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** What is known outside of a ledger that may not be the newest, and the numbers that are in doubt by it. */
@RestController
@RequestMapping(Api.V1)
class RestoreController {
    private static final int MOST_DOUBTS = 1_000;
    private static final int MOST_NUMBERS = 1_000_000;
    private static final int MOST_NAMED = 5;

    private final Ledger ledger;
    private final HeavyWork work;

    RestoreController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * A lane of a series, as the ledger knows it.
     *
     * @param range its number
     * @param lane its name; empty for the only one of its range
     * @param last the last number that the counter has passed; absent where it has passed none
     * @param left how many numbers are left in it
     */
    record KnownLane(int range, String lane, @Nullable String last, long left) {}

    /**
     * A series, and what is stated of it.
     *
     * @param stated whether it was stated what may have been issued of it
     * @param lanes those that the ledger knows
     */
    record SeriesStatement(String series, boolean stated, List<KnownLane> lanes) {}

    /**
     * Whether the ledger may not be the newest.
     *
     * @param possible whether it may not; it allocates no numbers then
     * @param why absent where it is the newest, as far as is known
     * @param entry its last one when that was found
     * @param series of which it is to be stated what may have been issued; empty where nothing is
     */
    record RollbackView(
            boolean possible,
            @Nullable String why,
            @Nullable Long entry,
            List<SeriesStatement> series) {}

    @GetMapping("/rollback")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "showRollback",
            summary = "Whether the ledger may not be the newest, and what is still to be stated of each series")
    RollbackView show(Caller caller) {
        Optional<PossibleRollback> found = ledger.rollback();
        if (found.isEmpty()) return new RollbackView(false, null, null, List.of());
        List<String> unstated = ledger.unstated();
        return new RollbackView(
                true,
                found.get().why(),
                found.get().entry(),
                caller.snapshot().series().values().stream()
                        .filter(series -> !series.retired())
                        .map(series ->
                                new SeriesStatement(series.key(), !unstated.contains(series.key()), lanes(series)))
                        .toList());
    }

    private List<KnownLane> lanes(Series series) {
        return ledger.read(dsl -> {
            var queries = new StateQueries(dsl);
            return queries.lanes().stream()
                    .filter(lane -> lane.key().series().equals(series.key()))
                    .map(lane -> view(series, lane, queries))
                    .toList();
        });
    }

    private static KnownLane view(Series series, StateQueries.LaneRow lane, StateQueries queries) {
        Optional<Stretch> newest = lane.next() == 0
                ? Optional.empty()
                : queries.stretches(lane.lane(), lane.next() - 1, lane.next() - 1).stream()
                        .findFirst();
        return new KnownLane(
                lane.key().range(),
                lane.key().period(),
                newest.map(stretch -> text(series, lane.key(), stretch, lane.next() - 1))
                        .orElse(null),
                series.range(lane.key().range())
                        .map(range -> series.positions(range) - lane.next())
                        .orElse(0L));
    }

    private static String text(Series series, LaneKey lane, Stretch stretch, long position) {
        Optional<Range> range = series.range(lane.range());
        if (stretch.origin().text().isPresent() || range.isEmpty())
            return stretch.origin().text().orElse("");
        return series.render(range.get(), stretch.origin().particulars(), position);
    }

    /**
     * What is known outside of a series.
     *
     * @param highest the highest number of each lane; or all that are in use, of which the highest count
     * @param othersUnchanged whether nothing was issued in the lanes of which no number is named
     * @param reason where it is known from
     * @param dryRun whether only to say what would be in doubt
     */
    record StatementRequest(
            @Nullable String series,
            @Nullable List<String> highest,
            @Nullable Boolean othersUnchanged,
            @Nullable String reason,
            @Nullable Boolean dryRun) {}

    /**
     * What is in doubt by it.
     *
     * @param seq the entry of the ledger; absent in a dry run
     * @param quantity how many numbers
     * @param doubts the runs of them, the first of them
     * @param repeated whether this is the answer to an earlier, same request
     */
    record HighestStatement(
            @Nullable Long seq, String series, long quantity, List<DoubtRun> doubts, boolean repeated) {}

    /**
     * Numbers in a row.
     *
     * @param first the first of them
     * @param last the last of them
     * @param quantity how many they are
     */
    record DoubtRun(String first, String last, long quantity) {}

    @Takes(20_000_000)
    @PostMapping("/rollback/statements")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "stateHighest",
            summary =
                    "State the highest numbers of a series that are known outside. What lies between those of the ledger and these is in doubt: it is never issued again, and listed until it is settled")
    HighestStatement state(
            @RequestBody StatementRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        if (request.series() == null)
            throw new Problem(Type.MALFORMED, "The series is missing.").field("series", "the key of a series");
        boolean needed = ledger.rollback().isPresent();
        Series series = Requests.series(caller, request.series());
        List<String> numbers = request.highest() == null ? List.of() : request.highest();
        if (numbers.size() > MOST_NUMBERS)
            throw new Problem(Type.MALFORMED, "%,d numbers are too many for one request.".formatted(numbers.size()))
                    .field("highest", "up to %,d numbers".formatted(MOST_NUMBERS));
        Optional<String> reason = Requests.note("reason", request.reason());
        HighestNumbers highest = work.run(
                Sort.INSPECTION,
                caller.name(),
                () -> new HighestNumbers(
                        series, Fields.of(series, caller.snapshot()::choices), ledger.today(), numbers));
        if (!highest.unreadable().isEmpty())
            throw new Problem(
                            Type.NOT_STATED,
                            "‘" + String.join("’, ‘", highest.unreadable()) + "’ "
                                    + (highest.unreadable().size() == 1 ? "is no number" : "are no numbers") + " of ‘"
                                    + series.key() + "’.")
                    .field("highest", "numbers that " + series.pattern() + " writes, in one of its ranges");
        if (needed && !Boolean.TRUE.equals(request.othersUnchanged())) others(series, highest);
        var act = new Act.StateHighest(
                series.key(),
                series.version(),
                highest.lanes(),
                reason,
                Requests.mark(
                        caller.name(),
                        key,
                        RequestText.of("STATE")
                                .part(series.key())
                                .part(RequestText.list(numbers))
                                .part(String.valueOf(request.othersUnchanged()))
                                .part(reason)));
        if (!needed) needRepetition(act);
        if (Boolean.TRUE.equals(request.dryRun())) return tried(act);
        return switch (Requests.perform(ledger, act, caller.name())) {
            case Outcome.Settled settled ->
                new HighestStatement(
                        settled.entry().seq(),
                        series.key(),
                        settled.entry().quantity(),
                        ledger
                                .read(dsl ->
                                        new DoubtQueries(dsl).of(settled.entry().seq(), MOST_DOUBTS))
                                .stream()
                                .map(doubt -> new DoubtRun(doubt.first(), doubt.last(), doubt.quantity()))
                                .toList(),
                        settled.repeated());
            case Outcome.Refused<Answer.Settlement> refused -> throw Refusals.problem(refused.refusal());
        };
    }

    private static Problem none() {
        return new Problem(Type.NO_ROLLBACK, "The ledger is the newest, as far as is known.");
    }

    /**
     * Where the ledger is the newest, what was done before is answered to whoever repeats it, and nothing else is done.
     */
    private void needRepetition(Act<?> act) {
        if (!(ledger.decide(act) instanceof Decision.Repeated)) throw none();
    }

    /** Of each lane that has numbers left something is to be said. */
    private void others(Series series, HighestNumbers highest) {
        List<KnownLane> open = lanes(series).stream()
                .filter(lane -> lane.left() > 0 && !highest.has(new LaneKey(series.key(), lane.range(), lane.lane())))
                .toList();
        if (open.isEmpty() && !highest.lanes().isEmpty()) return;
        List<String> named = open.stream()
                .limit(MOST_NAMED)
                .map(lane -> (lane.lane().isEmpty() ? "range " + lane.range() : lane.lane())
                        + (lane.last() == null ? "" : " (last known: " + lane.last() + ")"))
                .toList();
        throw new Problem(
                        Type.NOT_STATED,
                        open.isEmpty()
                                ? "‘" + series.key() + "’ has no lane yet, and no number is named."
                                : "Nothing is stated of " + open.size()
                                        + (open.size() == 1 ? " lane" : " lanes") + " of ‘" + series.key() + "’: "
                                        + String.join(", ", named) + (open.size() > MOST_NAMED ? " …" : "") + ".")
                .field(
                        "highest",
                        "the highest number of each lane; or othersUnchanged, if nothing was issued in the others");
    }

    private HighestStatement tried(Act.StateHighest act) {
        List<DoubtRun> doubts =
                switch (ledger.decide(act)) {
                    case Decision.Done done ->
                        done.effects().stream()
                                .filter(Effect.Settled.class::isInstance)
                                .map(Effect.Settled.class::cast)
                                .map(settled -> new DoubtRun(settled.first(), settled.last(), settled.quantity()))
                                .toList();
                    case Decision.Refused refused -> throw Refusals.problem(refused.refusal());
                    case Decision.Repeated repeated -> List.of();
                    case Decision.Known known -> List.of();
                };
        return new HighestStatement(
                null,
                act.series(),
                doubts.stream().mapToLong(DoubtRun::quantity).sum(),
                doubts.stream().limit(MOST_DOUBTS).toList(),
                false);
    }

    /** @param reason why nothing else was issued */
    record ResumeRequest(@Nullable String reason) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/rollback/resumptions")
    @Needs(value = Right.DEFINE, at = At.ALL)
    @Operation(
            operationId = "resume",
            summary =
                    "Allocate numbers again, once something is stated of every series. Labels that were not printed yet become unconfirmed")
    Settlement resume(
            @RequestBody ResumeRequest request,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        Optional<String> reason = Requests.note("reason", request.reason());
        RequestMark mark =
                Requests.mark(caller.name(), key, RequestText.of("RESUME").part(reason));
        if (ledger.rollback().isEmpty()) {
            var again = new Act.Resume("", reason, mark);
            needRepetition(again);
            return Requests.settled(ledger, again, caller.name());
        }
        if (reason.isEmpty())
            throw new Problem(Type.REASON_MISSING, "A reason is required.")
                    .field("reason", "a reason that an auditor will understand");
        List<String> open = ledger.unstated();
        if (!open.isEmpty())
            throw new Problem(
                            Type.NOT_STATED,
                            "Nothing is stated yet of "
                                    + String.join(", ", open.subList(0, Math.min(MOST_NAMED, open.size())))
                                    + (open.size() > MOST_NAMED ? " and " + (open.size() - MOST_NAMED) + " more" : "")
                                    + ".")
                    .field("series", "a statement for each series first");
        try {
            return switch (ledger.resume(reason, mark, caller.name(), UnconfirmedLabels.acts(ledger, caller.name()))) {
                case Outcome.Settled settled -> Settlement.of(settled.entry(), settled.repeated());
                case Outcome.Refused<Answer.Settlement> refused -> throw Refusals.problem(refused.refusal());
            };
        } catch (LedgerUnavailable e) {
            throw Refusals.problem(e);
        }
    }

    /**
     * Numbers in a row that may have been issued by a state of the ledger that is lost.
     *
     * @param first the first of them
     * @param last the last of them
     * @param quantity how many they are
     * @param reason where it is known from
     * @param seq the entry by which they are in doubt
     */
    record DoubtView(
            String series,
            String first,
            String last,
            long quantity,
            @Nullable String reason,
            String by,
            Instant at,
            long seq) {}

    @GetMapping("/doubts")
    @Needs(value = Right.READ, at = At.SOMEWHERE)
    @Operation(
            operationId = "listDoubts",
            summary = "Numbers that are in doubt, until somebody reports them as used or voids them")
    List<DoubtView> doubts(
            @Parameter(description = "Only those of this series") @RequestParam(required = false) String series,
            Caller caller) {
        Optional<Collection<String>> wanted = Requests.readable(caller, series);
        return ledger.read(dsl -> new DoubtQueries(dsl).all(wanted, MOST_DOUBTS)).stream()
                .map(doubt -> new DoubtView(
                        doubt.series(),
                        doubt.first(),
                        doubt.last(),
                        doubt.quantity(),
                        doubt.entry().note().orElse(null),
                        doubt.entry().by(),
                        doubt.entry().at(),
                        doubt.entry().seq()))
                .toList();
    }
}
