package org.youngtally.core.record;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.UnaryOperator;

/**
 * A record that is kept here. A value; each change makes a new version.
 *
 * @param id 1, 2, 3 … through all kinds, for ever
 * @param number what it is numbered by
 * @param standings the units in which it stands, the one it was made in first
 * @param lines in order
 * @param lastLine the highest number that a line ever had
 * @param fixed whether its lines keep their numbers from now on
 * @param deleted whether it was returned or voided
 * @param files what is attached to it, in the order in which it was
 * @param version from 1, one more with each change
 */
public record KeptRecord(
        long id,
        String kind,
        Numbered number,
        List<UnitValues> standings,
        List<Line> lines,
        int lastLine,
        boolean fixed,
        boolean deleted,
        List<Attached> files,
        int version) {
    public KeptRecord {
        standings = List.copyOf(standings);
        lines = List.copyOf(lines);
        files = List.copyOf(files);
    }

    /**
     * What a record is numbered by.
     *
     * @param text the identifier
     * @param into the field of the record that holds it
     */
    public record Numbered(String series, String text, String into) {}

    /**
     * A unit in which a record stands, and what its fields hold there.
     *
     * @param values by name, each in its one form
     */
    public record UnitValues(String unit, Map<String, String> values) {
        public UnitValues {
            values = Collections.unmodifiableMap(new TreeMap<>(values));
        }
    }

    /**
     * A line of a document.
     *
     * @param number from 1; or in tens, as the kind has it
     */
    public record Line(int number, Map<String, String> values) {
        public Line {
            values = Collections.unmodifiableMap(new TreeMap<>(values));
        }
    }

    /**
     * A file that goes with a record; it bears the record's identifier as its name.
     *
     * @param ending of its name, such as svg; empty for none
     * @param size in bytes
     * @param digest SHA-256 of its bytes, in small hexadecimal digits
     */
    public record Attached(String ending, long size, String digest) {}

    /** The unit that it was made in. */
    public String home() {
        return standings.getFirst().unit();
    }

    /** What its fields hold in the unit that it was made in. */
    public Map<String, String> values() {
        return standings.getFirst().values();
    }

    public List<String> units() {
        return standings.stream().map(UnitValues::unit).toList();
    }

    public Optional<UnitValues> in(String unit) {
        return standings.stream()
                .filter(standing -> standing.unit().equals(unit))
                .findFirst();
    }

    /** The name of an attached file, by the record's identifier; the second of one ending has a 2 behind it. */
    public String fileName(int place) {
        String ending = files.get(place).ending();
        long before = files.subList(0, place).stream()
                .filter(other -> other.ending().equals(ending))
                .count();
        return fileName(number.text(), before == 0 ? "" : "-" + (before + 1), ending);
    }

    /** An identifier as the name of a file: what no file system takes in a name is a hyphen. */
    public static String fileName(String text, String behind, String ending) {
        return text.replaceAll("[\\\\/:*?\"<>|\\p{Cntrl}]", "-").replaceFirst("^\\.", "-")
                + behind
                + (ending.isEmpty() ? "" : "." + ending);
    }

    public KeptRecord withStandings(List<UnitValues> now) {
        return new KeptRecord(id, kind, number, now, lines, lastLine, fixed, deleted, files, version);
    }

    /** With other values in each unit. */
    public KeptRecord withValues(UnaryOperator<UnitValues> change) {
        return withStandings(standings.stream().map(change).toList());
    }

    public KeptRecord withNumber(Numbered now) {
        return new KeptRecord(id, kind, now, standings, lines, lastLine, fixed, deleted, files, version);
    }

    public KeptRecord withLines(List<Line> now) {
        return new KeptRecord(
                id,
                kind,
                number,
                standings,
                now,
                now.stream().mapToInt(Line::number).reduce(lastLine, Math::max),
                fixed,
                deleted,
                files,
                version);
    }

    public KeptRecord asFixed() {
        return new KeptRecord(id, kind, number, standings, lines, lastLine, true, deleted, files, version);
    }

    public KeptRecord asDeleted() {
        return new KeptRecord(id, kind, number, standings, lines, lastLine, fixed, true, files, version);
    }

    public KeptRecord withFile(Attached file) {
        var more = new ArrayList<>(files);
        more.add(file);
        return new KeptRecord(id, kind, number, standings, lines, lastLine, fixed, deleted, more, version);
    }

    public KeptRecord withVersion(int newVersion) {
        return new KeptRecord(id, kind, number, standings, lines, lastLine, fixed, deleted, files, newVersion);
    }
}
