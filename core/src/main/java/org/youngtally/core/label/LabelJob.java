package org.youngtally.core.label;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;

/**
 * Labels that are printed together, as they were asked for.
 *
 * @param layout its key
 * @param version of the layout
 * @param series whose numbers they bear
 * @param date the business date
 * @param kind of record that they are for; absent where a series was named
 * @param unit the key of the unit that they are for; absent where none was named
 * @param fields by their names, as they were written
 * @param table of the rows that the labels are for, one each: SHA-256 of the file that is kept; absent for no table
 * @param labels how many there are, without further copies
 * @param each how many of them in a row bear the same number
 * @param copies of each label
 * @param printer its address; absent where they are handed out as a file
 */
public record LabelJob(
        String layout,
        int version,
        String series,
        LocalDate date,
        Optional<String> kind,
        Optional<String> unit,
        Map<String, String> fields,
        Optional<String> table,
        long labels,
        long each,
        int copies,
        Optional<String> printer) {
    public LabelJob {
        fields = Map.copyOf(fields);
        if (labels < 1 || each < 1 || copies < 1 || labels % each != 0)
            throw new IllegalArgumentException(
                    labels + " labels, " + each + " for each number, in " + copies + " copies");
    }

    public LabelJob on(LocalDate day) {
        return new LabelJob(layout, version, series, day, kind, unit, fields, table, labels, each, copies, printer);
    }

    /** How many numbers the labels bear. */
    public long numbers() {
        return labels / each;
    }

    /** How many labels in a row bear the same number, all copies counted. */
    public long eachWithCopies() {
        return each * copies;
    }
}
