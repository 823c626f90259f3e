package org.youngtally.core.label;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;

/**
 * What the texts of one label rest on.
 *
 * @param identifier of the label; of a preview the one that is expected
 * @param unit the key of the unit; absent where the job has none
 * @param fields by their names: those of the job, or of its row of a table
 * @param job by what the job is known; empty in a preview
 * @param number of the label among those of the job, from 1
 * @param quantity how many labels the job has, without further copies
 * @param copy of the label, from 1
 * @param copies how many there are of each label
 * @param reprint whether it was printed before
 */
public record LabelContent(
        String identifier,
        LocalDate date,
        Optional<String> unit,
        Map<String, String> fields,
        String job,
        long number,
        long quantity,
        int copy,
        int copies,
        boolean reprint) {
    public LabelContent {
        fields = Map.copyOf(fields);
    }
}
