package org.youngtally.core.pattern;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PatternTest {
    private static final LocalDate DATE = LocalDate.of(2026, 2, 3);

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '"',
            value = {
                "LW{date yy}-{count 5}, 17, LW26-00017",
                "{count}, 17, 17",
                "{count 3}/{date yyyyMM}, 999, 999/202602",
                "V{date yyMM}/{count 2}x, 5, V2602/05x",
                "{{{count 2}}}, 7, {07}",
                "{ count 4 }, 7, 0007",
                "{date D}.{count}, 0, 34.0",
                "{date yyyy'Q'Q}-{count}, 1, 2026Q1-1",
                "{date yy''}-{count}, 1, 26'-1",
                "{date ddMMMyy}{count}, 1, 03Feb261",
                "{date MMMM} {count}, 1, February 1",
                "{date ddMMM upper}-{count}, 1, 03FEB-1",
                "{count 3 upper}, 0, AAA",
                "{count 3 lower}, 27, abb",
                "{count upper}, 1, A",
                "{count upper}, 26, Z",
                "{count upper}, 27, AA",
                "{count upper}, 703, AAA",
                "{count 2 alphanumeric}, 1295, ZZ",
                "{count alphanumeric}, 36, 10",
                "{count 4 safe}, 31, 2233",
                "{count 3 of 01}, 5, 101",
                "{count 2 grow}, 7, 07",
                "{count 2 grow}, 1234, 1234",
                "629104150{count 3}{check gs1}, 21, 6291041500213",
                "P-{count 3}{check mod11-2}, 79, P-079X",
                "LW{date yy}-{count 5}{check luhn of count}, 17, LW26-000174",
                "{check luhn of count}{count 2}{check iso11649 of count}, 7, 50709",
                "RF{check iso11649}{count 12}, 539007547034, RF18539007547034",
                "RF{check iso11649}{count 12 lower}, 0, RF05aaaaaaaaaaaa",
            })
    void anIdentifierIsThePatternWithItsFieldsFilledIn(String pattern, long value, String identifier) {
        assertThat(Pattern.parse(pattern).render(DATE, value)).isEqualTo(identifier);
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '"',
            delimiter = ';',
            value = {
                "\"\"; 1; is empty",
                "LW-; 4; no count",
                "LW{count; 3; not closed",
                "LW}{count}; 3; closes nothing",
                "{count 5}{count 3}; 10; second count",
                "{coumt 5}; 2; not a field",
                "{}; 2; no name",
                "{date yy upper}{count}; 9; without the name of a month",
                "{count 19}; 8; not a width",
                "{count 0}; 8; not a width",
                "{count x}; 8; neither a width nor an alphabet",
                "{count 4 uper}; 8; neither a width nor an alphabet",
                "{count 4 upper 3}; 8; not an option",
                "{count grow}; 8; grows by itself",
                "{count of}; 8; names no symbols",
                "{count 3 of AbB}; 8; count as the same symbol",
                "{count}{check gs2}; 15; not a check digit scheme",
                "{count}{check}; 14; names no scheme",
                "{check luhn}{count}; 19; is not before its check field",
                "{count}{check iso11649}; 23; is not after its check field",
                "RF{check iso11649}{count}{check luhn}; 37; comes before what it covers",
                "{count}{check weighted:2-3/11}; 15; have no check digit",
                "{fiscal dd}{count}; 9; not a part of a fiscal year",
                "{date}{count}; 6; no date letters",
                "{date yyy}{count}; 7; not a part of a date",
                "{date yy MMMMM}{count}; 10; not a part of a date",
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
        for (LocalDate date = LocalDate.of(1999, 12, 1); date.getYear() < 2003; date = date.plusDays(1))
            assertThat(pattern.renderBefore(date)).isEqualTo(oracle.format(date) + "/");
    }

    @ParameterizedTest
    @CsvSource({"2026-01-01, 2026-01", "2027-01-01, 2026-53", "2024-12-30, 2025-01", "2025-12-28, 2025-52"})
    void weeksAreIsoWeeksWithTheirOwnYear(LocalDate date, String week) {
        assertThat(Pattern.parse("{date YYYY-ww}:{count}").renderBefore(date)).isEqualTo(week + ":");
    }

    @ParameterizedTest
    @CsvSource({"2026-03-31, 2526", "2026-04-01, 2627", "2026-12-31, 2627", "2027-01-01, 2627"})
    void aFiscalYearIsNamedByTheYearsItBeginsAndEndsIn(LocalDate date, String years) {
        var pattern = Pattern.parse("{fiscal yy}{fiscal-end yy}-{count}", DateStyle.of("en", 4));
        assertThat(pattern.render(date, 1)).isEqualTo(years + "-1");
        assertThat(Pattern.parse("{fiscal M}/{fiscal Q}-{count}", DateStyle.of("en", 4))
                        .render(LocalDate.of(2026, 3, 1), 1))
                .isEqualTo("12/4-1");
        assertThat(Pattern.parse("{fiscal-end yyyy}-{count}").render(date, 1))
                .as("a fiscal year from January is the year")
                .isEqualTo(date.getYear() + "-1");
    }

    @Test
    void monthsAreNamedInTheLocaleOfTheSeries() {
        assertThat(Pattern.parse("{date MMM}{count}", DateStyle.of("de", 1)).render(LocalDate.of(2026, 3, 1), 1))
                .isEqualTo("März1");
        assertThat(DateStyle.isLocale("de-AT")).isTrue();
        assertThat(DateStyle.isLocale("xx-nowhere")).isFalse();
    }

    @Test
    void lettersAreReadInEitherCaseAndAWrongCheckIsNotRead() {
        var pattern = Pattern.parse("p{count 3 upper}{check mod37-36}");
        String text = pattern.render(DATE, 4_711);
        assertThat(pattern.read(text.toLowerCase(Locale.ROOT), Particulars.on(DATE)))
                .hasValue(4_711);
        char last = text.charAt(text.length() - 1);
        assertThat(pattern.read(text.substring(0, text.length() - 1) + (last == '0' ? '1' : '0'), Particulars.on(DATE)))
                .isEmpty();
        assertThat(Pattern.parse("{count 2 grow}").read("007", Particulars.on(DATE)))
                .as("padding that a grown count does not have")
                .isEmpty();
    }

    @Test
    void readingIsTheInverseOfRendering() {
        var random = new Random(4);
        for (int i = 0; i < 20_000; i++) {
            var pattern = Pattern.parse(GeneratedPatterns.next(random));
            var particulars = new Particulars(
                    DATE.plusDays(random.nextInt(2_000)),
                    Map.of(
                            "f",
                            GeneratedPatterns.TEXTS.get(random.nextInt(GeneratedPatterns.TEXTS.size())),
                            "unit",
                            random.nextBoolean() ? "works" : "CARE"));
            long value = random.nextLong(
                    pattern.count().least(), Math.min(pattern.count().largest(), 1_000_000) + 1);
            String identifier = pattern.render(particulars, value);
            assertThat(pattern.read(identifier, particulars)).as(identifier).hasValue(value);
            assertThat(pattern.read(identifier.toLowerCase(Locale.ROOT), particulars))
                    .as(identifier)
                    .hasValue(value);
        }
    }

    @Test
    void checkSymbolsAreToldWhereTheyStand() {
        assertThat(Pattern.parse("RF{check iso11649}LARK{count 3}")
                        .on(Particulars.on(DATE))
                        .checks(7))
                .containsExactly(new Rendering.Symbols(2, 4));
        assertThat(Pattern.parse("{count}{check luhn of count}-{check mod37-36}")
                        .on(Particulars.on(DATE))
                        .checks(123))
                .containsExactly(new Rendering.Symbols(3, 4), new Rendering.Symbols(5, 6));
        assertThat(Pattern.parse("A{count 3}").on(Particulars.on(DATE)).checks(7))
                .isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"LW26-0017", "LW26-000017", "LW25-00017", "LW26-0001x", "LW26-", "LW26", "", "LW26-00017x"})
    void whatIsNotOfThePatternIsNotRead(String text) {
        assertThat(Pattern.parse("LW{date yy}-{count 5}").read(text, Particulars.on(DATE)))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '"',
            value = {
                "{date 'it''s' yyyy}-{count}, it's 2026-7, its 2026-7",
                "{date yyyy''MM}-{count}, 2026'03-7, 2026'03-7",
                "{date '''t is' yyyy}-{count}, 't is 2026-7, 't is 2026-7",
                "{date 'a''''b'yy}-{count}, a''b26-7, a'b26-7"
            })
    void twoQuotesAreOneThatStandsThere(String text, String newest, String first) {
        LocalDate date = LocalDate.of(2026, 3, 2);
        assertThat(Pattern.parse(text).render(date, 7)).isEqualTo(newest);
        assertThat(Pattern.parse(text, DateStyle.PLAIN, PatternEdition.FIRST).render(date, 7))
                .as("as the first edition wrote it")
                .isEqualTo(first);
    }

    @ParameterizedTest
    @ValueSource(strings = {"\u00A0", "\u2007", "\u202F", "\u3000", "\u3164", "\u115F", "\u1160", "\uFFA0", "\u2800"})
    void aSymbolThatCannotBeSeenIsRefusedAtTheEdge(String blank) {
        for (String text : List.of(blank + "{count 3}", "{count 3}" + blank, "{count 3 of " + blank + "AB}"))
            assertThatThrownBy(() -> Pattern.parse(text)).as(text).isInstanceOf(PatternException.class);
        assertThat(Pattern.parse("A" + blank + "{count 3}").render(LocalDate.EPOCH, 7))
                .isEqualTo("A" + blank + "007");
    }

    @Test
    void aVersionThatHasGivenNumbersKeepsASymbolThatCannotBeSeen() {
        assertThat(Pattern.parse("\u00A0{count 3}", DateStyle.PLAIN, PatternEdition.FIRST)
                        .render(LocalDate.EPOCH, 7))
                .isEqualTo("\u00A0007");
    }
}
