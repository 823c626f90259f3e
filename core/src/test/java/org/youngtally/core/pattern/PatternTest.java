package org.youngtally.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PatternTest {
    private static final LocalDate DATE = LocalDate.of(2026, 2, 3);

    @ParameterizedTest
    @CsvSource(quoteCharacter = '"', value = {
        "LW{date yy}-{count 5}, 17, LW26-00017",
        "{count}, 17, 17",
        "{count 3}/{date yyyyMM}, 999, 999/202602",
        "V{date yyMM}/{count 2}x, 5, V2602/05x",
        "{{{count 2}}}, 7, {07}",
        "{ count 4 }, 7, 0007",
        "{date D}.{count}, 0, 34.0",
        "{date yyyy'Q'Q}-{count}, 1, 2026Q1-1",
        "{date yy''}-{count}, 1, 26'-1",
    })
    void anIdentifierIsThePatternWithItsFieldsFilledIn(String pattern, long value, String identifier) {
        assertThat(Pattern.parse(pattern).render(DATE, value)).isEqualTo(identifier);
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '"', delimiter = ';', value = {
        "\"\"; 1; is empty",
        "LW-; 4; no count",
        "LW{count; 3; not closed",
        "LW}{count}; 3; closes nothing",
        "{count 5}{count 3}; 10; second count",
        "{coumt 5}; 2; not a field",
        "{}; 2; no name",
        "{count 19}; 8; not a width",
        "{count 0}; 8; not a width",
        "{count x}; 8; not a width",
        "{date}{count}; 6; no date letters",
        "{date yyy}{count}; 7; not a date part",
        "{date yy MMM}{count}; 10; not a date part",
        "{date yy'x}{count}; 9; quote is not closed",
        "\" {count}\"; 1; starts with white space",
        "\"{count} \"; 8; ends with white space",
        "a\u0301{count}; 2; combining mark",
        "a\u200b{count}; 2; control symbol",
    })
    void aFaultIsToldWithItsColumn(String pattern, int column, String problem) {
        assertThatThrownBy(() -> Pattern.parse(pattern)).isInstanceOfSatisfying(PatternException.class, fault -> {
            assertThat(fault.column()).isEqualTo(column);
            assertThat(fault.problem()).contains(problem);
            assertThat(fault.accepted()).isNotBlank();
        });
    }

    @Test
    void aMistypedFieldIsToldTheNearestOne() {
        assertThatThrownBy(() -> Pattern.parse("{coumt 5}")).hasMessageContaining("did you mean {count}?");
    }

    @ParameterizedTest
    @ValueSource(strings = {"yyyy", "yy", "MM", "M", "dd", "d", "D", "DDD", "Q", "yyyy-MM-dd", "yy.D"})
    void datesAreWrittenAsTheStandardLibraryWritesThem(String letters) {
        var oracle = DateTimeFormatter.ofPattern(letters, Locale.ROOT);
        var pattern = Pattern.parse("{date " + letters + "}/{count}");
        for (LocalDate date = LocalDate.of(1999, 12, 1); date.getYear() < 2003; date = date.plusDays(1)) assertThat(pattern.renderBefore(date)).isEqualTo(oracle.format(date) + "/");
    }

    @ParameterizedTest
    @CsvSource({"2026-01-01, 2026-01", "2027-01-01, 2026-53", "2024-12-30, 2025-01", "2025-12-28, 2025-52"})
    void weeksAreIsoWeeksWithTheirOwnYear(LocalDate date, String week) {
        assertThat(Pattern.parse("{date YYYY-ww}:{count}").renderBefore(date)).isEqualTo(week + ":");
    }

    @Test
    void readingIsTheInverseOfRendering() {
        String[] fronts = {"", "A", "{date yy}", "x{date yyyyMM}-", "{date d}", "7", "{date d}.{date M}."};
        String[] backs = {"", "-z", "{date yy}", "/{date w}", "9"};
        var random = new Random(4);
        for (int i = 0; i < 20_000; i++) {
            int width = random.nextInt(6);
            var pattern = Pattern.parse(fronts[random.nextInt(fronts.length)] + "{count" + (width == 0 ? "" : " " + width) + "}" + backs[random.nextInt(backs.length)]);
            LocalDate date = DATE.plusDays(random.nextInt(2_000));
            long value = random.nextLong(Math.min(pattern.count().largest(), 1_000_000) + 1);
            String identifier = pattern.render(date, value);
            assertThat(pattern.read(identifier, date)).as(identifier).hasValue(value);
            assertThat(pattern.read(identifier.toLowerCase(Locale.ROOT), date)).as(identifier).hasValue(value);
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"LW26-0017", "LW26-000017", "LW25-00017", "LW26-0001x", "LW26-", "LW26", "", "LW26-00017x"})
    void whatIsNotOfThePatternIsNotRead(String text) {
        assertThat(Pattern.parse("LW{date yy}-{count 5}").read(text, DATE)).isEmpty();
    }
}
