package org.youngtally.core.act;

import java.nio.charset.StandardCharsets;
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

/** The rows of a state that never forgets. */
class NoRows implements RowReader {
    @Override
    public List<Stretch> stretches(int lane, long from, long to) {
        return List.of();
    }

    @Override
    public Optional<Span> spot(Series series, String text) {
        return Optional.empty();
    }

    @Override
    public Optional<Long> holder(String series, String reference) {
        return Optional.empty();
    }

    @Override
    public Optional<Taken> taking(long seq) {
        return Optional.empty();
    }

    @Override
    public Optional<Taken> block(long seq) {
        return Optional.empty();
    }

    @Override
    public Optional<String> keptFile(String name) {
        return Optional.empty();
    }

    @Override
    public Optional<KeptRecord> record(long id) {
        return Optional.empty();
    }

    @Override
    public Optional<Long> knownRecord(String kind, String field, String value) {
        return Optional.empty();
    }

    @Override
    public Optional<Long> numberedRecord(Series series, String text) {
        return Optional.empty();
    }

    @Override
    public Optional<MergedIdentifiers> against(Collection<Series> members, Comparison rule) {
        return Optional.empty();
    }

    @Override
    public Optional<JobLabels> labels(long job) {
        return Optional.empty();
    }

    @Override
    public long documentNumbered(String series, String document) {
        return 0;
    }

    @Override
    public Optional<Long> labelJob(long seq) {
        return Optional.empty();
    }

    @Override
    public Scatter scatter(String series) {
        return new Scatter((series + "0123456789abcdef").substring(0, 16).getBytes(StandardCharsets.US_ASCII));
    }

    @Override
    public List<Inside> inside(Collection<Series> series, LocalDate from, LocalDate to) {
        return List.of();
    }
}
