package org.youngtally.core.guess;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import org.youngtally.core.guess.Piece.Source;
import org.youngtally.core.pattern.Part.DateField;
import org.youngtally.core.pattern.Part.TextField;
import org.youngtally.core.pattern.Pattern;

/** What can stand at one end of all examples: text, dates, and what other columns say. */
final class Ends {
    private static final int MOST = 6;
    private static final int LONGEST_CODE = 4;
    private static final int FIRST_YEAR = 1990;
    private static final List<String> DATES = List.of(
            "yyyyMMdd",
            "yyMMdd",
            "yyyyMM",
            "yyMM",
            "yyyy",
            "yy",
            "MMM",
            "MM",
            "M",
            "dd",
            "d",
            "ww",
            "w",
            "Q",
            "DDD",
            "D");
    /** Those that tell a date by themselves, where no column does. */
    private static final List<String> DATES_ALONE = List.of("yyyyMMdd", "yyMMdd", "yyyyMM", "yyMM", "yyyy", "yy");

    private static final List<String> TRANSFORMS = transforms();
    /** Symbols of one sort in a row: letters, digits, or others. */
    private static final String RUN = "(\\p{L}+|[0-9]+|[^\\p{L}0-9]+)";

    private static final java.util.regex.Pattern FIRST_RUN = java.util.regex.Pattern.compile("^" + RUN);
    private static final java.util.regex.Pattern LAST_RUN = java.util.regex.Pattern.compile(RUN + "$");

    private final List<String> columns;
    private final List<Integer> sources;
    private final List<Example> examples;
    private final LocalDate today;
    private final List<TextField> places = new ArrayList<>();
    private final Map<String, String[]> datesWritten = new LinkedHashMap<>();

    /** @param sources the columns that fields can be filled from */
    Ends(List<String> columns, List<Integer> sources, List<Example> examples, LocalDate today) {
        this.columns = columns;
        this.sources = sources;
        this.examples = examples;
        this.today = today;
        for (String transform : TRANSFORMS) places.add(place("x", transform));
        if (examples.stream().allMatch(example -> example.date().isPresent()))
            for (String format : DATES)
                datesWritten.put(
                        format,
                        examples.stream()
                                .map(example -> written(format, example.date().orElseThrow()))
                                .toArray(String[]::new));
    }

    private static List<String> transforms() {
        var all = new ArrayList<String>();
        for (String pad : List.of("", " pad 2 X", " pad 3 X", " pad 4 X", " pad 2 0", " pad 3 0"))
            for (String kept : List.of("", " first 1", " first 2", " first 3", " first 4", " initials"))
                for (String accents : List.of("", " unaccented"))
                    for (String letters : List.of("", " upper", " lower")) all.add(accents + kept + letters + pad);
        return all;
    }

    private static TextField place(String name, String transform) {
        String field = name.equals("unit") ? "{unit" + transform + "}" : "{field " + name + transform + "}";
        return Pattern.parse(field + "{count}").textFields().getFirst();
    }

    private static String written(String format, LocalDate date) {
        return Pattern.render(
                (DateField)
                        Pattern.parse("{date " + format + "}{count}").parts().getFirst(),
                date);
    }

    /** The likeliest pieces at an end of what is left of the examples. */
    List<Piece> at(String[] left, boolean front) {
        var found = new ArrayList<Piece>();
        literals(left, front, found);
        dates(left, front, found);
        for (int source : sources) {
            transformed(source, left, front, found);
            coded(source, left, front, found);
        }
        found.sort(Comparator.comparingDouble(Piece::credit).reversed());
        return found.subList(0, Math.min(MOST, found.size()));
    }

    private static boolean ends(String text, String end, boolean front) {
        return front ? text.startsWith(end) : text.endsWith(end);
    }

    private void literals(String[] left, boolean front, List<Piece> found) {
        String common = left[0];
        for (String each : left) {
            int same = 0;
            int most = Math.min(common.length(), each.length());
            while (same < most
                    && (front
                            ? common.charAt(same) == each.charAt(same)
                            : common.charAt(common.length() - 1 - same) == each.charAt(each.length() - 1 - same)))
                same++;
            common = front ? common.substring(0, same) : common.substring(common.length() - same);
        }
        // What begins or ends as the count does may belong to it.
        var texts = new LinkedHashSet<String>();
        for (String belonging : List.of("", "[0-9]+", "\\p{L}+", "(.)\\1*"))
            texts.add(
                    belonging.isEmpty() ? common : common.replaceFirst(front ? belonging + "$" : "^" + belonging, ""));
        Matcher run = (front ? FIRST_RUN : LAST_RUN).matcher(common);
        if (run.find()) texts.add(run.group());
        texts.remove("");
        for (String text : texts)
            found.add(Piece.literal(text, left.length, cutsThrough(text, left[0], front) ? -0.05 : 0.03));
    }

    /** Whether a run of digits or letters goes on behind the text. */
    private static boolean cutsThrough(String text, String whole, boolean front) {
        if (text.length() == whole.length()) return false;
        char inner = front ? text.charAt(text.length() - 1) : text.charAt(0);
        char next = front ? whole.charAt(text.length()) : whole.charAt(whole.length() - text.length() - 1);
        return Character.isDigit(inner) && Character.isDigit(next)
                || Character.isLetter(inner) && Character.isLetter(next);
    }

