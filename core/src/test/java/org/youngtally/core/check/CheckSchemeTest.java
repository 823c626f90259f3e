package org.youngtally.core.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.apache.commons.validator.routines.checkdigit.CheckDigit;
import org.apache.commons.validator.routines.checkdigit.EAN13CheckDigit;
import org.apache.commons.validator.routines.checkdigit.ISBN10CheckDigit;
import org.apache.commons.validator.routines.checkdigit.LuhnCheckDigit;
import org.apache.commons.validator.routines.checkdigit.VerhoeffCheckDigit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class CheckSchemeTest {
    private static final String ISBN10 = "weighted:2-3-4-5-6-7-8-9-10/11=X";

    private static CheckScheme scheme(String name) {
        return CheckSchemes.of(name).orElseThrow();
    }

    @ParameterizedTest
    @CsvSource({
        "gs1, 629104150021, 3",
        "gs1, 37610425002123456, 9",
        "gs1, 9638507, 4",
        "luhn, 7992739871, 3",
        "luhn, 1789372997, 4",
        "mod11-2, 0794, 0",
        "mod11-2, 000000021825009, 7",
        "mod11-2, 079, X",
        "mod37-2, G123489654321, Y",
        "mod97-10, 794, 44",
        "mod1271-36, ISO79, 3W",
        "mod11-10, 0794, 5",
        "mod37-36, A12425GABC1234002, M",
        "verhoeff, 236, 3",
        "verhoeff, 12345, 1",
        "verhoeff, 142857, 0",
        "damm, 572, 4",
        "iso11649, 539007547034, 18",
        "iso11649, 2348231, 71",
        "weighted:2-3-4-5-6-7-8-9-10/11=X, 030640615, 2",
        "weighted:2-3-4-5-6-7-8-9-10/11=X, 043942089, X",
        "weighted:102-103-104-105-106-107-108-109-110/10, 1, 8"
    })
    void givesTheCheckSymbolsOfPublishedExamples(String name, String payload, String check) {
        assertThat(scheme(name).check(payload)).contains(check);
    }

    static Stream<Arguments> oracles() {
        return Stream.of(
                Arguments.of("gs1", 12, EAN13CheckDigit.EAN13_CHECK_DIGIT),
                Arguments.of("luhn", 11, LuhnCheckDigit.LUHN_CHECK_DIGIT),
                Arguments.of("verhoeff", 9, VerhoeffCheckDigit.VERHOEFF_CHECK_DIGIT),
                Arguments.of(ISBN10, 9, ISBN10CheckDigit.ISBN10_CHECK_DIGIT));
    }

    @ParameterizedTest
    @MethodSource("oracles")
    void agreesWithAnIndependentLibrary(String name, int length, CheckDigit oracle) throws Exception {
        var random = new Random(7);
        for (int i = 0; i < 2_000; i++) {
            String payload = payload(scheme(name), length, random);
            if (payload.chars().allMatch(c -> c == '0')) continue;
            assertThat(scheme(name).check(payload)).as(payload).contains(oracle.calculate(payload));
        }
    }

    static Stream<CheckScheme> schemes() {
        return Stream.concat(CheckSchemes.all().stream(), Stream.of(scheme(ISBN10)));
    }

    /** The slips that pass, over every text of three payload symbols or a fixed sample where there are too many. */
    private record Passed(int texts, List<String> substitutions, List<String> swaps) {
        private static final Map<CheckScheme, Passed> SEEN = new HashMap<>();

        static Passed under(CheckScheme scheme) {
            return SEEN.computeIfAbsent(scheme, Passed::tried);
        }

        private static Passed tried(CheckScheme scheme) {
            var random = new Random(3);
            var passed = new Passed(3_000, new ArrayList<>(), new ArrayList<>());
            for (int i = 0; i < passed.texts; i++) {
                Optional<String> whole = Checked.add(scheme, payload(scheme, 3 + i % 4, random));
                if (whole.isPresent()) passed.slips(scheme, whole.get(), scheme.inFront() ? 2 : 0);
            }
            return passed;
        }

        private void slips(CheckScheme scheme, String whole, int from) {
            int checkFrom = scheme.inFront() ? 2 : whole.length() - scheme.length();
            for (int at = from; at < whole.length(); at++) {
                String symbols = at >= checkFrom && at < checkFrom + scheme.length() ? scheme.writes() : scheme.reads();
                for (char symbol : symbols.toCharArray()) {
                    String wrong = whole.substring(0, at) + symbol + whole.substring(at + 1);
                    if (symbol != whole.charAt(at) && Checked.of(scheme, wrong).right())
                        substitutions.add(whole + " " + wrong);
                }
                if (at + 1 == whole.length() || whole.charAt(at) == whole.charAt(at + 1)) continue;
                String swapped =
                        whole.substring(0, at) + whole.charAt(at + 1) + whole.charAt(at) + whole.substring(at + 2);
                try {
                    if (Checked.of(scheme, swapped).right()) swaps.add("" + whole.charAt(at) + whole.charAt(at + 1));
                } catch (IllegalArgumentException e) {
                    assertThat(e)
                            .as("a check symbol that moved among the others is seen at once")
                            .hasMessageContaining("cannot be read");
                }
            }
        }
    }

    @ParameterizedTest
    @MethodSource("schemes")
    void findsEveryWrongSymbolWhereTheSchemePromisesIt(CheckScheme scheme) {
        List<String> passed = Passed.under(scheme).substitutions();
        if (scheme.name().equals("iso11649"))
            assertThat(passed).isNotEmpty().allMatch(CheckSchemeTest::isLetterForDigit);
        else assertThat(passed).isEmpty();
    }

    private static boolean isLetterForDigit(String pair) {
        String[] texts = pair.split(" ");
        int at = 0;
        while (texts[0].charAt(at) == texts[1].charAt(at)) at++;
        return Character.isDigit(texts[0].charAt(at)) != Character.isDigit(texts[1].charAt(at));
    }

    @ParameterizedTest
    @MethodSource("schemes")
    void findsEverySwapOfNeighboursWhereTheSchemePromisesIt(CheckScheme scheme) {
        List<String> passed = Passed.under(scheme).swaps();
        switch (scheme.name()) {
            case "gs1" ->
                assertThat(passed).isNotEmpty().allMatch(pair -> Math.abs(pair.charAt(0) - pair.charAt(1)) == 5);
            case "luhn" -> assertThat(passed).isNotEmpty().allMatch(pair -> pair.equals("09") || pair.equals("90"));
            case "luhn36" -> assertThat(passed).isNotEmpty().allMatch(pair -> pair.equals("0Z") || pair.equals("Z0"));
            case "mod11-10", "mod27-26", "mod37-36" ->
                assertThat(passed).isNotEmpty().hasSizeLessThan(3_000 * 4 / reads(scheme));
            case "iso11649" ->
                assertThat(passed)
                        .allMatch(pair -> Character.isDigit(pair.charAt(0)) != Character.isDigit(pair.charAt(1)));
            default -> assertThat(passed).isEmpty();
        }
    }

    private static int reads(CheckScheme scheme) {
        return scheme.reads().length();
    }

    private static String payload(CheckScheme scheme, int length, Random random) {
        var text = new StringBuilder();
        for (int i = 0; i < length; i++)
            text.append(scheme.reads().charAt(random.nextInt(scheme.reads().length())));
        return text.toString();
    }

    @Test
    void aNumberThatWouldGiveTenIsNotUsedWhereTenIsNotWritten() {
        assertThat(scheme("weighted:2-3-4-5-6-7-8-9-10/11").check("043942089")).isEmpty();
        assertThat(Checked.add(scheme("weighted:2-3-4-5-6-7-8-9-10/11"), "043942089"))
                .isEmpty();
    }

    @Test
    void aWeightThatSharesAFactorWithTheModulusIsSaidToMissSlips() {
        assertThat(scheme("weighted:2-1/10").misses()).contains("a wrong digit off by 5 where the weight is 2");
        assertThat(scheme("gs1").misses()).isEqualTo("a swap of neighbours that differ by 5");
        assertThat(scheme(ISBN10).misses()).isEqualTo("neither a wrong digit nor a swap of neighbours");
    }

    @Test
    void aTextIsReadWithoutItsSeparatorsAndInEitherCase() {
        assertThat(Checked.of(scheme("iso11649"), "rf18 5390 0754 7034").right())
                .isTrue();
        assertThat(Checked.of(scheme("gs1"), "6-291041-500213").right()).isTrue();
    }

    @Test
    void aWrongTextIsToldWithTheSlipsThatWouldExplainIt() {
        Checked wrong = Checked.of(scheme("damm"), "5274");
        assertThat(wrong.right()).isFalse();
        assertThat(wrong.repairs()).contains(new Checked.Repair(Checked.TypingError.SWAP, 2, "5724"));
        assertThat(wrong.repairs())
                .allMatch(repair -> Checked.of(scheme("damm"), repair.text()).right());
        assertThat(Checked.of(scheme("damm"), "5724").repairs()).isEmpty();
    }

    @Test
    void aSymbolThatCannotBeReadIsNamed() {
        assertThatThrownBy(() -> Checked.of(scheme("gs1"), "62910B1500213")).hasMessageContaining("‘B’ cannot be read");
        assertThatThrownBy(() -> Checked.of(scheme("gs1"), "6")).hasMessageContaining("too short");
        assertThatThrownBy(() -> Checked.of(scheme("iso11649"), "18539007547034"))
                .hasMessageContaining("starts with RF");
    }

    @ParameterizedTest
    @CsvSource({"weighted:/10", "weighted:1-2/12", "weighted:1-2/10=X", "weighted:1-2", "gs2", "''"})
    void aNameThatIsNoSchemeIsNone(String name) {
        assertThat(CheckSchemes.of(name)).isEmpty();
    }

    /** As those who use the standard write it: 98 less the rest, never 00 or 01. */
    @Test
    void mod97WritesFrom02To98() {
        assertThat(written(scheme("mod97-10"))).hasSize(97).startsWith("02").endsWith("98");
    }

    @Test
    void theFirstEditionOfMod97WritesFrom00To96() {
        assertThat(written(CheckSchemes.ofFirstEdition("mod97-10").orElseThrow()))
                .hasSize(97)
                .startsWith("00")
                .endsWith("96");
    }

    private static TreeSet<String> written(CheckScheme scheme) {
        return IntStream.range(0, 1_000)
                .mapToObj(i -> scheme.check("%03d".formatted(i)).orElseThrow())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    @ParameterizedTest
    @CsvSource({"00, true", "97, true", "96, false", "98, false"})
    void mod97TakesWhateverIsCongruentToOne(String check, boolean right) {
        CheckScheme scheme = scheme("mod97-10");
        String payload = IntStream.range(0, 1_000)
                .mapToObj("%03d"::formatted)
                .filter(each -> scheme.check(each).orElseThrow().equals("97"))
                .findFirst()
                .orElseThrow();
        assertThat(Checked.of(scheme, payload + check).right()).isEqualTo(right);
    }

    @ParameterizedTest
    @ValueSource(strings = {"weighted:0/10", "weighted:10-20/10", "weighted:0-0-0/7"})
    void weightsThatCheckNothingAreNoScheme(String name) {
        assertThat(CheckSchemes.of(name)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "iso11649, RF18539007547034, looks like a complete creditor reference",
        "iso11649, 1234567890123456789012, has 22 symbols",
        "gs1, '', the text is empty",
        "luhn36, 12ſ4, cannot be read",
        "luhn36, 12ı4, cannot be read"
    })
    void whatCannotBeCompletedIsRefused(String name, String text, String why) {
        assertThatThrownBy(() -> Checked.add(scheme(name), text)).hasMessageContaining(why);
    }

    @ParameterizedTest
    @CsvSource({
        "iso11649, '', the text is empty",
        "gs1, '', the text is empty",
        "iso11649, RF181234567890123456789012, has 26 symbols",
        "luhn36, 12ſ4, cannot be read"
    })
    void whatCannotBeVerifiedIsRefused(String name, String text, String why) {
        assertThatThrownBy(() -> Checked.of(scheme(name), text)).hasMessageContaining(why);
    }

    /** A reference may begin with these letters. */
    @Test
    void aReferenceThatBeginsWithRFIsTakenWhole() {
        assertThat(Checked.add(scheme("iso11649"), "RFQ12").orElseThrow())
                .startsWith("RF")
                .endsWith("RFQ12")
                .hasSize(9);
    }

    @Test
    void aTextThatIsLongerThanAnyIdentifierIsRefused() {
        assertThatThrownBy(() -> Checked.of(scheme("luhn"), "1".repeat(201)))
                .hasMessageContaining("200 are read at most");
    }
}
