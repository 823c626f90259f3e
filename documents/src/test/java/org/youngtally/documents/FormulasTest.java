package org.youngtally.documents;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.documents.table.Formulas;

class FormulasTest {
    @ParameterizedTest
    @ValueSource(strings = {"=1+1", "+A1", "@SUM(A1)", "\t=1", "\r=1", "-A1", "-1+1", "-1,5+A1", "--1"})
    void whatAProgramWouldComputeIsMarkedAndTheMarkComesOffAgain(String text) {
        assertThat(Formulas.harmless(text)).isEqualTo("'" + text);
        assertThat(Formulas.unmarked("'" + text)).isEqualTo(text);
        assertThat(Formulas.unmarked(text)).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "-", "-1", "-12.5", "-0,5", "A=1", "'quoted'", "''", "LW26-00001"})
    void everythingElseStaysAsItIs(String text) {
        assertThat(Formulas.harmless(text)).isEqualTo(text);
        assertThat(Formulas.unmarked(text)).isEqualTo(text);
    }
}
