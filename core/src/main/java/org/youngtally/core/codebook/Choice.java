package org.youngtally.core.codebook;

import java.util.List;
import org.youngtally.core.text.Comparison;

/**
 * One choice of a codebook.
 *
 * @param name its full name
 * @param code its text in an identifier
 * @param retired whether it can no longer be chosen; its code is never used for anything else
 * @param choices what can be chosen next where this is chosen
 */
public record Choice(String name, String code, boolean retired, List<Choice> choices) {
    public Choice {
        choices = List.copyOf(choices);
    }

    /**
     * Whether somebody means this choice by a text, its name or its code.
     *
     * @param key of the text
     */
    public boolean goesBy(String key) {
        return Comparison.OF_NAMES.key(code).equals(key)
                || Comparison.OF_NAMES.key(name).equals(key);
    }
}
