package org.youngtally.service.table;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.act.TablePlan.Gaps;
import org.youngtally.core.repair.Choices;

/**
 * How a table is read and repaired, as somebody asked for it.
 *
 * @param name of the file
 * @param encoding of a text file; absent to find out
 * @param column of the numbers; absent for the likeliest
 * @param dateColumn of the dates of the rows; absent where they have none
 * @param fieldColumns of the fields of the series, by the field's name; those that are not here bear its name
 * @param chosen lines that keep their number
 * @param date of numbers for rows without a date of their own
 */
public record RepairOptions(
        String name,
        Optional<String> encoding,
        Optional<String> column,
        Optional<String> dateColumn,
        Map<String, String> fieldColumns,
        Gaps gaps,
        Choices.Keep keep,
        List<Long> chosen,
        LocalDate date) {
    public RepairOptions {
        fieldColumns = Map.copyOf(fieldColumns);
        chosen = List.copyOf(chosen);
    }
}
