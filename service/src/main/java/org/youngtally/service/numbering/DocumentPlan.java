package org.youngtally.service.numbering;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Act.DocumentRow;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.numbering.DocumentNumbering;
import org.youngtally.core.numbering.Item;
import org.youngtally.core.numbering.NumberPlan;
import org.youngtally.core.numbering.NumberPlan.ItemFault;
import org.youngtally.core.numbering.Numbers;
import org.youngtally.core.numbering.Rule;
import org.youngtally.ledger.Ledger;
import org.youngtally.service.label.ExpectedNumbers;
import org.youngtally.service.web.Refusals;

/** What a rule comes to in a document, and how its numbers are had. */
public final class DocumentPlan {
    private final Rule rule;
    private final DocumentSheets document;
    private final LocalDate date;
    private final Map<String, String> originals;

    private DocumentPlan(Rule rule, DocumentSheets document, LocalDate date, Map<String, String> originals) {
        this.rule = rule;
        this.document = document;
        this.date = date;
        this.originals = originals;
    }

    /** A document that counts itself. */
    public static NumberPlan ofItself(
            Rule rule, DocumentSheets document, LocalDate date, Map<String, String> originals) {
        return new DocumentPlan(rule, document, date, originals).plan(document.items(), Numbers.NONE);
    }

    private NumberPlan plan(List<Item> items, Numbers source) {
        return DocumentNumbering.plan(document.sheets(), items, rule, date, originals, source);
    }

    /**
     * A document whose numbers come from series, as the ledger stands.
     *
     * @param expected with the numbers that are expected, or of a series that does not say them beforehand its first
     * @param rows what is to be allocated, by the series, in the order of the count
     * @param known how many numbers were allocated for the document before, and are not in it
     */
    public record OfSeries(
            NumberPlan expected,
            Map<String, List<DocumentRow>> rows,
            int known,
            Request request,
            DocumentPlan plan,
            SeriesItems items) {
        /** How many numbers are to be allocated. */
        public long allocated() {
            return rows.values().stream().mapToLong(List::size).sum();
        }

        /** With the numbers that were allocated for the rows. */
        public NumberPlan with(Map<String, List<String>> identifiers) {
            return plan.plan(items.items(), items.answered(identifiers));
        }

        /** The act that allocates the numbers of one of the series. */
        public Act.NumberDocument act(String series, RequestMark mark) {
            return request.act(series, rows.get(series), items.last(series), mark);
        }
    }

    /** What allocates the numbers of a document. */
    public record Request(ItemSeries series, String document, Optional<LocalDate> date) {
        private Act.NumberDocument act(String key, List<DocumentRow> rows, long after, RequestMark mark) {
            return new Act.NumberDocument(key, document, rows, date, after, mark);
        }
    }

    /**
     * @param looking marks a look ahead
     * @throws org.youngtally.service.web.Problem where the numbers cannot be had
     */
    public static OfSeries ofSeries(
            Ledger ledger, Request request, Rule rule, DocumentSheets document, RequestMark looking) {
        var plan = new DocumentPlan(rule, document, request.date().orElseGet(ledger::today), Map.of());
        SeriesItems items = ledger.read(dsl -> new SeriesItems(
                dsl, request.series(), request.document(), rule, document.items(), document.isOfParts()));
        SeriesItems.Asking asking = items.new Asking();
        NumberPlan first = plan.plan(items.items(), asking);
        List<ItemFault> faults = Stream.of(items.faults(), asking.unplaced(), first.faults())
                .filter(each -> !each.isEmpty())
                .findFirst()
                .orElse(List.of());
        if (!faults.isEmpty())
            return new OfSeries(new NumberPlan(List.of(), List.of(), faults), Map.of(), 0, request, plan, items);
        Map<String, List<String>> expected = new HashMap<>();
        asking.rows().forEach((key, rows) -> {
            Act.NumberDocument act = request.act(key, rows, items.last(key), looking);
            expected.put(key, expected(ledger, act));
        });
        return new OfSeries(
                expected.isEmpty() ? first : plan.plan(items.items(), items.answered(expected)),
                asking.rows(),
                asking.known(),
                request,
                plan,
                items);
    }

    private static List<String> expected(Ledger ledger, Act.NumberDocument act) {
        return switch (ledger.decide(act)) {
            case Decision.Refused refused -> throw Refusals.problem(refused.refusal());
            case Decision.Done done -> {
                var expected = new ExpectedNumbers(
                        ledger.snapshot().series().get(act.series()), ledger.snapshot(), done.effects());
                yield LongStream.range(0, act.rows().size())
                        .mapToObj(expected::identifier)
                        .toList();
            }
            case Decision other -> throw new IllegalStateException("items were looked at and came to " + other);
        };
    }
}
