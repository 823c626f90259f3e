package org.youngtally.service.api;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.youngtally.core.inspection.ColumnChoice;
import org.youngtally.core.inspection.Inspection;
import org.youngtally.core.inspection.Inspection.Duplicate;
import org.youngtally.core.inspection.Inspection.LaneUse;
import org.youngtally.core.inspection.Inspection.TextFault;
import org.youngtally.core.inspection.Numbers.Candidate;
import org.youngtally.core.reading.Deviation;
import org.youngtally.service.table.TableInspection;

/**
 * What a table holds.
 *
 * @param file its name
 * @param notes what to know of how it was read, in whole sentences
 * @param columns its columns, those that likely hold the identifiers first, by the first 10,000 rows
 * @param inspections of the columns that were named, or of the likeliest one
 */
record InspectionView(
        String file, List<String> notes, List<TableColumnView> columns, List<ColumnFindings> inspections) {

    /**
     * What the first rows say of a column.
     *
     * @param name of the column
     * @param filled the share of rows with a text, 0 to 1
     * @param different the share of its texts that differ from those before them
     * @param alike the share of its texts that have its most frequent shape
     * @param shape the most frequent shape: 9 for a digit, A for a capital, a for a small letter
     * @param read the share of its texts that can be read as numbers
     * @param likely how likely it holds the identifiers, 0 to 1
     */
    record TableColumnView(
            String name, double filled, double different, double alike, String shape, double read, double likely) {}

    /**
     * What is in a column.
     *
     * @param column its name
     * @param rows with a text in any column
     * @param blanks rows without a number
     * @param read texts that are numbers, those with another spelling among them
     * @param unread texts that are no numbers
     * @param duplicates numbers that occur more than once
     * @param duplicateRows how many rows have one of those
     * @param listedDuplicates the first of them
     * @param faults the first 1,000 texts that are no number as written
     * @param faultsByKind how many texts have each kind of fault
     * @param lanes how far the lanes are used, those with most numbers first
     * @param moreLanes how many lanes are not listed
     * @param byYear numbers by the year that they name
     * @param byLetters texts by the letters that they begin with
     * @param byField numbers by what they say for each field of the series
     */
    record ColumnFindings(
            String column,
            long rows,
            long blanks,
            long read,
            long unread,
            long duplicates,
            long duplicateRows,
            List<TableDuplicateView> listedDuplicates,
            List<TextFaultView> faults,
            Map<String, Long> faultsByKind,
            List<TableLaneView> lanes,
            int moreLanes,
            Map<String, Long> byYear,
            Map<String, Long> byLetters,
            Map<String, Map<String, Long>> byField) {}

    /**
     * A number that occurs more than once.
     *
     * @param text as in the first row
     * @param rows how many rows have it
     * @param lines of the file, the first 20
     * @param differing the other columns in which those rows differ
     */
    record TableDuplicateView(String text, long rows, List<Long> lines, List<String> differing) {}

    /**
     * A text that is no number as written.
     *
     * @param line of the file, from 1
     * @param text as written, shortened
     * @param kind spelling (it is a number, spelled in another way), near (near to a number), exponent, date, formula,
     *     or unreadable
     * @param meant the numbers that may be meant, the nearest first
     */
    record TextFaultView(long line, String text, String kind, List<MeantNumberView> meant) {}

    /**
     * A number that may be meant.
     *
     * @param identifier as it should be written
     * @param deviations in what the text differs: blank, case, dash, look-alike, lost-zero, extra-zero, separator,
     *     check
     */
    record MeantNumberView(String identifier, List<String> deviations) {}

    /**
     * How far a lane is used.
     *
     * @param series empty if no series was named
     * @param range the id of the range; 0 where no range holds these numbers
     * @param lane its name; without a series, the shape of the numbers
     * @param numbers rows with a number of the lane
     * @param different how many of them differ
     * @param lowest the number with the lowest value
     * @param highest the number with the highest value
     * @param lastAsText the number that comes last when they are sorted as text
     * @param missing how many numbers are not there between the two
     * @param gaps the first 100 gaps
     * @param moreGaps how many gaps are not listed
     * @param stretch how many numbers, missing ones included, are in a stretch of the density
     * @param density how many numbers are in each of up to 60 stretches from the lowest to the highest
     */
    record TableLaneView(
            String series,
            int range,
            String lane,
            long numbers,
            long different,
            LaneEndView lowest,
            LaneEndView highest,
            String lastAsText,
            long missing,
            List<MissingNumbersView> gaps,
            long moreGaps,
            long stretch,
            List<Long> density) {}

    /**
     * The lowest or highest number of a lane.
     *
     * @param text as it should be written
     * @param value of its count
     * @param line of the file in which it is first
     */
    record LaneEndView(String text, long value, long line) {}

    /**
     * Numbers in a row that are missing.
     *
     * @param from the first of them
     * @param to the last of them
     * @param low the lowest value
     * @param high the highest value
     * @param numbers how many they are
     */
    record MissingNumbersView(String from, String to, long low, long high, long numbers) {}

    static InspectionView of(String file, List<String> notes, TableInspection inspection) {
        return new InspectionView(
                file,
                Stream.concat(notes.stream(), inspection.notes().stream()).toList(),
                inspection.columns().stream().map(InspectionView::of).toList(),
                inspection.inspections().stream().map(InspectionView::of).toList());
    }

    private static TableColumnView of(ColumnChoice.Profile profile) {
        return new TableColumnView(
                profile.name(),
                rounded(profile.filled()),
                rounded(profile.different()),
                rounded(profile.alike()),
                profile.shape(),
                rounded(profile.read()),
                rounded(profile.likely()));
    }

    private static double rounded(double share) {
        return Math.round(share * 1000) / 1000.0;
    }

    private static ColumnFindings of(Inspection found) {
        var byKind = new LinkedHashMap<String, Long>();
        found.byKind().forEach((kind, texts) -> byKind.put(word(kind), texts));
        return new ColumnFindings(
                found.column(),
                found.rows(),
                found.blanks(),
                found.read(),
                found.unread(),
                found.duplicates().numbers(),
                found.duplicates().rows(),
                found.duplicates().listed().stream().map(InspectionView::of).toList(),
                found.faults().stream().map(InspectionView::of).toList(),
                byKind,
                found.lanes().stream().map(InspectionView::of).toList(),
                found.moreLanes(),
                found.byYear(),
                found.byLetters(),
                found.byField());
    }

    private static String word(Inspection.FaultKind kind) {
        return kind.name().toLowerCase(Locale.ROOT);
    }

    private static TableDuplicateView of(Duplicate duplicate) {
        return new TableDuplicateView(
                duplicate.text(), duplicate.rows(), duplicate.lines(), List.copyOf(duplicate.differing()));
    }

    private static TextFaultView of(TextFault fault) {
        return new TextFaultView(
                fault.line(),
                fault.text(),
                word(fault.kind()),
                fault.meant().stream().map(InspectionView::of).toList());
    }

    private static MeantNumberView of(Candidate meant) {
        return new MeantNumberView(
                meant.identifier(),
                meant.deviations().stream().sorted().map(Deviation::word).toList());
    }

    private static TableLaneView of(LaneUse lane) {
        return new TableLaneView(
                lane.series(),
                lane.range(),
                lane.lane(),
                lane.numbers(),
                lane.different(),
                of(lane.lowest()),
                of(lane.highest()),
                lane.lastAsText(),
                lane.missing(),
                lane.gaps().stream()
                        .map(gap -> new MissingNumbersView(gap.from(), gap.to(), gap.low(), gap.high(), gap.numbers()))
                        .toList(),
                lane.moreGaps(),
                lane.stretch(),
                lane.density());
    }

    private static LaneEndView of(Inspection.End end) {
        return new LaneEndView(end.text(), end.value(), end.line());
    }
}