    private void dates(String[] left, boolean front, List<Piece> found) {
        datesWritten.forEach((format, written) -> {
            for (int i = 0; i < left.length; i++) if (!ends(left[i], written[i], front)) return;
            addDate(format, written, 0.1 + 0.02 * format.length(), found);
        });
        if (!datesWritten.isEmpty()) return;
        for (String format : DATES_ALONE) {
            var written = new String[left.length];
            boolean all = true;
            for (int i = 0; all && i < left.length; i++) {
                all = left[i].length() > format.length();
                if (all) {
                    written[i] = front
                            ? left[i].substring(0, format.length())
                            : left[i].substring(left[i].length() - format.length());
                    all = date(format, written[i]).isPresent();
                }
            }
            if (all && new HashSet<>(Arrays.asList(written)).size() <= Math.max(1, left.length / 3))
                addDate(format, written, 0.02 * format.length(), found);
        }
    }

    private static void addDate(String format, String[] written, double credit, List<Piece> found) {
        String restart = format.contains("d") || format.contains("D")
                ? "day"
                : format.contains("w")
                        ? "week"
                        : format.contains("M") ? "month" : format.equals("Q") ? "quarter" : "year";
        var piece = new Piece("{date " + format + "}", written, Optional.empty(), Optional.of(restart), credit);
        found.add(
                piece.varies()
                        ? piece
                        : new Piece(piece.pattern(), written, Optional.empty(), Optional.of(restart), credit / 4));
    }

    /** A date that is written so, in the years that a table can be of. */
    Optional<LocalDate> date(String format, String written) {
        if (!written.chars().allMatch(symbol -> symbol >= '0' && symbol <= '9')) return Optional.empty();
        int yearDigits = format.startsWith("yyyy") ? 4 : 2;
        int year = Integer.parseInt(written.substring(0, yearDigits)) + (yearDigits == 2 ? 2000 : 0);
        String rest = written.substring(yearDigits);
        int month = rest.length() >= 2 ? Integer.parseInt(rest.substring(0, 2)) : 1;
        int day = rest.length() == 4 ? Integer.parseInt(rest.substring(2)) : 1;
        if (year < FIRST_YEAR || year > today.getYear() + 1 || month < 1 || month > 12 || day < 1)
            return Optional.empty();
        LocalDate first = LocalDate.of(year, month, 1);
        return day > first.lengthOfMonth() ? Optional.empty() : Optional.of(first.withDayOfMonth(day));
    }

    private void transformed(int from, String[] left, boolean front, List<Piece> found) {
        String[] texts = examples.stream().map(example -> example.cell(from)).toArray(String[]::new);
        Set<String> different = new HashSet<>(Arrays.asList(texts));
        if (different.size() < 2 || different.contains("")) return;
        Piece best = null;
        for (int t = 0; t < places.size(); t++) {
            var written = new String[left.length];
            boolean all = true;
            for (int i = 0; all && i < left.length; i++) {
                written[i] = places.get(t).written(texts[i]);
                all = !written[i].isEmpty() && ends(left[i], written[i], front);
            }
            if (!all) continue;
            String name = name(from);
            String transform = TRANSFORMS.get(t);
            TextField place = place(name, transform);
            String pattern = name.equals("unit") ? "{unit" + transform + "}" : "{field " + name + transform + "}";
            int length = Arrays.stream(written).mapToInt(String::length).sum() / written.length;
            var piece = new Piece(
                    pattern,
                    written,
                    Optional.of(new Source(name, from, Map.of(), place)),
                    Optional.of(name.equals("unit") ? name : "field " + name),
                    0.12 + 0.02 * length - 0.001 * transform.length());
            if (piece.varies() && (best == null || piece.credit() > best.credit())) best = piece;
        }
        if (best != null) found.add(best);
    }

    /** A code for each text of a column: the same for the same text. */
    private void coded(int from, String[] left, boolean front, List<Piece> found) {
        for (int length = LONGEST_CODE; length > 0; length--) {
            var codes = new LinkedHashMap<String, String>();
            var written = new String[left.length];
            boolean all = true;
            for (int i = 0; all && i < left.length; i++) {
                String text = examples.get(i).cell(from);
                all = !text.isEmpty() && left[i].length() > length;
                if (!all) break;
                written[i] = front ? left[i].substring(0, length) : left[i].substring(left[i].length() - length);
                String before = codes.putIfAbsent(text, written[i]);
                all = (before == null || before.equals(written[i]))
                        && written[i].chars().allMatch(Character::isLetterOrDigit);
            }
            boolean often = codes.size() * 2 <= left.length;
            if (!all || !often || new HashSet<>(codes.values()).size() < 2) continue;
            String name = name(from);
            found.add(new Piece(
                    name.equals("unit") ? "{unit}" : "{field " + name + "}",
                    written,
                    Optional.of(new Source(name, from, Collections.unmodifiableMap(codes), place(name, ""))),
                    Optional.of(name.equals("unit") ? name : "field " + name),
                    0.06 + 0.01 * length));
            return;
        }
    }

    /** The name of a field for a column. */
    private String name(int of) {
        String name = columns.get(of)
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^[^a-z]+|-$", "");
        return name.isEmpty() ? "column-" + (of + 1) : name.substring(0, Math.min(32, name.length()));
    }
}
