package org.youngtally.core.organisation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;

class FieldValuesTest {
    private static final Kind KIND = KindCheck.of(
                    new KindDraft(
                            "invoice",
                            null,
                            List.of(new KindFieldDraft("number", null, null, null, null, null)),
                            List.of(new KindFieldDraft("price", null, "number", null, null, null))),
                    Map.of())
            .kind()
            .orElseThrow();

    @ParameterizedTest
    @CsvSource({"42.50, 42.50", "042.5, 42.5", "180, 180", "-0.00, 0.00"})
    void amountsInLinesKeepTheirDecimals(String typed, String kept) {
        assertThat(FieldValues.ofLines(KIND, key -> Optional.empty())
                        .alone(KIND.lines().getFirst(), typed))
                .contains(kept);
    }
}
