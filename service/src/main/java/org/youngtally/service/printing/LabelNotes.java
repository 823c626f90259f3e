package org.youngtally.service.printing;

import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.LabelQueries;

/** Notes in the ledger what is sent of a job, and what its printer says of it. */
final class LabelNotes {
    private static final int MOST_LETTERS = 500;

    private final Ledger ledger;
    private final long job;
    private final String account;

    /** @param account for whom it is printed */
    LabelNotes(Ledger ledger, long job, String account) {
        this.ledger = ledger;
        this.job = job;
        this.account = account;
    }

    JobLabels labels() {
        return ledger.read(dsl -> new LabelQueries(dsl).at(job)).orElseThrow();
    }

    /** @return whether it is so; not where some of them do not wait any more */
    boolean sent(List<Places> places, String printer) {
        return perform(new LabelStep.Send(places, Optional.of(printer)));
    }

    void printed(List<LabelStretch> labels) {
        note(labels, LabelState.PRINTED, Optional.empty());
    }

    void unconfirmed(List<LabelStretch> labels, String why) {
        note(
                labels,
                LabelState.UNCONFIRMED,
                Optional.of(why.length() > MOST_LETTERS ? why.substring(0, MOST_LETTERS) + "…" : why));
    }

    /** Where somebody has said already what became of them, that stands. */
    private void note(List<LabelStretch> labels, LabelState now, Optional<String> why) {
        for (LabelStretch each : labels) perform(new LabelStep.Note(new Places(each.from(), each.to()), now, why));
    }

    private boolean perform(LabelStep step) {
        JobLabels labels = labels();
        var act = new Act.ChangeLabels(
                labels.job().series(),
                job,
                step,
                Purpose.of(labels.job()),
                new RequestMark(account, Optional.empty(), "printing"));
        return switch (ledger.perform(act, account)) {
            case Outcome.Labelled labelled -> true;
            case Outcome.Refused<Answer.Labels> refused -> false;
        };
    }
}
