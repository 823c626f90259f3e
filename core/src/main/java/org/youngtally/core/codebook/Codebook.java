package org.youngtally.core.codebook;

import java.util.List;

/**
 * A list of choices, each with a full name and the short code that goes into an identifier; a choice can narrow the
 * next one. A codebook that exists has been checked: names and codes are unique among the choices that stand side by
 * side.
 *
 * @param version from 1, one more with each change
 */
public record Codebook(String key, String title, List<Choice> choices, int version) {
    public Codebook {
        choices = List.copyOf(choices);
    }

    public Codebook withVersion(int newVersion) {
        return new Codebook(key, title, choices, newVersion);
    }
}
