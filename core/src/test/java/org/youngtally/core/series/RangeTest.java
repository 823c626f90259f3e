package org.youngtally.core.series;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.youngtally.core.fault.DefinitionException;

class RangeTest {
    private static final DateWindow ALWAYS = new DateWindow(LocalDate.of(2026, 1, 1), null);

    @ParameterizedTest
    @CsvSource({"1, 99999, 1, 99999", "100, 490, 10, 40", "24, 1, -1, 24", "100, 0, -5, 21", "7, 7, 1, 1", "7, 7, -3, 1"
    })
    void everyPositionHasItsValueAndEveryValueItsPosition(long first, long last, long step, long size) {
        var range = new Range(1, first, last, step, ALWAYS, 0, 0);
        assertThat(range.size()).isEqualTo(size);
        for (long position = 0; position < size; position++) {
            assertThat(range.valueAt(position)).isEqualTo(first + position * step);
            assertThat(range.positionOf(range.valueAt(position))).isEqualTo(position);
        }
        assertThatThrownBy(() -> range.valueAt(size)).isInstanceOf(IndexOutOfBoundsException.class);
        assertThat(range.positionOf(first - step)).isEqualTo(-1);
        assertThat(range.positionOf(last + step)).isEqualTo(-1);
    }

    @Test
    void aValueBetweenTwoStepsHasNoPosition() {
        assertThat(new Range(1, 100, 490, 10, ALWAYS, 0, 0).positionOf(105)).isEqualTo(-1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1; 10; 0; step; cannot be zero",
                "10; 1; 1; last; lies before first",
                "1; 10; -1; last; lies before first",
                "1; 10; 2; last; not reached",
                "-1; 10; 1; first; negative",
                "5; -5; -1; last; negative"
            })
    void aRangeThatMakesNoSenseIsRefused(long first, long last, long step, String property, String problem) {
        assertThatThrownBy(() -> new Range(1, first, last, step, ALWAYS, 0, 0))
                .isInstanceOfSatisfying(DefinitionException.class, fault -> {
                    assertThat(fault.property()).isEqualTo(property);
                    assertThat(fault.problem()).contains(problem);
                });
    }

    @Test
    void aLastThatTheStepMissesIsToldTheTwoThatItMeets() {
        assertThatThrownBy(() -> new Range(1, 1, 10, 4, ALWAYS, 0, 0)).hasMessageContaining("enter 9 or 13");
    }
}
