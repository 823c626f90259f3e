package org.youngtally.core.pattern;

import java.time.Month;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;

/**
 * How a series writes dates. The names of the months are kept as they were when the series was defined: they differ
 * from one Java to the next, and a number renders for ever as it did.
 *
 * @param locale a language tag of BCP 47
 * @param shortMonths twelve names, for {@code MMM}
 * @param longMonths twelve names, for {@code MMMM}
 * @param fiscalStart the month in which the fiscal year begins, 1 to 12
 */
public record DateStyle(String locale, List<String> shortMonths, List<String> longMonths, int fiscalStart) {
    public static final DateStyle PLAIN = of("en", 1);

    public DateStyle {
        shortMonths = List.copyOf(shortMonths);
        longMonths = List.copyOf(longMonths);
        if (fiscalStart < 1 || fiscalStart > 12) throw new IllegalArgumentException("invalid month: " + fiscalStart);
    }

    /** The style of a locale, with the month names of this Java. */
    public static DateStyle of(String locale, int fiscalStart) {
        Locale named = Locale.forLanguageTag(locale);
        return new DateStyle(
                locale,
                Stream.of(Month.values())
                        .map(month -> month.getDisplayName(TextStyle.SHORT, named))
                        .toList(),
                Stream.of(Month.values())
                        .map(month -> month.getDisplayName(TextStyle.FULL, named))
                        .toList(),
                fiscalStart);
    }

    /** Whether the tag names a locale whose months this Java can write. */
    public static boolean isLocale(String tag) {
        return Stream.of(Locale.getAvailableLocales())
                .anyMatch(locale -> !locale.toLanguageTag().equals("und")
                        && locale.toLanguageTag().equals(tag));
    }
}
