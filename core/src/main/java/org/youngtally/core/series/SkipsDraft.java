package org.youngtally.core.series;

import java.util.List;

/**
 * Values that are never to be given, as somebody wrote them; what is absent is null.
 *
 * @param values single values and stretches, such as {@code 13} and {@code 4000-4999}
 * @param containing texts that the written count must not contain
 */
public record SkipsDraft(List<String> values, List<String> containing) {
    public static SkipsDraft of(Skips skips) {
        return new SkipsDraft(
                skips.values().isEmpty()
                        ? null
                        : skips.values().stream().map(Object::toString).toList(),
                skips.containing().isEmpty() ? null : skips.containing());
    }
}
