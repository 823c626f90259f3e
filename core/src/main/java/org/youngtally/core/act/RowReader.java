package org.youngtally.core.act;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.youngtally.core.act.LedgerState.Inside;
import org.youngtally.core.act.LedgerState.Taken;
import org.youngtally.core.label.JobLabels;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.scatter.Scatter;
import org.youngtally.core.series.Series;
import org.youngtally.core.text.Comparison;

/**
 * Where a {@link StateInMemory} finds what it does not hold: the ledger as it stood when the state forgot last, or
 * another state that it goes ahead of.
 */
public interface RowReader {
    /** The stretches that reach between two positions of a lane, whole or cut to them, in order. */
    List<Stretch> stretches(int lane, long from, long to);

    /**
     * Where an identifier of a series stands, in the form in which texts are compared; absent where it never gave it.
     */
    Optional<Span> spot(Series series, String text);

    /**
     * What stands against comparing the identifiers of a namespace by another rule; empty where all that were ever
     * given stay apart. It looks at numbers as they are in the tables.
     *
     * @param members its series as they are now
     */
    Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule);

    /**
     * Two identifiers that a rule of comparison would make one.
     *
     * @param other the other; absent where {@code one} stands for numbers of a block, which are not kept one by one
     */
    record MergedIdentifiers(String one, Optional<String> other) {}

    /** The entry that holds a reference of a series. */
    Optional<Long> holder(String series, String reference);

    /** What an entry took. */
    Optional<Taken> taking(long seq);

    /** A block, by the entry that made it. */
    Optional<Taken> block(long seq);

    /** The text that is kept of a file of definitions. */
    Optional<String> keptFile(String name);

    /** A record, in its newest version. */
    Optional<KeptRecord> record(long id);

    /** The record of a kind that is known by a value of a field, in the form in which they are compared. */
    Optional<Long> knownRecord(String kind, String field, String value);

    /** The record that an identifier of a series was given to last, if it was to one. */
    Optional<Long> numberedRecord(Series series, String text);

    /** The labels of a job, by the entry that began it. */
    Optional<JobLabels> labels(long job);

    /** The job of labels whose numbers an entry allocated. */
    Optional<Long> labelJob(long seq);

    /** The last entry that numbered items of a document; 0 for none. */
    long documentNumbered(String series, String document);

    /** The secret by which the positions of a series are spread; the same one for ever. */
    Scatter scatter(String series);

    /** What each lane of these series holds that is dated inside a period. */
    List<Inside> inside(Collection<Series> series, LocalDate from, LocalDate to);
}
