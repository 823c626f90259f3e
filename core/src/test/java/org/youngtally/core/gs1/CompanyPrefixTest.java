package org.youngtally.core.gs1;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.fault.DefinitionException;

class CompanyPrefixTest {
    /** Whatever its length, a code has 18 digits: one before the prefix, and one behind the serial. */
    @ParameterizedTest
    @CsvSource({"9521, 12, 999999999999", "9521234, 9, 999999999", "952123456, 7, 9999999", "952123456789, 4, 9999"})
    void theSerialIsAsWideAsIsLeft(String digits, int width, long last) {
        var prefix = new CompanyPrefix(digits);
        assertThat(prefix.containerPattern(3)).isEqualTo("3" + digits + "{count " + width + "}{check gs1}");
        assertThat(prefix.containerLast()).isEqualTo(last);
    }

    @ParameterizedTest
    @ValueSource(strings = {"952", "9521234567890", "95212x4", "", " 9521234"})
    void whatIsNoPrefixIsRefused(String digits) {
        assertThatThrownBy(() -> new CompanyPrefix(digits))
                .isInstanceOf(DefinitionException.class)
                .hasMessageContaining("4 to 12 digits");
    }

    @Test
    void anExtensionIsOneDigit() {
        assertThatThrownBy(() -> new CompanyPrefix("9521234").containerPattern(10))
                .isInstanceOf(DefinitionException.class);
    }
}
