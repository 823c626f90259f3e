package org.youngtally.service.api;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Where;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.RecordQueries;
import org.youngtally.service.access.Caller;
import org.youngtally.service.web.Refusals;

/** Records as requests meet them: whether somebody may see or change one, and what an act made of it. */
final class Records {
    private Records() {}

    private static KeptRecord at(Ledger ledger, long id) {
        return ledger.read(dsl -> new RecordQueries(dsl).at(id))
                .orElseThrow(() -> Refusals.problem(new Refusal.UnknownRecord(id)));
    }

    /** A record that the caller may see: who may read its series. Nobody changes what they may not see. */
    static KeptRecord seen(Ledger ledger, Caller caller, long id) {
        KeptRecord record = at(ledger, id);
        if (!caller.reads(record.number().series()))
            throw caller.missing(
                    Right.READ, new Where(Optional.empty(), Optional.of(record.kind()), Optional.of(record.home())));
        return record;
    }

    static Where in(KeptRecord record, String unit) {
        return new Where(Optional.of(record.number().series()), Optional.of(record.kind()), Optional.of(unit));
    }

    /** That the caller has a right in every unit in which a record stands. */
    static void needInAll(Caller caller, Right right, KeptRecord record) {
        for (String unit : record.units()) caller.need(right, in(record, unit));
    }

    /** That the caller may change these fields: what is the same in all units is changed in all of them. */
    static void needToChange(Caller caller, KeptRecord record, String unit, Map<String, String> fields) {
        caller.need(Right.ALLOCATE, in(record, unit));
        Optional<KeptRecord.UnitValues> standing = record.in(unit);
        if (record.units().size() < 2 || standing.isEmpty()) return;
        Kind kind = RecordSeries.kind(caller.snapshot(), record.kind());
        Set<String> common = new TreeSet<>(RecordSeries.placing(caller.snapshot())
                .common(kind, record.number().series()));
        boolean touched = common.stream().anyMatch(name -> !fields.getOrDefault(name, "")
                .strip()
                .equals(standing.get().values().getOrDefault(name, "")));
        if (touched) needInAll(caller, Right.ALLOCATE, record);
    }

    static Outcome.Recorded perform(Ledger ledger, Act<Answer.Record> act, Caller caller) {
        return switch (Requests.perform(ledger, act, caller.name())) {
            case Outcome.Recorded recorded -> recorded;
            case Outcome.Refused<Answer.Record> refused -> throw Refusals.problem(refused.refusal());
        };
    }
}
