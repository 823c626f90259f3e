package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.youngtally.core.series.SeriesDraft;

/** Something that somebody asks the ledger to do. Every change takes this road. */
public sealed interface Act {

    /**
     * Take positions of a series.
     *
     * @param date the business date; absent for today, as the ledger's clock says when it decides
     * @param fields what the record gives for the fields of the series, as it was written; the unit is one of them
     * @param quantity how many, 1 or more
     * @param form whether each number stands alone or all together as a block
     * @param reference the caller's own name for what the numbers are for
     */
    record Allocate(String series, Optional<LocalDate> date, Map<String, String> fields, long quantity, Form form, Optional<String> reference, RequestMark mark) implements Act {
        public Allocate {
            fields = Map.copyOf(fields);
        }

        /** Of a series that takes no fields. */
        public Allocate(String series, Optional<LocalDate> date, long quantity, Form form, Optional<String> reference, RequestMark mark) {
            this(series, date, Map.of(), quantity, form, reference, mark);
        }
    }

    /** How numbers are taken. */
    enum Form { SINGLES, BLOCK }

    /**
     * Define namespaces, codebooks and series, all of them or none.
     *
     * @param files the files that they were written in; none where they come from elsewhere
     * @param expects the version that the one thing defined is to have now, 0 for one that is not to exist yet; absent for whichever
     */
    record Define(Drafts drafts, List<KeptFile> files, Optional<Integer> expects) implements Act {
        public Define {
            files = List.copyOf(files);
        }

        public Define(List<SeriesDraft> series, Optional<Integer> expects) {
            this(Drafts.of(series), List.of(), expects);
        }
    }
}
