package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.series.SeriesDraft;

/** Something that somebody asks the ledger to do. Every change takes this road. */
public sealed interface Act {

    /**
     * Take positions of a series.
     *
     * @param date the business date; absent for today, as the ledger's clock says when it decides
     * @param quantity how many, 1 or more
     * @param form whether each number stands alone or all together as a block
     * @param reference the caller's own name for what the numbers are for
     */
    record Allocate(String series, Optional<LocalDate> date, long quantity, Form form, Optional<String> reference, RequestMark mark) implements Act {}

    /** How numbers are taken. */
    enum Form { SINGLES, BLOCK }

    /**
     * Define series, all of them or none.
     *
     * @param files the files that they were written in; none where they come from elsewhere
     * @param expects the version that the series is to have now, 0 for a series that is not to exist yet; absent for whichever
     */
    record Define(List<SeriesDraft> drafts, List<KeptFile> files, Optional<Integer> expects) implements Act {
        public Define {
            drafts = List.copyOf(drafts);
            files = List.copyOf(files);
        }

        public Define(List<SeriesDraft> drafts, Optional<Integer> expects) {
            this(drafts, List.of(), expects);
        }
    }
}
