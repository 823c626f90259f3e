package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.sql.DriverManager;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.audit.AuditReport;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.IdentifierQueries;

/** Files that were lost, put back or changed behind the ledger's back. */
class TamperedLedgerTest {
    @TempDir
    private Path data;

    private Ledger open() throws IOException {
        return Ledger.open(LedgerOptions.in(data));
    }

    private Path table() {
        return data.resolve("tables/tally.mv.db");
    }

    private Path segment() throws IOException {
        try (Stream<Path> files = Files.list(data.resolve("journal"))) {
            return files.sorted().findFirst().orElseThrow();
        }
    }

    private void fill(int numbers) throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(Acts.define(), "ines");
            for (int i = 0; i < numbers; i++) ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        }
    }

    private void assertComplete(Ledger ledger, int numbers) {
        assertThat(ledger.status().running()).isTrue();
        for (int i = 1; i <= numbers; i++) {
            String text = "LW26-%07d".formatted(i);
            int found = ledger.read(dsl -> new IdentifierQueries(dsl).find(text).size());
            assertThat(found).as(text).isEqualTo(1);
        }
        assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings()).isEmpty();
        assertThat(Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1), "ines")))
                .containsExactly("LW26-%07d".formatted(numbers + 1));
    }

    private static void assertStopped(Ledger ledger, String why) {
        assertThat(ledger.status().stopped()).contains(why);
        assertThatThrownBy(() -> ledger.perform(Acts.take(Acts.KEY, 1), "ines"))
                .isInstanceOfSatisfying(
                        LedgerUnavailable.class, e -> assertThat(e.kind()).isEqualTo(LedgerUnavailable.Kind.STOPPED))
                .hasMessageContaining(why);
    }

    @Test
    void deletedTablesAreMadeAnew() throws Exception {
        fill(20);
        Files.delete(table());
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("21 entries were replayed"));
            assertComplete(ledger, 20);
        }
    }

    @Test
    void tablesPutBackToAnOlderCopyAreBroughtUpToDate() throws Exception {
        fill(5);
        Path copy = data.resolve("older");
        Files.copy(table(), copy);
        try (Ledger ledger = open()) {
            for (int i = 0; i < 9; i++) ledger.perform(Acts.take(Acts.KEY, 1), "ines");
        }
        Files.move(copy, table(), StandardCopyOption.REPLACE_EXISTING);
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("9 entries were replayed"));
            assertComplete(ledger, 14);
        }
    }

    private void change(String statement) throws Exception {
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "")) {
            assertThat(connection.createStatement().executeUpdate(statement)).isPositive();
        }
    }

    /** What a process that was killed left of a batch that was under way, wherever it left it. */
    @Test
    void tablesWithAPartOfABatchAreMadeAnewAfterAKill() throws Exception {
        fill(5);
        change("insert into entry (seq, at, account_id, kind) values (7, now(), 1, 0)");
        Files.writeString(data.resolve("in-use"), MachineRun.current());
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("hold a part of what was under way"));
            assertComplete(ledger, 5);
        }
    }

    @Test
    void tablesThatObjectToWhatTheyLackAreMadeAnew() throws Exception {
        fill(5);
        Path copy = data.resolve("older");
        Files.copy(table(), copy);
        fill(3);
        Files.move(copy, table(), StandardCopyOption.REPLACE_EXISTING);
        change(
                "insert into allocation (lane_id, first_position, last_position, state, seq, version, business_date) select lane_id, last_position + 1, last_position + 1, state, seq + 1, version, business_date from allocation order by last_position desc limit 1");
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("the tables differ from the journal"));
            assertComplete(ledger, 8);
        }
    }

    private void fillWithKeys(int numbers) throws IOException {
        try (Ledger ledger = open()) {
            ledger.perform(Acts.define(), "ines");
            for (int i = 1; i <= numbers; i++) ledger.perform(Acts.take(Acts.KEY, 1, "clé " + i, null), "ines");
        }
    }

    /** The tables as the release before had them: its keys were found by their texts. */
    @Test
    void theKeysOfAnEarlierReleaseStillStand() throws Exception {
        fillWithKeys(5);
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "");
                var statement = connection.createStatement()) {
            for (String sql : List.of(
                    "drop index entry_key_mark",
                    "alter table entry drop column key_mark",
                    "create unique index entry_request on entry (request_key, account_id)",
                    "alter table namespace drop column comparison",
                    "drop table table_plan",
                    "drop table plan_piece",
                    "drop table label_job",
                    "drop table label_piece",
                    "drop table label_stretch",
                    "drop table label_change",
                    "drop table document_item",
                    "delete from \"flyway_schema_history\" where \"version\" in ('7', '8', '9', '10', '11', '12', '13', '14')"))
                statement.execute(sql);
        }
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).noneMatch(told -> told.contains("replayed"));
            assertThat(Acts.identifiers(ledger.perform(Acts.take(Acts.KEY, 1, "clé 3", null), "ines")))
                    .containsExactly("LW26-0000003");
            assertComplete(ledger, 5);
        }
    }

    @Test
    void theAuditMissesAKeyThatIsNotFoundAgain() throws Exception {
        fillWithKeys(2);
        change("update entry set key_mark = random_uuid() where seq = 3");
        try (Ledger ledger = open()) {
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .containsExactly("entry 3: the tables say differently from the journal");
        }
    }

    @Test
    void damagedTablesAreMadeAnew() throws Exception {
        fill(20);
        Files.writeString(table(), "not a database");
        try (Ledger ledger = open()) {
            assertComplete(ledger, 20);
        }
    }

    @Test
    void tablesAreMadeAnewAfterTheMachineWentDown() throws Exception {
        fill(3);
        Files.writeString(data.resolve("in-use"), "another run of the machine");
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("the machine went down"));
            assertComplete(ledger, 3);
        }
    }

    @Test
    void aMissingJournalStopsNumberingAfterTheMachineWentDownToo() throws Exception {
        fill(3);
        Files.writeString(data.resolve("in-use"), "another run of the machine\n4\n");
        Files.delete(segment());
        try (Ledger ledger = open()) {
            assertStopped(ledger, "the journal is gone, while entries up to 4 were written");
        }
    }

    @Test
    void tablesAheadOfTheJournalStopNumbering() throws Exception {
        fill(5);
        List<String> lines = Files.readAllLines(segment());
        Files.write(segment(), lines.subList(0, 4));
        try (Ledger ledger = open()) {
            assertStopped(ledger, "the journal ends at entry 4, while entries up to 6 were written");
        }
        assertThat(Files.readAllLines(segment()))
                .as("nothing is dropped from a journal that is not trusted")
                .hasSize(4);
    }

    @Test
    void aMissingJournalStopsNumbering() throws Exception {
        fill(5);
        Files.delete(segment());
        try (Ledger ledger = open()) {
            assertStopped(ledger, "the journal is gone");
        }
    }

    @Test
    void aJournalBrokenInTheMiddleStopsNumbering() throws Exception {
        fill(5);
        List<String> lines = new ArrayList<>(Files.readAllLines(segment()));
        lines.set(2, lines.get(2).replace("LW26-0000002", "LW26-0000009"));
        Files.write(segment(), lines);
        try (Ledger ledger = open()) {
            assertStopped(ledger, "line 3 of 000000000000000001.jsonl (entry 3) is not what was written");
        }
        assertThatThrownBy(() -> Ledger.rebuild(LedgerOptions.in(data))).hasMessageContaining("entry 3");
    }

    @Test
    void aJournalBrokenInTheMiddleStopsNumberingWithoutTablesToo() throws Exception {
        fill(5);
        Files.delete(table());
        List<String> lines = new ArrayList<>(Files.readAllLines(segment()));
        lines.set(4, "\0".repeat(lines.get(4).length()));
        Files.write(segment(), lines);
        try (Ledger ledger = open()) {
            assertStopped(ledger, "entry 5");
        }
    }

    @Test
    void tablesOfAnotherLedgerStopNumbering() throws Exception {
        fill(5);
        Path foreign = data.resolve("foreign");
        Files.move(table(), foreign);
        try (Stream<Path> files = Files.list(data.resolve("journal"))) {
            for (Path file : files.toList()) Files.delete(file);
        }
        Files.delete(data.resolve("last-seen"));
        fill(7);
        Files.move(foreign, table(), StandardCopyOption.REPLACE_EXISTING);
        try (Ledger ledger = open()) {
            assertStopped(ledger, "they belong to different ledgers");
        }
    }

    @Test
    void anUnfinishedLastLineIsDropped() throws Exception {
        fill(5);
        byte[] whole = Files.readAllBytes(segment());
        Files.write(segment(), "{\"seq\":7,\"at\":\"20".getBytes(StandardCharsets.UTF_8), StandardOpenOption.APPEND);
        try (Ledger ledger = open()) {
            assertThat(ledger.status().opening()).anyMatch(told -> told.contains("17 bytes of an unfinished"));
            assertThat(Files.readAllBytes(segment())).isEqualTo(whole);
            assertComplete(ledger, 5);
        }
    }

    @Test
    void rebuildMakesTheSameTables() throws Exception {
        fill(30);
        assertThat(Ledger.rebuild(LedgerOptions.in(data))).first().asString().contains("31 entries");
        try (Ledger ledger = open()) {
            assertComplete(ledger, 30);
        }
    }

    private AuditReport auditAfter(Consumer<DSLContext> change) throws Exception {
        fill(10);
        try (var connection = DriverManager.getConnection(LedgerOptions.in(data).storeUrl(), "tally", "")) {
            change.accept(DSL.using(connection));
        }
        try (Ledger ledger = open()) {
            return Audit.of(ledger, Optional.empty(), Head.EMPTY);
        }
    }

    @Test
    void theAuditFindsAMissingRow() throws Exception {
        assertThat(auditAfter(dsl -> dsl.execute("delete from allocation where first_position = 3"))
                        .findings())
                .anyMatch(finding -> finding.contains("position 4 was never issued: a gap"));
    }

    @Test
    void theAuditFindsAChangedText() throws Exception {
        assertThat(auditAfter(
                                dsl -> dsl.execute(
                                        "update allocation set text = 'LW26-0000099', text_key = 'lw26-0000099' where first_position = 3"))
                        .findings())
                .anyMatch(finding -> finding.contains(
                        "position 4: ‘LW26-0000099’ was found where the definition writes ‘LW26-0000004’"));
    }

    @Test
    void theAuditFindsACounterThatWasSetBack() throws Exception {
        assertThat(auditAfter(dsl -> dsl.execute("update lane set next_position = 4"))
                        .findings())
                .anyMatch(finding -> finding.contains("the counter is at position 5"));
    }

    @Test
    void theAuditFindsAnEntryThatWasChanged() throws Exception {
        assertThat(auditAfter(dsl -> dsl.execute("update entry set reference = 'FORGED' where seq = 5"))
                        .findings())
                .containsExactly("entry 5: the tables say differently from the journal");
    }

    @Test
    void theAuditFindsARowThatNoEntryTells() throws Exception {
        assertThat(auditAfter(dsl -> {
                            dsl.execute(
                                    "insert into allocation select lane_id, 10, 10, state, seq, version, business_date, 'LW26-0000011', 'lw26-0000011', namespace_id, fields, null, null, null, null from allocation where first_position = 9");
                            dsl.execute("update lane set next_position = 11");
                        })
                        .findings())
                .anyMatch(finding -> finding.contains("the tables hold other numbers than the journal"));
    }

    /** The journal was copied first, and the tables later. */
    @Test
    void aCopyOfARunningFolderSaysHowItIsOpened() throws Exception {
        copyOfARunningFolder();
        try (Ledger ledger = open()) {
            assertStopped(ledger, "run: ./youngtally rebuild --data " + data + " --up-to 4;");
        }
        assertThatThrownBy(() -> Ledger.rebuild(LedgerOptions.in(data)))
                .as("without being told what is lost")
                .hasMessageContaining("--up-to 4");
        assertThatThrownBy(() -> Ledger.rebuild(LedgerOptions.in(data), Optional.of(3L)))
                .hasMessageContaining("the journal ends at entry 4, not at 3");
    }

    @Test
    void aCopyOfARunningFolderOpensOnceItWasRebuilt() throws Exception {
        copyOfARunningFolder();
        Ledger.rebuild(LedgerOptions.in(data), Optional.of(4L));
        try (Ledger ledger = open()) {
            assertComplete(ledger, 3);
        }
    }

    private void copyOfARunningFolder() throws Exception {
        fill(5);
        List<String> lines = Files.readAllLines(segment());
        Files.write(segment(), lines.subList(0, 4));
    }
}
