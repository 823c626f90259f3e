package org.youngtally.core.guess;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.youngtally.core.Draws;
import org.youngtally.core.pattern.GeneratedPatterns;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.pattern.Pattern;

/** From examples alone a definition is proposed that goes on as they do. */
class GuessTest {
    private static final LocalDate TODAY = LocalDate.of(2026, 11, 29);
    private static final List<String> COLUMNS = List.of("number", "dated", "f", "unit");
    /** Always the same ones, as a share of them may be missed. */
    private static final int SCHEMES = Draws.of(200);

    private static final int ROWS = 120;
    private static final int FEWEST = 40;

    /** A scheme with its examples, and the record that comes next. */
    private record Scheme(Pattern pattern, List<Guess.Row> rows, Particulars next, long value) {
        static Scheme drawn(int seed) {
            var random = new Random(seed);
            while (true) {
                var pattern = Pattern.parse(GeneratedPatterns.next(random));
                long first = pattern.count().least() + random.nextInt(3);
                if (pattern.count().largest() - first < FEWEST) continue;
                int rows = (int) Math.min(ROWS, pattern.count().largest() - first - 1);
                var all = new ArrayList<Guess.Row>();
                LocalDate date = LocalDate.of(2024, 5, 3);
                for (int i = 0; ; i++) {
                    String text = GeneratedPatterns.TEXTS.get(random.nextInt(GeneratedPatterns.TEXTS.size()));
                    String unit = random.nextBoolean() ? "works" : "CARE";
                    var particulars = new Particulars(date, Map.of("f", text, "unit", unit));
                    if (i == rows) return new Scheme(pattern, all, particulars, first + i);
                    String number = pattern.render(particulars, first + i);
                    all.add(new Guess.Row(i + 2L, List.of(number, date.toString(), text, unit)));
                    date = date.plusDays(random.nextInt(12));
                }
            }
        }

        boolean isContinuedBy(Proposal proposal) {
            var fields = new HashMap<String, String>();
            proposal.fields().forEach((field, column) -> {
                String text = next.fields().get(column);
                var book = proposal.books().get(field);
                fields.put(
                        field,
                        book == null
                                ? text
                                : book.choices().stream()
                                        .filter(choice -> choice.name().equals(text))
                                        .findFirst()
                                        .orElseThrow()
                                        .code());
            });
            String right = pattern.render(next, value);
            for (long guessed : List.of(value, next(proposal)))
                if (guessed <= proposal.series().pattern().count().largest()
                        && proposal.series()
                                .pattern()
                                .render(new Particulars(next.date(), fields), guessed)
                                .equals(right)) return true;
            return false;
        }

        private long next(Proposal proposal) {
            var range = proposal.series().ranges().getFirst();
            return range.first() + rows.size() * range.step();
        }
    }

    @Test
    void nearlyEveryDrawnSchemeIsContinuedByOneOfTheFirstProposals() {
        var missed = new ArrayList<String>();
        for (int seed = 0; seed < SCHEMES; seed++) {
            Scheme scheme = Scheme.drawn(seed);
            List<Proposal> proposals = Guess.of(COLUMNS, 0, scheme.rows(), TODAY);
            if (proposals.stream().limit(2).noneMatch(scheme::isContinuedBy))
                missed.add(scheme.pattern() + " as "
                        + proposals.stream()
                                .map(each -> each.series().pattern() + " " + each.read())
                                .toList() + " like "
                        + scheme.rows().getLast().cells().getFirst());
        }
        assertThat(missed).hasSizeLessThanOrEqualTo(SCHEMES / 20);
    }

    /** The numbers of a column, and beside them a text and a date. */
    private static List<Proposal> guessed(List<String> columns, String... rows) {
        var all = new ArrayList<Guess.Row>();
        for (int i = 0; i < rows.length; i++) all.add(new Guess.Row(i + 2L, List.of(rows[i].split("/"))));
        return Guess.of(columns, 0, all, TODAY);
    }

    private static Proposal best(List<String> columns, String... rows) {
        return guessed(columns, rows).getFirst();
    }

    @Test
    void theStepIsToldAndARowThatIsWrittenOtherwiseIsLeftOver() {
        Proposal best = best(List.of("no"), "P-0110", "P-0120", "p/0130", "P-0150", "P-0160", "see drawing");
        assertThat(best.series().pattern()).hasToString("P-{count 4}");
        assertThat(best.series().ranges().getFirst().step()).isEqualTo(10);
        assertThat(best.leftOver()).containsExactly(4L, 7L);
    }

    @Test
    void aCountThatBeginsAgainEachYearIsToldByItsRestart() {
        Proposal best = best(List.of("no"), "LW25-01", "LW25-02", "LW25-03", "LW26-01", "LW26-02", "LW26-03");
        assertThat(best.series().pattern()).hasToString("LW{date yy}-{count 2}");
        assertThat(best.series().restarts()).hasToString("year");
    }

    @Test
    void aCodeForEachTextOfAColumnIsACodebook() {
        Proposal best = best(
                List.of("no", "group"),
                "WX-01/Wind-chest",
                "AQ-02/Action",
                "WX-03/Wind-chest",
                "AQ-04/Action",
                "WX-05/Wind-chest");
        assertThat(best.series().pattern()).hasToString("{field group}-{count 2}");
        assertThat(best.books().get("group").choices())
                .extracting(choice -> choice.name() + " " + choice.code())
                .containsExactly("Wind-chest WX", "Action AQ");
    }

    @Test
    void initialsOfTheNameBesideAreTold() {
        Proposal best =
                best(List.of("no", "by"), "IW1/Ines Wold", "TK2/Tobin Karst", "IW3/Ines Wold", "RM4/Ruben Marl");
        assertThat(best.series().pattern()).hasToString("{field by initials}{count}");
    }

    @Test
    void aCheckDigitThatFitsAllIsTold() {
        var numbers = new String[15];
        for (int i = 0; i < numbers.length; i++)
            numbers[i] = Pattern.parse("K{count 4}{check damm}").render(TODAY, i + 17);
        assertThat(best(List.of("no"), numbers).series().pattern()).hasToString("K{count 4}{check damm}");
    }

    @Test
    void twoThatExplainAllAreToldApart() {
        List<Proposal> proposals = guessed(List.of("no"), "LW26-08", "LW26-09", "LW26-10", "LW26-11");
        assertThat(proposals)
                .extracting(each -> each.series().pattern().toString())
                .contains("LW{date yy}-{count 2}", "LW26-{count 2}");
        assertThat(proposals.get(1).apart()).contains("on 2027-01-01 the first writes");
    }

    @Test
    void whatHasNoRuleIsNotGuessed() {
        assertThat(guessed(List.of("no"), "Pallet", "Slider 7", "9-x", "roller board"))
                .isEmpty();
    }
}
