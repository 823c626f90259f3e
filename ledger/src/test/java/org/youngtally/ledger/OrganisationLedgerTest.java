package org.youngtally.ledger;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.Route;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.ledger.audit.Audit;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.store.EntryQueries;

/** Units, kinds, routes and accounts on disk: as they were after every start, and held against the journal. */
class OrganisationLedgerTest {
    private static final Instant NOW = Instant.parse("2026-03-02T09:00:00Z");

    @TempDir
    private Path folder;

    private Ledger open() throws IOException {
        return Ledger.open(LedgerOptions.in(folder)
                .withClock(Clock.fixed(NOW, ZoneOffset.UTC))
                .withZone(ZoneOffset.UTC));
    }

    private static Drafts drafts() {
        return new Drafts(
                List.of(),
                List.of(),
                List.of(series("n"), series("m")),
                List.of(
                        new UnitDraft("group", "The group", null, "G", null),
                        new UnitDraft("care", null, "group", null, "Pacific/Kiritimati")),
                List.of(new KindDraft(
                        "job",
                        "Jobs",
                        List.of(
                                new KindFieldDraft("number", null, null, null, null, null),
                                new KindFieldDraft("size", "Size", "number", null, null, true)),
                        List.of(new KindFieldDraft("what", null, null, null, null, null)))),
                List.of(
                        new RouteDraft("job", "group", null, "n", null),
                        new RouteDraft("job", "care", Map.of("size", new TestDraft(null, "10", null)), "m", null)));
    }

    private static SeriesDraft series(String key) {
        return SeriesDraft.of(key, key + "-{count 5}")
                .with(SeriesProperties.RANGES, List.of(new RangeDraft(1L, 99_999L, null, "2020-01-01", null, null)));
    }

    private static Act<?> account(String name, AccountChange change) {
        return new Act.ChangeAccount(
                name, change, "a change of " + name, new RequestMark("test", Optional.empty(), "digest"));
    }

    private static void fill(Ledger ledger) {
        ledger.perform(new Act.Define(drafts(), List.of(), Optional.empty()), "test");
        ledger.perform(
                account(
                        "ada",
                        new AccountChange.Open(
                                "Ada",
                                Account.Sort.PERSON,
                                Optional.of("{hash}"),
                                List.of(
                                        new Grant(Right.ACCESS, Scope.ALL),
                                        new Grant(Right.READ, Scope.unit("care"))))),
                "test");
        ledger.perform(
                account(
                        "ada",
                        new AccountChange.Issue(
                                new Token("1", "till", "abc", NOW, LocalDate.of(2026, 12, 31), Optional.empty()))),
                "ada");
        ledger.perform(account("ada", new AccountChange.Revoke("1", NOW)), "ada");
        ledger.perform(new Act.RemoveRoute("job in group", Optional.of(1)), "ada");
    }

