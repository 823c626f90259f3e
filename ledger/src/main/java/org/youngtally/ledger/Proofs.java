package org.youngtally.ledger;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.youngtally.core.proof.Proof;
import org.youngtally.core.proof.Prover;
import org.youngtally.core.series.Fields;
import org.youngtally.core.text.Comparison;

/**
 * What was proved lately, so that a proof is looked for beside the writer and the writer only looks it up: by
 * everything that it rests on, so that it is none for definitions that have changed meanwhile.
 */
final class Proofs {
    private static final int MOST = 64;

    /** What a proof rests on. */
    private record Question(List<Fields> namespace, List<Comparison> rules, Set<String> changed) {
        private Question(List<Fields> namespace, Set<String> changed) {
            this(
                    List.copyOf(namespace),
                    namespace.stream()
                            .map(fields -> fields.series().comparison())
                            .toList(),
                    Set.copyOf(changed));
        }
    }

    /** A proof is asked for that is not known yet. */
    static final class Unproved extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private Unproved() {
            super("not proved yet", null, false, false);
        }
    }

    private final Map<Question, Proof> known = new LinkedHashMap<>(MOST, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Question, Proof> eldest) {
            return size() > MOST;
        }
    };

    /** Proofs that one act needs; they are not forgotten before it is done. */
    final class Gathered {
        private final Map<Question, Proof> found = new ConcurrentHashMap<>();

        /** Looks where it is not known. */
        Prover looking() {
            return (namespace, changed) -> found.computeIfAbsent(new Question(namespace, changed), Proofs.this::prove);
        }

        /** Tells what was gathered, and throws {@link Unproved} for anything else. */
        Prover known() {
            return (namespace, changed) -> {
                Proof proof = found.get(new Question(namespace, changed));
                if (proof == null) throw new Unproved();
                return proof;
            };
        }
    }

    Gathered gather() {
        return new Gathered();
    }

    private Proof prove(Question question) {
        Proof proof = get(question);
        if (proof != null) return proof;
        Proof found = Proof.of(question.namespace(), question.changed());
        synchronized (known) {
            known.put(question, found);
        }
        return found;
    }

    private Proof get(Question question) {
        synchronized (known) {
            return known.get(question);
        }
    }
}
