package org.youngtally.core.organisation;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.series.FieldRule;

/** The units as the choices of a field: each goes by its key or its code, and is written by its code. */
public final class UnitChoices {
    private UnitChoices() {}

    /** What a field takes its choices from, by its key: the units, or one of the codebooks. */
    public static Optional<Codebook> orCodebook(
            String key, Organisation organisation, Function<String, Optional<Codebook>> codebooks) {
        return key.equals(FieldRule.UNITS) ? Optional.of(of(organisation.units().values())) : codebooks.apply(key);
    }

    public static Codebook of(Collection<Unit> units) {
        return new Codebook(
                FieldRule.UNITS,
                FieldRule.UNITS,
                units.stream()
                        .map(unit -> new Choice(unit.key(), unit.code(), unit.retired(), List.of()))
                        .toList(),
                1);
    }
}
