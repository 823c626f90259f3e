package org.youngtally.service.numbering;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.series.FieldRule;
import org.youngtally.core.series.Series;

/** The series that number the items of a document. */
public interface ItemSeries {
    /** All that may number one. */
    List<Series> all();

    /** @throws Unplaced where no series numbers the item */
    Placed of(Item item) throws Unplaced;

    /**
     * An item and the series that numbers it.
     *
     * @param fields what the item has for the fields of the series
     */
    record Placed(Series series, Map<String, String> fields) {}

    /** That no series numbers an item. */
    final class Unplaced extends Exception {
        private static final long serialVersionUID = 1L;

        private final String accepted;

        /** @param problem what the item does, without a subject, such as "has no route" */
        public Unplaced(String problem, String accepted) {
            super(problem);
            this.accepted = accepted;
        }

        String accepted() {
            return accepted;
        }
    }

    /** One series for all. */
    static ItemSeries one(Series series) {
        return new ItemSeries() {
            @Override
            public List<Series> all() {
                return List.of(series);
            }

            @Override
            public Placed of(Item item) {
                Map<String, String> named = item.named();
                var fields = new HashMap<String, String>();
                for (FieldRule field : series.fields())
                    Optional.ofNullable(named.get(field.name()))
                            .filter(value -> !value.isBlank())
                            .ifPresent(value -> fields.put(field.name(), value.strip()));
                return new Placed(series, fields);
            }
        };
    }
}
