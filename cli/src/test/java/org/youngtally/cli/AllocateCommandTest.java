package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.cli.StubService.Result;

class AllocateCommandTest extends StubbedTest {
    private static final String TAKEN =
            "{\"seq\":7,\"quantity\":2,\"identifiers\":[\"A1\",\"A2\"],\"first\":\"A1\",\"last\":\"A2\",\"repeated\":false}";

    @Test
    void numbersArePrintedOneALine() {
        Result taken = service.answering(201, TAKEN).run("allocate", "a", "--quantity", "2");
        assertThat(taken).isEqualTo(new Result(0, "A1\nA2\n", ""));
    }

    @Test
    void whatIsSaidIsSent() {
        service.answering(201, TAKEN)
                .run("allocate", "a", "--date", "2026-03-02", "--reference", "order 1", "--field", "group=WC");
        assertThat(service.asked().getFirst().path()).isEqualTo("/series/a/allocations");
        assertThat(service.asked().getFirst().json())
                .hasToString(
                        "{\"quantity\":1,\"date\":\"2026-03-02\",\"fields\":{\"group\":\"WC\"},\"reference\":\"order 1\"}");
    }

    @Test
    void aSeriesIsNamedSafelyInTheAddress() {
        service.answering(201, TAKEN).run("allocate", "a~b*c ä");
        assertThat(service.asked().getFirst().path()).isEqualTo("/series/a~b%2Ac%20%C3%A4/allocations");
    }

    @ParameterizedTest
    @ValueSource(strings = {"a/b", "a\\b", ".", "..", ""})
    void aNameThatHasNoPlaceInAnAddressIsNotSent(String series) {
        service.answering(201, TAKEN).run("allocate", series);
        assertThat(service.asked()).isEmpty();
    }

    @Test
    void theAnswerComesAsItIsWhereJsonIsAsked() {
        assertThat(service.answering(201, TAKEN).run("allocate", "a", "--json").out())
                .isEqualTo(TAKEN + "\n");
    }

    @Test
    void aRefusalSaysWhatWouldDo() {
        Result refused = service.answering(
                        422, "{\"detail\":\"None is left.\",\"field\":\"quantity\",\"accepted\":\"another series\"}")
                .run("allocate", "a");
        assertThat(refused).isEqualTo(new Result(1, "", "None is left.\n  quantity: another series\n"));
    }

    @Test
    void whatMayHaveBeenDoneIsRepeatedWithTheSameKey() {
        Result taken = service.answering(
                        503, "{\"type\":\"/problems/outcome-unknown\",\"detail\":\"It is not known.\"}")
                .answering(200, TAKEN.replace("false", "true"))
                .run("allocate", "a");
        assertThat(taken.exit()).isZero();
        assertThat(taken.err()).isEqualTo("The same request allocated them before, in entry 7.\n");
        assertThat(service.asked()).extracting(StubService.Asked::key).doesNotContainNull();
        assertThat(service.asked().get(0)).isEqualTo(service.asked().get(1));
    }

    @Test
    void aServiceThatHasStoppedIsNotAskedAgain() {
        service.answering(503, "{\"type\":\"/problems/stopped\",\"detail\":\"The journal is broken.\"}")
                .run("allocate", "a");
        assertThat(service.asked()).hasSize(1);
    }

    @Test
    void numbersThatWereGivenBackSinceAreNotPrinted() {
        Result repeated = service.answering(
                        200,
                        "{\"seq\":7,\"quantity\":2,\"identifiers\":[],\"withdrawn\":1,\"first\":\"A1\",\"last\":\"A2\",\"repeated\":true}")
                .run("allocate", "a", "--key", "k");
        assertThat(repeated.out()).isEmpty();
        assertThat(repeated.err()).contains("1 of 2 were returned or voided since");
    }

    @Test
    void aServiceThatIsNotReachedIsSaidToBeSo() {
        service.close();
        Result away = StubService.at(service.address(), "allocate", "a");
        assertThat(away.exit()).isEqualTo(3);
        assertThat(away.err()).contains("cannot be reached", "youngtally serve");
    }

    @Test
    void whatAnswersInOtherWordsIsNotTheService() {
        Result other = service.answering(200, "<html>").run("allocate", "a");
        assertThat(other.exit()).isEqualTo(3);
        assertThat(other.err()).contains("is not Young Tally");
    }

    @Test
    void aQuantityThatIsNoNumberIsWrongUsage() {
        assertThat(service.run("allocate", "a", "--quantity", "many").exit()).isEqualTo(2);
        assertThat(service.asked()).isEmpty();
    }
}
