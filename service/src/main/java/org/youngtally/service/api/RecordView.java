package org.youngtally.service.api;

import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.youngtally.core.record.KeptRecord;

/**
 * A record.
 *
 * @param record its number here, for ever
 * @param identifier what it is numbered by
 * @param into the field that holds the identifier
 * @param units where it stands and what it holds there, the unit that it was made in first
 * @param lastLine the highest number that a line ever had; 0 where there was none
 * @param fixed whether its lines keep their numbers
 * @param deleted whether it was returned or voided
 */
record RecordView(
        long record,
        String kind,
        String identifier,
        String series,
        String into,
        List<StandingView> units,
        List<LineView> lines,
        int lastLine,
        boolean fixed,
        boolean deleted,
        List<FileView> files,
        int version) {

    /** @param fields by name */
    record StandingView(String unit, Map<String, String> fields) {}

    record LineView(int number, Map<String, String> fields) {}

    /**
     * @param place from 1
     * @param size in bytes
     */
    record FileView(int place, String name, long size) {}

    static RecordView of(KeptRecord record) {
        return new RecordView(
                record.id(),
                record.kind(),
                record.number().text(),
                record.number().series(),
                record.number().into(),
                record.standings().stream()
                        .map(standing -> new StandingView(standing.unit(), standing.values()))
                        .toList(),
                record.lines().stream()
                        .map(line -> new LineView(line.number(), line.values()))
                        .toList(),
                record.lastLine(),
                record.fixed(),
                record.deleted(),
                IntStream.range(0, record.files().size())
                        .mapToObj(i -> new FileView(
                                i + 1, record.fileName(i), record.files().get(i).size()))
                        .toList(),
                record.version());
    }
}
