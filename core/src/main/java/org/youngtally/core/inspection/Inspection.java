package org.youngtally.core.inspection;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.youngtally.core.inspection.Numbers.Candidate;

/**
 * What is in a column of a table.
 *
 * @param rows in which anything stands
 * @param blanks rows without a number
 * @param read texts that are numbers, those that are written in another way among them
 * @param unread texts that are none
 * @param duplicates of them all, not only of those that are listed
 * @param faults by line, the first of them
 * @param byKind how many texts have each kind of fault
 * @param lanes those with most numbers first
 * @param moreLanes how many are not listed
 * @param byYear how many numbers name each year
 * @param byLetters how many begin with each text of letters
 * @param byField how many have each value of each field
 */
public record Inspection(
        String column,
        long rows,
        long blanks,
        long read,
        long unread,
        Duplicates duplicates,
        List<TextFault> faults,
        Map<FaultKind, Long> byKind,
        List<LaneUse> lanes,
        int moreLanes,
        Map<String, Long> byYear,
        Map<String, Long> byLetters,
        Map<String, Map<String, Long>> byField) {

    /** What is wrong with a text. */
    public enum FaultKind {
        /** It is a number, and written in another way than the series writes it. */
        SPELLING,
        /** It is no number as it stands, and near to one. */
        NEAR,
        /** It is near to no number. */
        UNREADABLE,
        /** A spreadsheet made a figure with an exponent of it. */
        EXPONENT,
        /** A spreadsheet made a date of it. */
        DATE,
        /** It is a formula. */
        FORMULA
    }

    /**
     * A text that is not a number as it stands.
     *
     * @param line of the file, from 1
     * @param text shortened
     * @param meant the numbers that may have been meant
     */
    public record TextFault(long line, String text, FaultKind kind, List<Candidate> meant) {}

    /**
     * Numbers that are there more than once.
     *
     * @param numbers how many different ones
     * @param rows how many rows have one of them
     * @param listed the first of them
     */
    public record Duplicates(long numbers, long rows, List<Duplicate> listed) {}

    /**
     * A number that is there more than once.
     *
     * @param lines of the first rows that have it
     * @param differing the other columns in which those rows differ
     */
    public record Duplicate(String text, long rows, List<Long> lines, Set<String> differing) {}

    /**
     * How a lane is used.
     *
     * @param series empty without one
     * @param range 0 where none holds the numbers
     * @param lane the name
     * @param numbers how many rows have one of it
     * @param different how many different ones
     * @param lastAsText the number that a sorting as text puts last
     * @param missing how many are not there between the lowest and the highest
     * @param gaps the first of them
     * @param moreGaps how many are not listed
     * @param stretch how many numbers, missing ones among them, lie in each stretch of the density
     * @param density how many different numbers are in each stretch from the lowest to the highest, of 60 at the most
     */
    public record LaneUse(
            String series,
            int range,
            String lane,
            long numbers,
            long different,
            End lowest,
            End highest,
            String lastAsText,
            long missing,
            List<Gap> gaps,
            long moreGaps,
            long stretch,
            List<Long> density) {}

    /** The lowest or highest number of a lane by its value, and the first line that it is in. */
    public record End(String text, long value, long line) {}

    /**
     * Numbers in a row that are not there, both ends included.
     *
     * @param low the lowest value
     * @param high the highest value
     */
    public record Gap(String from, String to, long low, long high, long numbers) {}
}
