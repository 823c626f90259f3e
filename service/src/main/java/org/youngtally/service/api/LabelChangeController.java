package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.api.LabelJobs.LabelJobView;
import org.youngtally.service.body.Takes;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;

/** What becomes of labels of a job: confirmed, reprinted, spoiled or cancelled. */
@RestController
@RequestMapping(Api.V1)
class LabelChangeController {
    private static final int MOST_LABELS = 1_000;

    private final LabelJobs jobs;

    LabelChangeController(LabelJobs jobs) {
        this.jobs = jobs;
    }

    /**
     * Which labels of a job.
     *
     * @param places those at these places, such as 5 or 121-140, from 1 and in their order
     * @param identifiers or all that bear one of these and with which it can be done
     * @param reason why; required where labels are spoiled
     * @param replace of spoiled labels, whether each is printed again, with a new number where its own becomes void;
     *     default: true
     */
    record LabelChoice(
            @Nullable List<String> places,
            @Nullable List<String> identifiers,
            @Nullable String reason,
            @Nullable Boolean replace) {}

    @Takes(Takes.A_LIST)
    @PostMapping("/label-jobs/{job}/confirmations")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(operationId = "confirmLabels", summary = "State that labels which were sent are printed")
    LabelJobView confirm(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.CONFIRM, choice, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/label-jobs/{job}/reprints")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "reprintLabels",
            summary =
                    "Print labels again with the same numbers; what was sent or unconfirmed is spoiled by it. They wait until they are sent")
    LabelJobView reprint(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.REPRINT, choice, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/label-jobs/{job}/spoilages")
    @Needs(value = Right.VOID, at = At.REQUEST)
    @Operation(
            operationId = "spoilLabels",
            summary =
                    "State that labels are spoiled: a number that no other label bears becomes void. Each is printed again, unless it is not to be replaced")
    LabelJobView spoil(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.SPOIL, choice, key, caller);
    }

    @Takes(Takes.A_LIST)
    @PostMapping("/label-jobs/{job}/cancellations")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @Operation(
            operationId = "cancelLabels",
            summary =
                    "Cancel labels that were never sent, all of them if none is named: their numbers are returned, or void where the series allows no returns")
    LabelJobView cancel(
            @PathVariable long job,
            @RequestBody LabelChoice choice,
            @Parameter(description = Api.KEY_MEANING) @RequestHeader(name = Api.KEY, required = false) String key,
            Caller caller) {
        return change(job, Deed.CANCEL, choice, key, caller);
    }

    private enum Deed {
        CONFIRM("CONFIRM", Right.ALLOCATE),
        REPRINT("REPRINT", Right.ALLOCATE),
        SPOIL("SPOIL", Right.VOID),
        CANCEL("CANCEL", Right.ALLOCATE);
        /** For digests of requests. */
        private final String word;

        private final Right right;

        Deed(String word, Right right) {
            this.word = word;
            this.right = right;
        }

        /** Whether it can be done with a label that is found by its number. */
        private boolean fits(LabelState state) {
            return switch (this) {
                case CONFIRM -> state == LabelState.SENT || state == LabelState.UNCONFIRMED;
                case REPRINT, SPOIL -> state.isOut();
                case CANCEL -> state == LabelState.WAITING;
            };
        }
    }

    private LabelJobView change(long job, Deed deed, LabelChoice choice, String key, Caller caller) {
        JobLabels labels = jobs.at(job, deed.right, caller);
        boolean replace = choice.replace() == null || choice.replace();
        if (deed == Deed.SPOIL && replace) caller.need(Right.ALLOCATE, LabelJobs.where(labels.job()));
        Optional<String> reason = Requests.note("reason", choice.reason());
        RequestMark mark = Requests.mark(
                caller.name(),
                key,
                RequestText.of(deed.word + " LABELS")
                        .part(job)
                        .part(RequestText.listOrNull(choice.places()))
                        .part(RequestText.listOrNull(choice.identifiers()))
                        .part(reason)
                        .part(String.valueOf(replace)));
        if (jobs.done(mark).isEmpty()) {
            List<Places> places = places(labels, deed, choice);
            LabelStep step =
                    switch (deed) {
                        case CONFIRM -> new LabelStep.Confirm(places);
                        case REPRINT -> new LabelStep.Reprint(places, reason);
                        case SPOIL -> new LabelStep.Spoil(places, reason, replace);
                        case CANCEL -> new LabelStep.Cancel(places, reason);
                    };
            jobs.perform(labels, step, mark, caller);
        }
        return jobs.view(job, deed.right, caller);
    }

    private List<Places> places(JobLabels labels, Deed deed, LabelChoice choice) {
        boolean named = choice.places() != null && !choice.places().isEmpty();
        boolean numbered = choice.identifiers() != null && !choice.identifiers().isEmpty();
        if (named && numbered || deed != Deed.CANCEL && !named && !numbered)
            throw new Problem(
                            Type.MALFORMED,
                            named ? "Places and identifiers are named, and one is wanted." : "No labels are named.")
                    .field("places", "places such as 5 or 121-140; or identifiers");
        if (named)
            return choice.places().stream().map(LabelChangeController::places).toList();
        if (!numbered) return List.of();
        if (choice.identifiers().size() > MOST_LABELS
                || choice.identifiers().stream().anyMatch(Objects::isNull))
            throw new Problem(
                            Type.MALFORMED,
                            choice.identifiers().size() > MOST_LABELS
                                    ? "%,d identifiers are named."
                                            .formatted(choice.identifiers().size())
                                    : "An identifier is null.")
                    .field("identifiers", "1 to %,d identifiers".formatted(MOST_LABELS));
        var places = new TreeSet<Long>();
        for (String identifier : choice.identifiers()) {
            List<Long> found = jobs.bearing(labels, identifier).stream()
                    .filter(place -> deed.fits(labels.state(place)))
                    .toList();
            if (found.isEmpty())
                throw new Problem(
                                Type.LABEL_STATE,
                                "Label job " + labels.seq() + " has no label of ‘" + identifier
                                        + "’ with which this can be done.")
                        .field("identifiers", "identifiers of labels that are in the right state");
            places.addAll(found);
        }
        return runs(places);
    }

    /** Places that follow on each other as one. */
    private static List<Places> runs(Iterable<Long> places) {
        var runs = new ArrayList<Places>();
        for (long place : places) {
            boolean goesOn = !runs.isEmpty() && runs.getLast().to() + 1 == place;
            if (goesOn) runs.set(runs.size() - 1, new Places(runs.getLast().from(), place));
            else runs.add(new Places(place, place));
        }
        return runs;
    }

    private static Places places(String text) {
        if (text == null || !text.matches("[0-9]{1,15}(-[0-9]{1,15})?"))
            throw new Problem(Type.MALFORMED, "‘" + text + "’ is not a place, nor a run of places.")
                    .field("places", "such as 5 or 121-140, from 1");
        long[] ends = Arrays.stream(text.split("-")).mapToLong(Long::parseLong).toArray();
        return new Places(ends[0] - 1, ends[ends.length - 1] - 1);
    }
}
