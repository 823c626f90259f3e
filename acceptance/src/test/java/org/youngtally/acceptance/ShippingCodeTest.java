package org.youngtally.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.acceptance.CommandLine.Result;

/** A company prefix is kept at its unit, and writes the series of its shipping codes. */
class ShippingCodeTest {
    @TempDir
    private static Path folder;

    private static Service service;

    @BeforeAll
    static void start() throws Exception {
        service = Service.serve(folder.resolve("data"));
        assertThat(service.apply("""
                units:
                  - { key: group, company-prefix: "9521234", prefix-users: [foundry] }
                  - { key: foundry, below: group }
                  - { key: short, company-prefix: "9522" }
                  - { key: long, company-prefix: "952312345678" }
                """).status()).isEqualTo(200);
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    private static Result run(String... arguments) throws Exception {
        return CommandLine.run(folder, service, arguments);
    }

    private static String refusal(String yaml) throws Exception {
        return service.apply(yaml).response().body();
    }

    /** The check digits were worked out by hand with weights 3 and 1 from the right. */
    @ParameterizedTest
    @CsvSource({"group, 395212340000000014", "short, 395220000000000016", "long, 395231234567800017"})
    void theFirstCodeHas18DigitsAndARightCheckDigit(String unit, String code) throws Exception {
        String key = unit + "-crates";
        Result written = run("series", "shipping-codes", unit, "--series", key, "--extension", "3");
        assertThat(service.apply(written.out()).status()).as(written.out()).isEqualTo(200);
        assertThat(run("allocate", key).out().strip()).isEqualTo(code);
    }

    @Test
    void aPrefixThatWasUsedBeforeBeginsWhereAPersonSays() throws Exception {
        String text = run("series", "shipping-codes", "group", "--series", "later", "--first", "4000")
                .out();
        assertThat(service.apply(text).status()).isEqualTo(200);
        assertThat(run("allocate", "later").out()).startsWith("09521234000004000");
    }

    @Test
    void theSeriesIsProvedAsAnyOther() throws Exception {
        assertThat(service.apply(run("series", "shipping-codes", "group", "--series", "one", "--extension", "5")
                                .out())
                        .status())
                .isEqualTo(200);
        Result again = run("series", "shipping-codes", "group", "--series", "two", "--extension", "5");
        assertThat(refusal(again.out())).contains("definitions-faulty", "one");
    }

    @Test
    void aFirstSerialThatDoesNotFitIsRefused() throws Exception {
        Result refused = run("series", "shipping-codes", "long", "--first", "10000");
        assertThat(refused.exit()).isEqualTo(1);
        assertThat(refused.err()).contains("The first serial cannot be 10000.", "0 to 9999");
    }

    @Test
    void aUnitWithoutAPrefixHasNoCodes() throws Exception {
        assertThat(run("series", "shipping-codes", "foundry").err())
                .contains("The unit ‘foundry’ has no company prefix.");
    }

    @Test
    void twoPrefixesOfWhichOneBeginsAsTheOtherClash() throws Exception {
        assertThat(refusal("units: [{ key: other, company-prefix: \"95212345\" }]"))
                .contains("‘95212345’ clashes with 9521234, that of the unit ‘group’");
    }

    @Test
    void whoNumbersWithAPrefixIsAUnit() throws Exception {
        assertThat(refusal("units: [{ key: more, company-prefix: \"9529\", prefix-users: [fundry] }]"))
                .contains("unit ‘fundry’ not found", "did you mean foundry?");
    }

    @Test
    void aPrefixThatIsNoneIsRefused() throws Exception {
        assertThat(refusal("units: [{ key: more, company-prefix: \"95x\" }]"))
                .contains("‘95x’ is not a company prefix", "write 4 to 12 digits");
    }

    @Test
    void theUnitIsExportedWithItsPrefix() throws Exception {
        assertThat(service.get("/api/v1/definitions").response().body())
                .contains("company-prefix: \\\"9521234\\\"", "prefix-users: [foundry]");
    }
}
