package org.youngtally.core.guess;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.youngtally.core.codebook.Choice;
import org.youngtally.core.codebook.Codebook;
import org.youngtally.core.guess.Piece.Source;
import org.youngtally.core.reading.Located;
import org.youngtally.core.reading.SeriesReader;
import org.youngtally.core.series.DraftCheck;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.Fields;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.Series;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;

/** Proposes definitions from examples alone: a column of numbers, and what stands beside them. */
public final class Guess {
    /** So many examples are searched for an explanation; all of them are read by it. */
    private static final int SEARCHED = 400;

    private static final int MOST_PROPOSALS = 4;
    private static final int MOST_LEFT_OVER = 20;
    private static final double SAME = 0.02;
    private static final double OF_DATES = 0.9;

    private final List<String> columns;
    private final int column;
    /** The column of dates; -1 without one. */
    private final int dates;

    private final LocalDate today;
    private final List<Example> examples;

    /**
     * A row of the table.
     *
     * @param line of the file, from 1
     */
    public record Row(long line, List<String> cells) {}

    private record Scored(Proposal proposal, double score) {}

    private Guess(List<String> columns, int column, Collection<Row> rows, LocalDate today) {
        this.columns = List.copyOf(columns);
        this.column = column;
        this.today = today;
        this.dates = dates(rows);
        var seen = new HashSet<String>();
        this.examples = rows.stream()
                .filter(row -> !cell(row, column).isEmpty() && seen.add(cell(row, column)))
                .map(row -> new Example(
                        row.line(),
                        cell(row, column),
                        row.cells(),
                        dates < 0 ? Optional.empty() : date(cell(row, dates))))
                .toList();
    }

    /**
     * The definitions that explain most of the numbers, the best first; none where nothing explains a half of them.
     *
     * @param column of the numbers, from 0
     * @param today no number is of a later year than the next
     */
    public static List<Proposal> of(List<String> columns, int column, Collection<Row> rows, LocalDate today) {
        return new Guess(columns, column, rows, today).proposals();
    }

    private static String cell(Row row, int column) {
        return column < row.cells().size() ? row.cells().get(column).strip() : "";
    }

    private int dates(Collection<Row> rows) {
        for (int i = 0; i < columns.size(); i++) {
            int at = i;
            long dated =
                    rows.stream().filter(row -> date(cell(row, at)).isPresent()).count();
            if (i != column && !rows.isEmpty() && dated >= OF_DATES * rows.size()) return i;
        }
        return -1;
    }

