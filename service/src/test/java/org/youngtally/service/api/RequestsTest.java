package org.youngtally.service.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.NullSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.service.web.Problem;

/** The parts that requests have in common. */
class RequestsTest {
    private static String digest(RequestText asked) {
        return Requests.mark("ines", "key", asked).digest();
    }

    @Test
    void aDateIsReadAsIsoWritesIt() {
        assertThat(Requests.date("2026-03-02")).contains(LocalDate.of(2026, 3, 2));
    }

    @ParameterizedTest
    @ValueSource(strings = {"2026-02-29", "02.03.2026", "0999-12-31", "+10000-01-01", ""})
    void aDateThatIsNoneIsRefused(String text) {
        assertThatThrownBy(() -> Requests.date(text)).isInstanceOf(Problem.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "a\nb"})
    void aNameThatCannotBeSeenIsRefused(String text) {
        assertThatThrownBy(() -> Requests.name("reference", text)).isInstanceOf(Problem.class);
    }

    @Test
    void aNameHasTwoHundredSymbolsAtTheMost() {
        assertThatThrownBy(() -> Requests.name("reference", "a".repeat(201)))
                .hasMessage("The reference is 201 symbols long.");
    }

    @Test
    void aDurationInMonthsIsRefused() {
        assertThatThrownBy(() -> Requests.duration("hold", "P1M")).isInstanceOf(Problem.class);
    }

    @Test
    void aDurationIsReadAsIsoWritesIt() {
        assertThat(Requests.duration("hold", "PT15M")).contains(Duration.ofMinutes(15));
    }

    @Test
    void theSameRequestHasTheSameDigest() {
        assertThat(digest(RequestText.of("A").part(Optional.of("b")).part(Map.of("c", "d"))))
                .isEqualTo(digest(RequestText.of("A").part(Optional.of("b")).part(Map.of("c", "d"))));
    }

    @Test
    void aDateLeftOutAndADateGivenAreTwoRequests() {
        assertThat(digest(RequestText.of("A").part(Optional.empty())))
                .isNotEqualTo(digest(RequestText.of("A").part(Optional.of(LocalDate.of(2026, 3, 2)))));
    }

    @Test
    void fieldsThatAreNotGivenDoNotChangeADigest() {
        assertThat(digest(RequestText.of("A").part(Map.of()))).isEqualTo(digest(RequestText.of("A")));
    }

    @Test
    void aPartThatIsNewChangesNoDigestWhereItIsAbsent() {
        assertThat(digest(RequestText.of("A").added("unit", Optional.empty()))).isEqualTo(digest(RequestText.of("A")));
    }

    @Test
    void aPartThatIsNewChangesTheDigestWhereItIsPresent() {
        assertThat(digest(RequestText.of("A").added("unit", Optional.of("works"))))
                .isNotEqualTo(digest(RequestText.of("A").added("place", Optional.of("works"))));
    }

    @Test
    void theUnitIsAFieldAndGivenOnce() {
        assertThatThrownBy(() -> Requests.fields(Map.of("unit", "WK"), "CR")).hasMessage("The unit is set twice.");
    }

    @Test
    void aFieldInAnAddressIsANameAndAValue() {
        assertThat(Requests.fields(List.of("group=a=b"))).isEqualTo(Map.of("group", "a=b"));
    }

    @Test
    void aFieldTwiceInAnAddressIsRefused() {
        assertThatThrownBy(() -> Requests.fields(List.of("a=1", "a=2"))).isInstanceOf(Problem.class);
    }

    @Test
    void aStarMeansWhateverVersion() {
        assertThat(Requests.expected("*", null)).isEmpty();
    }

    @Test
    void whatIsNotToExistHasVersionNought() {
        assertThat(Requests.expected(null, "*")).contains(0);
    }

    @ParameterizedTest
    @ValueSource(strings = {"3", "\"a\"", "W/\"3\"", "\"1234567890\""})
    void aTagThatIsNoneIsRefused(String match) {
        assertThatThrownBy(() -> Requests.expected(match, null)).isInstanceOf(Problem.class);
    }

    @ParameterizedTest
    @NullSource
    @ValueSource(strings = {"", "  "})
    void aNoteThatSaysNothingIsNone(String text) {
        assertThat(Requests.note("reason", text)).isEmpty();
    }
}
