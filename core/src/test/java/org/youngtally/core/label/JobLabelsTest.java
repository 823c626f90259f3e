package org.youngtally.core.label;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Labels in runs are the labels one by one. */
class JobLabelsTest {
    private static final int LABELS = 60;

    private static LabelState any(Random random) {
        return LabelState.values()[random.nextInt(LabelState.values().length)];
    }

    /** Stretches that do not overlap, in order, with gaps or without. */
    private static List<LabelStretch> changes(Random random) {
        var changes = new ArrayList<LabelStretch>();
        for (int from = random.nextInt(10); from < LABELS; ) {
            int to = Math.min(LABELS - 1, from + random.nextInt(8));
            changes.add(new LabelStretch(from, to, any(random)));
            from = to + 1 + (random.nextBoolean() ? 0 : random.nextInt(12));
        }
        return changes;
    }

    @Test
    void changedTogetherIsChangedOneByOne() {
        var random = new Random(20_261_129);
        List<LabelStretch> stretches = List.of(new LabelStretch(0, LABELS - 1, LabelState.WAITING));
        var single = new LabelState[LABELS];
        Arrays.fill(single, LabelState.WAITING);
        for (int round = 0; round < 2_000; round++) {
            List<LabelStretch> changes = changes(random);
            stretches = JobLabels.with(stretches, changes);
            changes.forEach(each -> Arrays.fill(single, (int) each.from(), (int) each.to() + 1, each.state()));
            assertThat(stretches.stream().flatMap(each -> IntStream.rangeClosed((int) each.from(), (int) each.to())
                            .mapToObj(place -> each.state())))
                    .containsExactly(single);
        }
    }

    @Test
    void whatIsBesideEachOtherIsInDifferentStates() {
        var random = new Random(1);
        List<LabelStretch> stretches = List.of(new LabelStretch(0, LABELS - 1, LabelState.WAITING));
        for (int round = 0; round < 2_000; round++) {
            stretches = JobLabels.with(stretches, changes(random));
            for (int i = 1; i < stretches.size(); i++) {
                assertThat(stretches.get(i).from())
                        .isEqualTo(stretches.get(i - 1).to() + 1);
                assertThat(stretches.get(i).state())
                        .isNotEqualTo(stretches.get(i - 1).state());
            }
        }
    }

    @Test
    void whatIsAddedLiesBehind() {
        assertThat(JobLabels.with(
                        List.of(new LabelStretch(0, 4, LabelState.PRINTED)),
                        List.of(new LabelStretch(5, 9, LabelState.WAITING))))
                .containsExactly(
                        new LabelStretch(0, 4, LabelState.PRINTED), new LabelStretch(5, 9, LabelState.WAITING));
    }
}