    private static Optional<LocalDate> date(String text) {
        if (!text.matches("[0-9]{4}-[0-9]{2}-[0-9]{2}.*")) return Optional.empty();
        try {
            return Optional.of(LocalDate.parse(text.substring(0, 10)));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    private List<Proposal> proposals() {
        if (examples.size() < 2) return List.of();
        var scored = new ArrayList<>(explained(examples));
        List<Example> alike = alike();
        if (alike.size() < examples.size() && scored.stream().noneMatch(each -> readsAll(each.proposal())))
            scored.addAll(explained(alike));
        scored.sort(Comparator.comparingDouble(Scored::score).reversed());
        var proposals = new ArrayList<Proposal>();
        double before = 0;
        for (Scored each : scored) {
            if (proposals.stream()
                    .anyMatch(other -> same(other.series(), each.proposal().series()))) continue;
            String apart = !proposals.isEmpty() && before - each.score() < SAME
                    ? Difference.between(proposals.getFirst(), each.proposal(), examples.getLast(), today)
                    : "";
            before = proposals.isEmpty() ? each.score() : before;
            Proposal of = each.proposal();
            proposals.add(
                    new Proposal(of.series(), of.fields(), of.books(), of.read(), of.numbers(), of.leftOver(), apart));
            if (proposals.size() == MOST_PROPOSALS) break;
        }
        return proposals;
    }

    private static boolean same(Series one, Series other) {
        return one.pattern().toString().equals(other.pattern().toString())
                && one.restarts().equals(other.restarts());
    }

    private static boolean readsAll(Proposal proposal) {
        return proposal.read() == proposal.numbers();
    }

    /** The examples of the most frequent shape, runs of digits, capitals and small letters counting alike. */
    private List<Example> alike() {
        Map<String, List<Example>> shapes = examples.stream().collect(Collectors.groupingBy(example -> example.text()
                .replaceAll("[0-9]+", "9")
                .replaceAll("\\p{Lu}+", "A")
                .replaceAll("\\p{Ll}+", "a")));
        return shapes.values().stream().max(Comparator.comparing(List::size)).orElse(List.of());
    }

    private List<Scored> explained(List<Example> some) {
        List<Example> searched = some.size() <= SEARCHED ? some : spread(some);
        List<Integer> sources = IntStream.range(0, columns.size())
                .filter(each -> each != column && each != dates)
                .boxed()
                .toList();
        var ends = new Ends(columns, sources, searched, today);
        String[] texts = searched.stream().map(Example::text).toArray(String[]::new);
        var scored = new ArrayList<Scored>();
        for (Search.Found found : new Search(ends).of(texts))
            proposal(found, searched)
                    .filter(proposal -> 2 * proposal.read() >= proposal.numbers())
                    .ifPresent(proposal ->
                            scored.add(new Scored(proposal, found.score() * proposal.read() / proposal.numbers())));
        return scored;
    }

    /** Some examples of all parts of the table. */
    private static List<Example> spread(List<Example> all) {
        var some = new ArrayList<Example>();
        for (int i = 0; i < SEARCHED; i++) some.add(all.get((int) ((long) i * all.size() / SEARCHED)));
        return some;
    }

    private Optional<Proposal> proposal(Search.Found found, List<Example> searched) {
        var books = new TreeMap<String, Codebook>();
        var fields = new LinkedHashMap<String, FieldDraft>();
        var from = new LinkedHashMap<String, String>();
        for (Piece piece : found.around()) {
            if (piece.source().isEmpty()) continue;
            Source source = piece.source().get();
            from.put(source.field(), columns.get(source.column()));
            fields.put(source.field(), field(source, piece, searched, books));
        }
        LocalDate opens = examples.stream()
                .flatMap(example -> example.date().stream())
                .min(Comparator.naturalOrder())
                .orElse(today)
                .withDayOfYear(1);
        SeriesDraft draft = SeriesDraft.of("guessed", found.pattern())
                .with(SeriesProperties.NAMESPACE, "guessed")
                .with(SeriesProperties.RESTARTS, found.count().restarts())
                .with(SeriesProperties.FIELDS, List.copyOf(fields.values()))
                .with(
                        SeriesProperties.RANGES,
                        List.of(new RangeDraft(
                                found.count().first(),
                                found.count().last(),
                                found.count().step() == 1 ? null : found.count().step(),
                                opens.toString(),
                                null,
                                null)));
        return DraftCheck.of(draft, books).series().map(series -> read(series, books, from));
    }

    private static FieldDraft field(Source source, Piece piece, List<Example> searched, Map<String, Codebook> books) {
        if (source.codes().isEmpty()) {
            int longest = Arrays.stream(piece.written())
                    .mapToInt(String::length)
                    .max()
                    .orElse(1);
            return new FieldDraft(source.field(), null, null, null, (long) longest, symbols(piece.written()));
        }
        books.put(
                source.field(),
                new Codebook(
                        source.field(),
                        source.field(),
                        source.codes().entrySet().stream()
                                .map(code -> new Choice(code.getKey(), code.getValue(), false, List.of()))
                                .toList(),
                        1));
        return new FieldDraft(source.field(), source.field(), null, null, null, null);
    }

    /** The sorts of symbols, and single symbols, that occur: no more, so that they can be told from the count. */
    private static String symbols(String[] texts) {
        var words = new TreeSet<String>();
        for (String text : texts)
            text.chars()
                    .filter(symbol -> symbol != ' ')
                    .forEach(symbol -> words.add(
                            symbol >= '0' && symbol <= '9'
                                    ? "digits"
                                    : symbol >= 'A' && symbol <= 'Z'
                                            ? "upper"
                                            : symbol >= 'a' && symbol <= 'z' ? "lower" : Character.toString(symbol)));
        return String.join(" ", words);
    }

    /** Has every number read by the definition. */
    private Proposal read(Series series, Map<String, Codebook> books, Map<String, String> from) {
        var reader = new SeriesReader(series, Fields.of(series, key -> Optional.ofNullable(books.get(key))), today);
        long read = 0;
        var leftOver = new ArrayList<Long>();
        for (Example example : examples) {
            boolean understood = reader.read(example.text()).stream()
                    .map(Located::reading)
                    .anyMatch(reading -> reading.deviations().isEmpty());
            if (understood) read++;
            else if (leftOver.size() < MOST_LEFT_OVER) leftOver.add(example.line());
        }
        return new Proposal(series, from, new HashMap<>(books), read, examples.size(), leftOver, "");
    }
}