    @Test
    void everythingStandsAfterAStartAndAfterARebuild() throws IOException {
        LedgerSnapshot before;
        try (Ledger ledger = open()) {
            fill(ledger);
            before = ledger.snapshot();
            assertThat(before.organisation().routes()).containsOnlyKeys("job in care when size=10..");
            assertThat(before.byToken()
                            .get("abc")
                            .account()
                            .token("1")
                            .orElseThrow()
                            .revoked())
                    .contains(NOW);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
        try (Ledger ledger = open()) {
            same(ledger.snapshot(), before);
        }
        Ledger.rebuild(LedgerOptions.in(folder));
        try (Ledger ledger = open()) {
            same(ledger.snapshot(), before);
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
            assertThat(ledger.perform(new Act.Define(drafts(), List.of(), Optional.empty()), "test"))
                    .isInstanceOfSatisfying(Outcome.Defined.class, defined -> assertThat(defined.routes())
                            .as("only the one that was taken away is new")
                            .extracting(Route::key)
                            .containsExactly("job in group"));
        }
    }

    private static List<String> modes(Path of) throws IOException {
        try (Stream<Path> all = Files.walk(of)) {
            var modes = new TreeSet<String>();
            for (Path each : all.toList())
                modes.add(PosixFilePermissions.toString(Files.getPosixFilePermissions(each)));
            return List.copyOf(modes);
        }
    }

    @Test
    void aNewFolderIsItsOwnersAlone() throws IOException {
        Ledger.open(LedgerOptions.in(folder.resolve("new/data"))).close();
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(folder.resolve("new/data"))))
                .isEqualTo("rwx------");
    }

    private static void fill(Path data) throws IOException {
        try (Ledger ledger = Ledger.open(LedgerOptions.in(data))) {
            ledger.perform(new Act.Define(drafts(), List.of(), Optional.empty()), "test");
        }
    }

    @Test
    void whatIsKeptInAFolderOfManyIsItsOwnersAloneFromTheFirstStart() throws IOException {
        Path data = Files.createDirectory(folder.resolve("shared"));
        Files.setPosixFilePermissions(data, PosixFilePermissions.fromString("rwxr-xr-x"));
        fill(data);
        assertThat(modes(data.resolve("journal"))).containsExactly("rw-------", "rwx------");
        assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(data.resolve("tables"))))
                .isEqualTo("rwx------");
    }

    @Test
    void whatOthersCouldReadIsPutRightAtAStart() throws IOException {
        Path data = folder.resolve("former");
        fill(data);
        Path journal = data.resolve("journal");
        Files.setPosixFilePermissions(journal, PosixFilePermissions.fromString("rwxr-xr-x"));
        Files.setPosixFilePermissions(
                journal.resolve("000000000000000001.jsonl"), PosixFilePermissions.fromString("rw-r--r--"));
        Ledger.open(LedgerOptions.in(data)).close();
        assertThat(modes(journal)).containsExactly("rw-------", "rwx------");
    }

    private static void same(LedgerSnapshot snapshot, LedgerSnapshot other) {
        assertThat(snapshot.organisation()).isEqualTo(other.organisation());
        assertThat(List.copyOf(snapshot.organisation().units().keySet()))
                .as("in the order in which they were written")
                .containsExactly("group", "care")
                .isEqualTo(List.copyOf(other.organisation().units().keySet()));
        assertThat(snapshot.accounts()).isEqualTo(other.accounts());
    }

    @Test
    void numbersKeepWhatTheyWereTakenForAndTheDayIsTheUnits() throws IOException {
        try (Ledger ledger = open()) {
            fill(ledger);
            var act = new Act.Allocate(
                    "m",
                    Optional.empty(),
                    Map.of(),
                    1,
                    Act.Form.SINGLES,
                    Optional.empty(),
                    new Purpose(Optional.of("job"), Optional.of("care")),
                    new RequestMark("ada", Optional.empty(), "digest"));
            assertThat(ledger.perform(act, "ada")).isInstanceOfSatisfying(Outcome.Taken.class, taken -> assertThat(
                            taken.taking().particulars().date())
                    .as("fourteen hours ahead it is the same day still")
                    .isEqualTo(LocalDate.of(2026, 3, 2)));
            EntryQueries.Row row = ledger.read(
                            dsl -> new EntryQueries(dsl).page(Optional.of(List.of("m")), Long.MAX_VALUE, 1))
                    .getFirst();
            assertThat(row.purpose()).isEqualTo(new Purpose(Optional.of("job"), Optional.of("care")));
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isEmpty();
        }
        try (Ledger later = Ledger.open(LedgerOptions.in(folder)
                .withClock(Clock.fixed(NOW.plusSeconds(5 * 3600), ZoneOffset.UTC))
                .withZone(ZoneOffset.UTC))) {
            var act = new Act.Allocate(
                    "m",
                    Optional.empty(),
                    Map.of(),
                    1,
                    Act.Form.SINGLES,
                    Optional.empty(),
                    new Purpose(Optional.empty(), Optional.of("care")),
                    new RequestMark("ada", Optional.empty(), "digest"));
            assertThat(later.perform(act, "ada")).isInstanceOfSatisfying(Outcome.Taken.class, taken -> assertThat(
                            taken.taking().particulars().date())
                    .as("there it is past midnight")
                    .isEqualTo(LocalDate.of(2026, 3, 3)));
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "update organisation_part set definition = replace(definition, '\"READ\"', '\"VOID\"') where sort = 'account'",
                "delete from organisation_part where sort = 'route' and definition is null",
                "insert into organisation_part select sort, name, 99, place, definition from organisation_part where sort = 'unit' and name = 'care'",
                "update entry set purpose = 'job group' where purpose is not null"
            })
    void theAuditFindsWhatTheTablesSayOtherwise(String tampering) throws IOException, SQLException {
        try (Ledger ledger = open()) {
            fill(ledger);
            ledger.perform(
                    new Act.Allocate(
                            "m",
                            Optional.empty(),
                            Map.of(),
                            1,
                            Act.Form.SINGLES,
                            Optional.empty(),
                            new Purpose(Optional.of("job"), Optional.of("care")),
                            new RequestMark("ada", Optional.empty(), "digest")),
                    "ada");
        }
        try (var connection =
                DriverManager.getConnection(LedgerOptions.in(folder).storeUrl(), "tally", "")) {
            assertThat(connection.createStatement().executeUpdate(tampering)).isPositive();
        }
        try (Ledger ledger = open()) {
            assertThat(Audit.of(ledger, Optional.empty(), Head.EMPTY).findings())
                    .isNotEmpty();
        }
    }

    /** What is in a journal is read for ever: a name that changes in the code must not change here. */
    @Test
    void theJournalKeepsItsWords() throws IOException {
        try (Ledger ledger = open()) {
            fill(ledger);
        }
        String journal = Files.readString(
                Files.list(folder.resolve("journal")).sorted().findFirst().orElseThrow());
        assertThat(journal)
                .contains("""
                {"unit":{"key":"care","title":"care","below":"group","code":"care","zone":"Pacific/Kiritimati","version":1}}""")
                .contains("""
                {"kind":{"key":"job","title":"Jobs","fields":[{"name":"number","title":"number","type":"TEXT","required":false},{"name":"size","title":"Size","type":"NUMBER","required":true}],"lines":[{"name":"what","title":"what","type":"TEXT","required":false}],"version":1}}""")
                .contains("""
                {"route":{"kind":"job","unit":"care","when":{"tests":{"size":{"type":"NUMBER","oneOf":[],"from":"10"}}},"series":"m","into":"number","version":1}}""")
                .contains("{\"removes\":\"job in group\"}")
                .contains("""
                {"account":{"name":"ada","title":"Ada","sort":"PERSON","password":"{hash}","closed":false,"grants":[{"right":"ACCESS","scope":{"sort":"ALL","key":""}},{"right":"READ","scope":{"sort":"UNIT","key":"care"}}],"tokens":[{"id":"1","name":"till","hash":"abc","issued":"2026-03-02T09:00:00Z","expires":"2026-12-31","revoked":"2026-03-02T09:00:00Z"}],"version":3}}""");
    }
}
