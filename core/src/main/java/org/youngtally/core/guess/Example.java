package org.youngtally.core.guess;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/**
 * A row of a table whose numbers a definition is guessed from.
 *
 * @param line of the file, from 1
 * @param text the number
 * @param cells all cells of the row
 * @param date in the column of dates; absent where there is none
 */
record Example(long line, String text, List<String> cells, Optional<LocalDate> date) {
    String cell(int column) {
        return column < cells.size() ? cells.get(column) : "";
    }
}
