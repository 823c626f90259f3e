package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A record whose number is made of a choice that was retired since is kept as any other. */
class RetiredChoiceTest {
    private static final String DEFINITIONS = """
            units: [{ key: works, code: WK }, { key: care, code: CR }]
            codebooks:
              - key: part
                choices:
                  - { name: Wind-chest, code: WC%s }
                  - { name: Action, code: AC }
            series:
              - key: part
                pattern: "{field group}-{count 3}"
                fields: [{ name: group, codebook: part }]
                ranges: [{ first: 1, last: 999, opens: 2026-01-01 }]
            kinds:
              - key: part
                fields: [{ name: number }, { name: name }, { name: group, type: choice, codebook: part, required: true }]
            routes:
              - { kind: part, unit: works, series: part }
              - { kind: part, unit: care, series: part }
            """;

    @TempDir
    private static Path data;

    private static Service service;

    private String record;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(data);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void keepOneAndRetireItsChoice() throws Exception {
        assertThat(service.apply(DEFINITIONS.formatted("")).status()).isEqualTo(200);
        record = "/api/v1/records/"
                + service.post(
                                "/api/v1/records",
                                "{\"kind\":\"part\",\"unit\":\"works\",\"fields\":{\"name\":\"Pallet\",\"group\":\"WC\"}}")
                        .json()
                        .at("/record/record")
                        .asLong();
        assertThat(service.apply(DEFINITIONS.formatted(", retired: true")).status())
                .isEqualTo(200);
    }

    @Test
    void itIsShown() throws Exception {
        assertThat(service.get(record).json().at("/record/identifier").asString())
                .startsWith("WC-");
    }

    @Test
    void itIsEdited() throws Exception {
        assertThat(service.put(
                                record,
                                "{\"unit\":\"works\",\"fields\":{\"name\":\"Pallet of oak\",\"group\":\"WC\"}}",
                                "If-Match",
                                "\"1\"")
                        .status())
                .isEqualTo(200);
    }

    @Test
    void itIsShared() throws Exception {
        Service.Answer shared = service.post(
                record + "/units", "{\"unit\":\"care\",\"fields\":{\"name\":\"Pallet\",\"group\":\"WC\"}}");
        assertThat(shared.status() + " " + shared.response().body()).startsWith("200");
    }

    @Test
    void itIsPrinted() throws Exception {
        assertThat(service.get(record + "/page").status()).isEqualTo(200);
    }

    @Test
    void itIsDeleted() throws Exception {
        assertThat(service.post(record + "/deletions", "{\"reason\":\"gone\"}").status())
                .isEqualTo(200);
    }

    @Test
    void itIsNotOverwrittenBySomebodyWhoNamesNoVersion() throws Exception {
        assertThat(service.put(record, "{\"unit\":\"works\",\"fields\":{\"name\":\"x\",\"group\":\"WC\"}}")
                        .status())
                .isEqualTo(428);
    }
}
