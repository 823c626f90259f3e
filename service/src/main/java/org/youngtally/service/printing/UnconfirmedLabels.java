package org.youngtally.service.printing;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LabelStretch;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.store.LabelQueries;

/**
 * After a loss: labels that wait may have been printed by the state of the ledger that is lost. They become
 * unconfirmed, and a person says what became of each.
 */
public final class UnconfirmedLabels {
    private UnconfirmedLabels() {}

    public static List<Act.ChangeLabels> acts(Ledger ledger, String account) {
        List<JobLabels> jobs = ledger.read(dsl -> {
            var queries = new LabelQueries(dsl);
            return queries.all().stream()
                    .map(job -> queries.at(job).orElseThrow())
                    .toList();
        });
        var acts = new ArrayList<Act.ChangeLabels>();
        for (JobLabels job : jobs)
            for (LabelStretch stretch : job.stretches()) {
                var places = new Places(stretch.from(), stretch.to());
                if (stretch.state() == LabelState.WAITING)
                    acts.add(act(job, new LabelStep.Send(List.of(places)), account));
                if (stretch.state() == LabelState.WAITING || stretch.state() == LabelState.SENT)
                    acts.add(act(
                            job,
                            new LabelStep.Note(
                                    places,
                                    LabelState.UNCONFIRMED,
                                    Optional.of("may have been printed before the restore")),
                            account));
            }
        return acts;
    }

    private static Act.ChangeLabels act(JobLabels job, LabelStep step, String account) {
        return new Act.ChangeLabels(
                job.job().series(),
                job.seq(),
                step,
                Purpose.of(job.job()),
                new RequestMark(account, Optional.empty(), "restore"));
    }
}
