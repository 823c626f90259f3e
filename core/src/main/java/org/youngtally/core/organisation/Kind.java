package org.youngtally.core.organisation;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A sort of record, with its fields.
 *
 * @param lines the fields of each of its lines; empty for a kind without lines
 * @param kept how its records are kept; absent for the usual way
 * @param version from 1, one more with each change
 * @param retired whether it is out of use
 */
public record Kind(
        String key,
        String title,
        List<KindField> fields,
        List<KindField> lines,
        Optional<Keeping> kept,
        int version,
        boolean retired) {
    public Kind {
        fields = List.copyOf(fields);
        lines = List.copyOf(lines);
    }

    /** How its records are kept. */
    public Keeping keeping() {
        return kept.orElse(Keeping.USUAL);
    }

    public Optional<KindField> field(String name) {
        return fields.stream().filter(field -> field.name().equals(name)).findFirst();
    }

    /** The codebooks that its fields take their choices from. */
    public Set<String> codebooks() {
        return Stream.concat(fields.stream(), lines.stream())
                .flatMap(field -> field.codebook().stream())
                .collect(Collectors.toSet());
    }

    public Kind withRetired(boolean nowRetired) {
        return new Kind(key, title, fields, lines, kept, version, nowRetired);
    }

    public Kind withVersion(int newVersion) {
        return new Kind(key, title, fields, lines, kept, newVersion, retired);
    }
}
