package org.youngtally.core.act;

import java.util.Optional;
import org.youngtally.core.label.LabelJob;

/** What numbers are taken for: a record of a kind, in a unit, as far as the one who asks says so. */
public record Purpose(Optional<String> kind, Optional<String> unit) {
    public static final Purpose NONE = new Purpose(Optional.empty(), Optional.empty());

    /** What the numbers of a job of labels are for. */
    public static Purpose of(LabelJob job) {
        return new Purpose(job.kind(), job.unit());
    }
}
