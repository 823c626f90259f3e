package org.youngtally.bench.drill;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The few values that a drill reads out of answers. */
final class Text {
    private Text() {}

    /** The text or number of a property, where it first stands; empty where it does not. */
    static String of(String json, String property) {
        Matcher matcher = Pattern.compile("\"" + property
                        + "\":(?:\"((?:[^\"\\\\]|\\\\.)*)\"|([0-9a-z.]+)|\\[\"((?:[^\"\\\\]|\\\\.)*)\")")
                .matcher(json);
        if (!matcher.find()) return "";
        for (int group = 1; group <= 3; group++) if (matcher.group(group) != null) return matcher.group(group);
        return "";
    }
}
