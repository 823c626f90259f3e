package org.youngtally.core.proof;

import java.util.List;
import java.util.Set;
import org.youngtally.core.series.Fields;

/** Finds out whether two numbers of a namespace can ever be written alike, or knows it already. */
@FunctionalInterface
public interface Prover {
    /** Looks for itself, which can take seconds. */
    Prover LOOKING = Proof::of;

    /** @param changed the keys of the series that are new or changed */
    Proof of(List<Fields> namespace, Set<String> changed);
}
