package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.DriverManager;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.DocumentQueries;
import org.youngtally.ledger.store.DocumentQueries.ItemNumber;

/** Items of documents that bear numbers of a series. */
class DocumentLedgerTest {
    @TempDir
    private Path data;

    private Ledger ledger;

    @BeforeEach
    void open() throws Exception {
        ledger = Ledger.open(LedgerOptions.in(data));
        ledger.perform(Acts.define(), "ines");
    }

    @AfterEach
    void close() throws Exception {
        ledger.close();
    }

    private Outcome<Answer.Table> number(long after, String... items) {
        return ledger.perform(
                new Act.NumberDocument(
                        Acts.KEY,
                        "case front",
                        Stream.of(items)
                                .map(item -> new Act.DocumentRow(item, Map.of()))
                                .toList(),
                        Optional.empty(),
                        after,
                        new RequestMark("ines", Optional.empty(), String.join(",", items))),
                "ines");
    }

    private static long seq(Outcome<Answer.Table> outcome) {
        return ((Outcome.Filled) outcome).entry().seq();
    }

    private List<ItemNumber> standing() {
        return ledger.read(dsl -> new DocumentQueries(dsl).standing(Acts.KEY, "case front"));
    }

    @Test
    void eachItemHasItsNumber() {
        long seq = seq(number(0, "b", "a"));
        List<String> identifiers = ((Outcome.Filled) number(seq, "c")).identifiers();
        assertThat(standing()).extracting(ItemNumber::item).containsExactly("b", "a", "c");
        assertThat(standing().getLast().identifier()).isEqualTo(identifiers.getFirst());
    }

    @Test
    void whoLookedBeforeSomebodyElseNumberedItIsRefused() {
        long seq = seq(number(0, "a"));
        assertThat(number(0, "a", "b"))
                .isInstanceOfSatisfying(Outcome.Refused.class, refused -> assertThat(refused.refusal())
                        .isEqualTo(new Refusal.DocumentMoved("case front", seq)));
    }

    @Test
    void whatIsVoidStandsForNoItem() {
        String first = ((Outcome.Filled) number(0, "a", "b")).identifiers().getFirst();
        ledger.perform(
                new Act.Settle(
                        Acts.KEY,
                        new Selection.Identifiers(List.of(first)),
                        Act.Deed.VOID,
                        Optional.of("drawn again"),
                        new RequestMark("ines", Optional.empty(), "v")),
                "ines");
        assertThat(standing()).extracting(ItemNumber::item).containsExactly("b");
    }

    @Test
    void theAuditMissesAnItemThatIsAnother() throws Exception {
        long seq = seq(number(0, "b", "a"));
        ledger.close();
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "");
                var statement = connection.createStatement()) {
            statement.execute("update document_item set item = 'c' where item = 'b'");
        }
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                .containsExactly(
                        "entry " + seq + ": the items of the document ‘case front’ are not those of the journal");
    }

    @Test
    void theyAreThereAfterTheTablesWereMadeAnew() throws Exception {
        number(0, "b", "a");
        List<ItemNumber> before = standing();
        ledger.close();
        Ledger.rebuild(LedgerOptions.in(data));
        ledger = Ledger.open(LedgerOptions.in(data));
        assertThat(standing()).isEqualTo(before);
    }
}
