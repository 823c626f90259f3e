package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is said of a command that is not as it must be. */
class UsageTest extends StubbedTest {
    @ParameterizedTest
    @ValueSource(strings = {"backup --help", "backup", "series lst --help"})
    void anUnknownCommandIsWrongAlsoWhereHelpIsAskedFor(String line) {
        assertThat(service.run(line.split(" ")).exit()).isEqualTo(2);
    }

    @Test
    void theNearestCommandIsNamed() {
        assertThat(service.run("serie", "list").err()).contains("Unknown command ‘serie’. Did you mean ‘series’?");
    }

    @Test
    void theErrorStandsLastBehindThreeLinesAtTheMost() {
        assertThat(service.run("allocate", "--quantity", "many").err().strip().lines())
                .hasSizeLessThanOrEqualTo(4)
                .last()
                .asString()
                .contains("many");
    }

    @ParameterizedTest
    @CsvSource({"15m,PT15M", "2h,PT2H", "3d,PT72H", "45s,PT45S", "PT15M,PT15M"})
    void aTimeIsWrittenShortOrAsIsoWritesIt(String given, String sent) {
        service.run("hold", "a", "--for", given);
        assertThat(service.asked().getFirst().json().get("hold").getAsString()).isEqualTo(sent);
    }

    @Test
    void aTimeThatIsNoneIsRefusedWithWhatWouldDo() {
        assertThat(service.run("hold", "a", "--for", "soon").err()).contains("‘soon’ is not a time. Write 15m, 2h");
    }

    @Test
    void whatIsNoIdentifierIsLookedForAsAReference() {
        service.answering(404, "{\"type\":\"/problems/unknown-identifier\"}")
                .answering(200, "[]")
                .run("find", "ORDER-881");
        assertThat(service.asked().getLast().path()).isEqualTo("/identifiers?reference=ORDER-881");
    }

    @Test
    void anEntryIsShownByItsNumber() {
        assertThat(service.answering(200, "[{\"seq\":7,\"act\":\"allocate\"}]")
                        .run("entry", "show", "7")
                        .out())
                .contains("act          allocate");
    }

    @Test
    void anEntryThatIsNotThereIsRefused() {
        assertThat(service.answering(200, "[{\"seq\":6,\"act\":\"allocate\"}]")
                        .run("entry", "show", "7")
                        .err())
                .contains("Entry 7 not found.");
    }
}
