package org.youngtally.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The quick way of writing many identifiers against the general one, which writes the first. */
class FixedRenderingTest {
    private static final Particulars PARTICULARS =
            new Particulars(LocalDate.of(2026, 3, 2), Map.of("plant", "Öl", "ward", "W7"));
    private static final long[] VALUES = {
        0, 1, 9, 10, 36, 37, 99_999, 100_000, 999_999_999, 2_147_483_647, 2_147_483_648L, 999_999_999_999_999_999L
    };

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{count 5}",
                "LW{date yy}-{count 9}",
                "{count 18}",
                "{count 4 upper}/{date MM}",
                "{count 7 safe}{check mod37-36}",
                "09521234{count 9}{check gs1}",
                "A{count 12}-X{check luhn}",
                "{field ward}{count 6}{check mod97-10}",
                "{field plant}{count 6}",
                "{count 6}{check gs1 of count}",
                "{count 6}{check gs1}-B",
                "{check iso11649}LARK{count 8}",
                "7{count 6 upper}{check mod37-2}",
                "A7-{count 3}-9{check gs1}",
                "{count}{check damm}",
                "{count 5}{check verhoeff}",
                "{count 8}{check mod11-10}",
                "{count 8 safe}{check mod1271-36}",
            })
    void everyIdentifierIsWrittenAsIfItWereTheFirst(String text) {
        Pattern pattern = Pattern.parse(text);
        Rendering many = pattern.on(PARTICULARS);
        for (int round = 0; round < 2; round++)
            for (long value : VALUES)
                if (value <= pattern.count().largest())
                    assertThat(many.of(value)).isEqualTo(pattern.on(PARTICULARS).of(value));
    }
}
