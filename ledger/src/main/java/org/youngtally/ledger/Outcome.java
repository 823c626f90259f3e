package org.youngtally.ledger;

import java.util.List;
import org.youngtally.core.act.Effect;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.Namespace;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;

/** The ledger's answer to an act, which is on disk when it is given. */
public sealed interface Outcome {

    /** Numbers were taken. @param repeated whether by an earlier act, whose answer this is */
    record Taken(Taking taking, boolean repeated) implements Outcome {}

    /** Definitions were taken; none where all stood so already. */
    record Defined(List<Namespace> namespaces, List<Codebook> codebooks, List<Series> series) implements Outcome {
        /** Those among the effects of an act. */
        public static Defined by(List<Effect> effects) {
            return new Defined(effects.stream().filter(Effect.NamespaceDefined.class::isInstance).map(effect -> ((Effect.NamespaceDefined) effect).namespace()).toList(),
                    effects.stream().filter(Effect.CodebookDefined.class::isInstance).map(effect -> ((Effect.CodebookDefined) effect).codebook()).toList(),
                    effects.stream().filter(Effect.Defined.class::isInstance).map(effect -> ((Effect.Defined) effect).series()).toList());
        }
    }

    record Refused(Refusal refusal) implements Outcome {}

    static Outcome of(Writer.Outcome outcome, Ledger ledger) {
        return switch (outcome) {
            case Writer.Outcome.Refused refused -> new Refused(refused.refusal());
            case Writer.Outcome.Repeated repeated -> new Taken(ledger.read(dsl -> Taking.at(repeated.seq(), dsl)), true);
            case Writer.Outcome.Done done when done.entry().flatMap(Entry::request).isPresent() -> new Taken(Taking.of(done.entry().get(), ledger), false);
            case Writer.Outcome.Done done -> Defined.by(done.entry().map(Entry::effects).orElse(List.of()));
        };
    }
}
