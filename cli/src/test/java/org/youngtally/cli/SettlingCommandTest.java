package org.youngtally.cli;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class SettlingCommandTest extends StubbedTest {
    private static final String SETTLED =
            "{\"seq\":8,\"at\":\"2026-03-02T10:00:00Z\",\"by\":\"ines\",\"act\":\"void\",\"series\":\"a\",\"quantity\":1,\"first\":\"A1\",\"last\":\"A1\",\"repeated\":false}";

    @Test
    void numbersAreVoidedWithTheirReason() {
        service.answering(200, SETTLED).run("void", "a", "A1", "--reason", "spoiled");
        assertThat(service.asked().getFirst().path()).isEqualTo("/series/a/voids");
        assertThat(service.asked().getFirst().json()).hasToString("{\"identifiers\":[\"A1\"],\"reason\":\"spoiled\"}");
    }

    @Test
    void aRowIsNamedByItsEnds() {
        service.answering(200, SETTLED).run("confirm", "a", "A1", "--through", "A9");
        assertThat(service.asked().getFirst().json()).hasToString("{\"first\":\"A1\",\"last\":\"A9\"}");
    }

    @Test
    void nothingIsSentWhereNoNumberIsNamed() {
        assertThat(service.run("release", "a").exit()).isEqualTo(2);
        assertThat(service.asked()).isEmpty();
    }
}
