package org.youngtally.ledger;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.youngtally.core.access.Account;
import org.youngtally.core.access.AccountChange;
import org.youngtally.core.access.Grant;
import org.youngtally.core.access.Right;
import org.youngtally.core.access.Scope;
import org.youngtally.core.access.Token;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Act.Deed;
import org.youngtally.core.act.Drafts;
import org.youngtally.core.act.FileLines;
import org.youngtally.core.act.KeptFile;
import org.youngtally.core.act.LabelStep;
import org.youngtally.core.act.LabelStep.Places;
import org.youngtally.core.act.Period;
import org.youngtally.core.act.PlanStep;
import org.youngtally.core.act.Purpose;
import org.youngtally.core.act.RecordChange;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.act.Selection;
import org.youngtally.core.act.SeriesStanding;
import org.youngtally.core.act.TablePlan;
import org.youngtally.core.codebook.CodebookDraft;
import org.youngtally.core.codebook.CodebookDraft.ChoiceDraft;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.LabelState;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.label.LayoutDraft.AskDraft;
import org.youngtally.core.label.LayoutDraft.ItemDraft;
import org.youngtally.core.label.LayoutDraft.SheetDraft;
import org.youngtally.core.organisation.KindDraft;
import org.youngtally.core.organisation.KindDraft.KindFieldDraft;
import org.youngtally.core.organisation.RouteDraft;
import org.youngtally.core.organisation.RouteDraft.TestDraft;
import org.youngtally.core.organisation.UnitDraft;
import org.youngtally.core.pattern.Particulars;
import org.youngtally.core.record.KeptRecord;
import org.youngtally.core.record.LineOrder;
import org.youngtally.core.series.FieldDraft;
import org.youngtally.core.series.LaneKey;
import org.youngtally.core.series.NamespaceDraft;
import org.youngtally.core.series.RangeDraft;
import org.youngtally.core.series.SeriesDraft;
import org.youngtally.core.series.SeriesProperties;
import org.youngtally.core.series.SkipsDraft;

/**
 * The acts whose journal is kept as a golden one: every kind of entry, every effect, every state of a position, and
 * every property of what is defined. A golden folder never changes. Whoever adds an act or an effect adds a folder,
 * made by acts of its own.
 */
final class GoldenActs {
    private static final LocalDate MARCH = LocalDate.of(2026, 3, 2);

    private final Path data;
    private Instant now = Instant.parse("2026-03-02T09:00:00.000001Z");
    private Ledger ledger;
    private int requests;

    GoldenActs(Path data) {
        this.data = data;
    }

    void perform() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            define();
            give();
            settle();
            close();
            organise();
            keep();
        }
    }

    /** What a later build does in a namespace of the first one: it is compared by another rule. */
    void compare() throws IOException {
        now = now.plusSeconds(3_600);
        requests = 1_000;
        try (Ledger opened = Ledger.open(LedgerOptions.in(data)
                .withClock(() -> now)
                .withZone(ZoneOffset.UTC)
                .withPatience(Duration.ZERO))) {
            ledger = opened;
            done(new Act.Define(
                    Drafts.of(List.of(
                            SeriesDraft.of("measure", "Maẞ{date MM}-{count 3}")
                                    .with(SeriesProperties.NAMESPACE, "shared")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 999))),
                            SeriesDraft.of("begun", "B{count 3}")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 999))))),
                    List.of(),
                    Optional.empty()));
            long first = seq(take("measure", 2, Act.Form.SINGLES));
            done(new Act.Settle(
                    "measure", new Selection.Taken(first), Deed.RETURN, Optional.of("a slip of the pen"), mark()));
            take("measure", 1, Act.Form.SINGLES, MARCH.plusMonths(1), Map.of(), null);
            done(new Act.Define(
                    new Drafts(List.of(new NamespaceDraft("shared", null, null, 2L)), List.of(), List.of()),
                    List.of(),
                    Optional.empty()));
            take("measure", 1, Act.Form.SINGLES, MARCH.plusMonths(1), Map.of(), null);
            take("begun", 1, Act.Form.SINGLES);
        }
    }

    /** Layouts of labels. */
    void layouts() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            layout(new LayoutDraft(
                    "pipe",
                    null,
                    "62",
                    "29.5",
                    null,
                    null,
                    null,
                    List.of(new AskDraft("stop", "Stop “Gamba”")),
                    List.of(item("No. {identifier}", null, null), item(null, "data-matrix", "{identifier}"))));
            layout(new LayoutDraft(
                    "pipe",
                    "Label of a pipe",
                    "62",
                    "29.5",
                    203L,
                    "sheet",
                    new SheetDraft("210", "297", 3L, 8L, "7", "12.9", "2", null),
                    null,
                    List.of(item("No. {identifier}", null, null))));
        }
    }

    /** Jobs of labels, and what becomes of each label. */
    void jobs() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            done(new Act.Define(
                    List.of(SeriesDraft.of("pipe", "P-{count 5}")
                            .with(SeriesProperties.RANGES, List.of(range(1, 99_999)))),
                    Optional.empty()));
            layout(new LayoutDraft(
                    "pipe", null, "62", "29.5", null, null, null, null, List.of(item("{identifier}", null, null))));
            long job = seq(done(new Act.PrintLabels(
                    new LabelJob(
                            "pipe",
                            1,
                            "pipe",
                            MARCH,
                            Optional.of("pipe"),
                            Optional.of("foundry"),
                            Map.of("stop", "Gamba 8′"),
                            Optional.of("c".repeat(64)),
                            6,
                            2,
                            2,
                            Optional.of("ipp://127.0.0.1/ipp/print")),
                    Optional.of(MARCH),
                    List.of(new Act.LabelRow(Map.of(), 2), new Act.LabelRow(Map.of(), 1)),
                    mark())));
            labels(job, new LabelStep.Send(List.of(new Places(0, 7))));
            labels(job, new LabelStep.Note(new Places(0, 4), LabelState.PRINTED));
            labels(job, new LabelStep.Note(new Places(5, 7), LabelState.UNCONFIRMED));
            labels(job, new LabelStep.Confirm(List.of(new Places(5, 5))));
            labels(job, new LabelStep.Reprint(List.of(new Places(6, 7)), Optional.empty()));
            labels(job, new LabelStep.Spoil(List.of(new Places(0, 3)), Optional.of("a wrong stop"), true));
            labels(job, new LabelStep.Spoil(List.of(new Places(4, 4)), Optional.of("torn"), false));
            labels(job, new LabelStep.Cancel(List.of(), Optional.of("not needed")));
            long many = seq(done(new Act.PrintLabels(
                    new LabelJob(
                            "pipe",
                            1,
                            "pipe",
                            MARCH,
                            Optional.empty(),
                            Optional.empty(),
                            Map.of(),
                            Optional.empty(),
                            3_000,
                            1,
                            1,
                            Optional.empty()),
                    Optional.empty(),
                    List.of(new Act.LabelRow(Map.of(), 3_000)),
                    mark())));
            labels(many, new LabelStep.Send(List.of(new Places(0, 99))));
            labels(many, new LabelStep.Cancel(List.of(new Places(200, 299)), Optional.empty()));
            take("pipe", 2, Act.Form.SINGLES);
        }
    }

    /** Items of a document. */
    void documents() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            done(new Act.Define(
                    new Drafts(
                            List.of(),
                            List.of(),
                            List.of(SeriesDraft.of("wire", "W-{count 4}")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 9_999)))),
                            List.of(),
                            List.of(),
                            List.of(),
                            List.of()),
                    List.of(),
                    Optional.empty()));
            long first = ((Outcome.Filled) done(number(0, "1:net K1", "1:net K2", "2:net K3")))
                    .entry()
                    .seq();
            done(number(first, "2:net K4"));
            done(new Act.Settle(
                    "wire", new Selection.Identifiers(List.of("W-0004")), Deed.RETURN, Optional.of("undone"), mark()));
        }
    }

    private Act.NumberDocument number(long after, String... items) {
        return new Act.NumberDocument(
                "wire",
                "console wiring",
                Stream.of(items)
                        .map(item -> new Act.DocumentRow(item, Map.of()))
                        .toList(),
                Optional.of(MARCH),
                after,
                mark());
    }

    /** Labels at a printer, and a company prefix. */
    void printers() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            done(new Act.Define(
                    new Drafts(
                            List.of(),
                            List.of(),
                            List.of(SeriesDraft.of("pipe", "P-{count 5}")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 99_999)))),
                            List.of(
                                    new UnitDraft("group", null, null, null, null, null, "9521234", List.of("foundry")),
                                    new UnitDraft("foundry", null, "group", null, null)),
                            List.of(),
                            List.of(),
                            List.of(new LayoutDraft(
                                    "pipe",
                                    null,
                                    "62",
                                    "29.5",
                                    null,
                                    null,
                                    null,
                                    null,
                                    List.of(item("{identifier}", null, null))))),
                    List.of(),
                    Optional.empty()));
            long job = seq(done(new Act.PrintLabels(
                    new LabelJob(
                            "pipe",
                            1,
                            "pipe",
                            MARCH,
                            Optional.empty(),
                            Optional.empty(),
                            Map.of(),
                            Optional.empty(),
                            6,
                            1,
                            1,
                            Optional.of("ipp://127.0.0.1/labels")),
                    Optional.of(MARCH),
                    List.of(new Act.LabelRow(Map.of(), 6)),
                    mark())));
            labels(job, new LabelStep.Send(List.of(new Places(0, 3)), Optional.of("ipp://127.0.0.1/labels")));
            labels(job, new LabelStep.Note(new Places(0, 1), LabelState.PRINTED));
            labels(
                    job,
                    new LabelStep.Note(new Places(2, 3), LabelState.UNCONFIRMED, Optional.of("broke the connection")));
            labels(job, new LabelStep.Send(List.of(new Places(4, 5)), Optional.of("ipp://127.0.0.1/labels")));
        }
    }

    /** A ledger that goes on after a loss: numbers that are in doubt, some of them settled. */
    void rollback() throws IOException {
        Supplier<LedgerOptions> options =
                () -> LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC);
        try (Ledger opened = Ledger.open(options.get())) {
            ledger = opened;
            done(new Act.Define(
                    List.of(
                            SeriesDraft.of("part", "P-{count 5}")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 99_999))),
                            SeriesDraft.of("other", "Q{count 3}")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 999)))),
                    Optional.empty()));
            take("part", 4, Act.Form.SINGLES);
            take("part", 1, held(3_600));
            done(new Act.Settle(
                    "part",
                    new Selection.Identifiers(List.of("P-00002")),
                    Deed.RETURN,
                    Optional.of("not wanted"),
                    mark()));
        }
        new PossibleRollback("it was restored", 4, Optional.empty()).keep(data);
        try (Ledger opened = Ledger.open(options.get())) {
            ledger = opened;
            LaneKey lane = new LaneKey("part", 1, "");
            done(new Act.StateHighest(
                    "part",
                    1,
                    List.of(new Act.HighestIn(lane, Particulars.on(MARCH), 19)),
                    Optional.of("the last drawing"),
                    mark()));
            done(new Act.StateHighest("other", 1, List.of(), Optional.of("nothing was issued"), mark()));
            now = now.plusMillis(250);
            opened.resume(Optional.of("all is stated"), mark(), "ines", List.of());
            done(new Act.Settle(
                    "part", new Selection.Identifiers(List.of("P-00007")), Deed.USE, Optional.empty(), mark()));
            done(new Act.Settle(
                    "part",
                    new Selection.Through("P-00009", "P-00011"),
                    Deed.VOID,
                    Optional.of("on no paper"),
                    mark()));
            take("part", 2, Act.Form.SINGLES);
        }
    }

    private void labels(long job, LabelStep step) {
        done(new Act.ChangeLabels("pipe", job, step, Purpose.NONE, mark()));
    }

    private void layout(LayoutDraft layout) {
        done(new Act.Define(
                new Drafts(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(layout)),
                List.of(),
                Optional.empty()));
    }

    private static ItemDraft item(String text, String code, String content) {
        return new ItemDraft(
                text, code, null, null, null, "3", null, "20", "20", null, "right", 90L, content, null, null, null,
                null);
    }

    /** What is done about numbers that were in use before. */
    void repair() throws IOException {
        try (Ledger opened =
                Ledger.open(LedgerOptions.in(data).withClock(() -> now).withZone(ZoneOffset.UTC))) {
            ledger = opened;
            done(new Act.Define(
                    List.of(
                            SeriesDraft.of("old", "O{count 4}")
                                    .with(SeriesProperties.TYPED, "allowed")
                                    .with(SeriesProperties.RANGES, List.of(range(1, 9_999))),
                            SeriesDraft.of("voucher", "V-{count 5 safe}")
                                    .with(SeriesProperties.ORDER, "scattered")
                                    .with(SeriesProperties.RANGES, List.of(range(0, 20_000_000))),
                            SeriesDraft.of("old-daily", "D{date yy}-{count 4}")
                                    .with(SeriesProperties.RESTARTS, List.of("year"))
                                    .with(SeriesProperties.CHRONOLOGICAL, true)
                                    .with(SeriesProperties.RANGES, List.of(range(1, 9_999)))),
                    Optional.empty()));
            long first = seq(take("old", 3, Act.Form.SINGLES));
            done(new Act.Settle(
                    "old", new Selection.Taken(first), Deed.RETURN, Optional.of("a slip of the pen"), mark()));
            LaneKey lane = new LaneKey("old", 1, "");
            table(
                    "old",
                    TablePlan.Gaps.KEEP,
                    List.of(
                            inUse(lane, 1, 1, false, 7),
                            inUse(lane, 5, 8, false, 2, 3, 4, 9),
                            inUse(
                                    lane,
                                    20,
                                    2_000,
                                    true,
                                    LongStream.rangeClosed(10, 1_990).toArray())),
                    true);
            done(new Act.Settle(
                    "old",
                    new Selection.Through("O0030", "O0040"),
                    Deed.VOID,
                    Optional.of("they were never used"),
                    mark()));
            table("old", TablePlan.Gaps.KEEP, List.of(inUse(lane, 3_000, 3_000, false, 2)), false);
            LaneKey daily = new LaneKey("old-daily", 1, "2026");
            table(
                    "old-daily",
                    TablePlan.Gaps.CLOSE,
                    List.of(inUse(daily, 2, 3, false, 2, 3), inUse(daily, 9, 9, false, 4)),
                    true);
            done(new Act.Continue(
                    "old-daily", 1, daily, Particulars.on(MARCH), 40, Optional.of("the old book"), mark()));
            ledger.files().keep(new ByteArrayInputStream("{}".getBytes(StandardCharsets.UTF_8)), 100);
        }
    }

    private static PlanStep.InUse inUse(LaneKey lane, long from, long to, boolean together, long... lines) {
        return new PlanStep.InUse(lane, Particulars.on(MARCH), from, to, together, FileLines.of(lines));
    }

    /** @param completed whether it is carried out, and not abandoned */
    private void table(String series, TablePlan.Gaps gaps, List<PlanStep.InUse> stretches, boolean completed) {
        PlanStep.InUse last = stretches.getLast();
        var plan = new TablePlan(
                series,
                1,
                "parts “old”.csv",
                "a".repeat(64),
                "b".repeat(64),
                gaps,
                Map.of(last.lane(), last.to() + 1),
                stretches.stream()
                        .mapToLong(stretch -> stretch.to() - stretch.from() + 1)
                        .sum(),
                stretches.size(),
                completed ? 3 : 0);
        String standing = SeriesStanding.of(
                ledger.snapshot().counters(), ledger.snapshot().series().get(series));
        long seq = seq(carry(series, new PlanStep.Begin(plan, standing, Optional.of("the old list"))));
        take(series, 1, Act.Form.SINGLES);
        carry(series, new PlanStep.Record(seq, 0, stretches.subList(0, 1)));
        if (stretches.size() > 1) carry(series, new PlanStep.Record(seq, 1, stretches.subList(1, stretches.size())));
        if (gaps == TablePlan.Gaps.CLOSE) carry(series, new PlanStep.CloseGaps(seq));
        if (completed) done(new Act.NumberRows(series, seq, 0, List.of(new Act.PlanRow(MARCH, Map.of(), 3)), mark()));
        carry(series, completed ? new PlanStep.Complete(seq) : new PlanStep.Abandon(seq, Optional.of("another file")));
    }

    private Outcome<?> carry(String series, PlanStep step) {
        return done(new Act.CarryOut(series, step, mark()));
    }

    private Outcome<?> done(Act<?> act) {
        now = now.plusMillis(250);
        Outcome<?> outcome = ledger.perform(act, "ines");
        if (outcome instanceof Outcome.Refused<?> refused)
            throw new IllegalStateException(act + " was refused: " + refused.refusal());
        return outcome;
    }

    private RequestMark mark() {
        return new RequestMark(
                "ines", requests++ % 2 == 0 ? Optional.of("key-" + requests) : Optional.empty(), "digest-" + requests);
    }

    private static RangeDraft range(long first, long last) {
        return new RangeDraft(first, last, null, "2026-01-01", null, null);
    }

    private static KindFieldDraft field(String name, String type) {
        return new KindFieldDraft(name, null, type, null, null, null);
    }

    private void define() {
        var book = new CodebookDraft(
                "part",
                "Parts of an organ",
                List.of(
                        new ChoiceDraft(
                                "Wind-chest",
                                "WC",
                                null,
                                List.of(
                                        new ChoiceDraft("Pallet", "PL", null, null),
                                        new ChoiceDraft("Slider", "SL", true, null))),
                        new ChoiceDraft("Case", "CS", null, null)));
        var series = List.of(
                SeriesDraft.of("plain", "A{count 3}")
                        .with(SeriesProperties.TITLE, "Plain “quoted” \\ — ü 𝄞")
                        .with(SeriesProperties.TYPED, "allowed")
                        .with(
                                SeriesProperties.RANGES,
                                List.of(
                                        new RangeDraft(1L, 399L, null, "2026-01-01", "2026-12-31", 50L, 30L),
                                        new RangeDraft(900L, 500L, -2L, "2026-01-01", "2026-12-31", null))),
                SeriesDraft.of("late", "X{count 4}/{date MM}")
                        .with(SeriesProperties.NAMESPACE, "shared")
                        .with(SeriesProperties.RANGES, List.of(range(1, 999))),
                SeriesDraft.of("yearly", "Y{date yy}-{count 5}")
                        .with(SeriesProperties.RESTARTS, List.of("year"))
                        .with(SeriesProperties.CHRONOLOGICAL, true)
                        .with(SeriesProperties.RETURNS, "refused")
                        .with(SeriesProperties.RANGES, List.of(range(1, 99_999))),
                SeriesDraft.of("loose", "L{count 4}{check gs1}")
                        .with(SeriesProperties.GAPS, "allowed")
                        .with(SeriesProperties.LONGEST, 12L)
                        .with(SeriesProperties.SYMBOLS, "upper digits")
                        .with(SeriesProperties.RANGES, List.of(range(1, 9_999))),
                SeriesDraft.of("part", "{field group}-{field type}-{count 3}")
                        .with(
                                SeriesProperties.FIELDS,
                                List.of(
                                        new FieldDraft("group", "part", null, null, null),
                                        new FieldDraft("type", null, "group", null, null)))
                        .with(SeriesProperties.RESTARTS, List.of("field group"))
                        .with(SeriesProperties.RANGES, List.of(range(1, 999))),
                SeriesDraft.of("client", "{field name unaccented first 3 upper pad 3 X}{count 4}")
                        .with(SeriesProperties.FIELDS, List.of(new FieldDraft("name", null, null, 3L, "upper")))
                        .with(SeriesProperties.RESTARTS, List.of("field name"))
                        .with(SeriesProperties.RANGES, List.of(range(1, 9_999))),
                SeriesDraft.of("monthly", "M{count 4} {date MMM yyyy}")
                        .with(SeriesProperties.LOCALE, "de")
                        .with(SeriesProperties.FISCAL_YEAR_STARTS, 4L)
                        .with(SeriesProperties.PROOF, "waived")
                        .with(SeriesProperties.RANGES, List.of(range(1, 9_999))),
                SeriesDraft.of("seat", "S{count 3}")
                        .with(SeriesProperties.SKIPS, new SkipsDraft(List.of("4-5"), List.of("13")))
                        .with(SeriesProperties.RANGES, List.of(range(1, 999))),
                SeriesDraft.of("voucher", "V-{count 5 safe}")
                        .with(SeriesProperties.ORDER, "scattered")
                        .with(SeriesProperties.RANGES, List.of(range(0, 20_000_000))),
                SeriesDraft.of("mark", "{count upper}")
                        .with(SeriesProperties.NAMESPACE, "marks")
                        .with(SeriesProperties.ORDER, "repeating")
                        .with(SeriesProperties.RANGES, List.of(range(1, 3))),
                SeriesDraft.of("job", "J{unit}-{count 4}")
                        .with(SeriesProperties.FIELDS, List.of(new FieldDraft("unit", null, null, 4L, "upper")))
                        .with(SeriesProperties.RANGES, List.of(range(1, 9_999))));
        var fields = List.of(
                field("number", null),
                new KindFieldDraft("name", "Name", null, null, null, true, null, null, null),
                field("dated", "date"),
                new KindFieldDraft("group", null, "choice", "part", null, null, true, null, null),
                new KindFieldDraft("part", null, "choice", null, "group", null),
                field("size", "number"),
                field("urgent", "yes-no"),
                new KindFieldDraft("group-name", null, null, null, null, null, null, "group", null),
                field("tax", null),
                field("remark", null));
        var kind = new KindDraft(
                "job",
                "Jobs",
                fields,
                List.of(field("what", null)),
                List.of("tax"),
                List.of("name"),
                "return",
                "dated",
                10L);
        var routes = List.of(
                new RouteDraft("job", "group", null, "job", null),
                new RouteDraft("job", "care", Map.of("size", new TestDraft(null, "10", null)), "late", null),
                new RouteDraft(
                        "job",
                        "care",
                        Map.of(
                                "group",
                                new TestDraft(List.of("WC", "CS"), null, null),
                                "size",
                                new TestDraft(null, null, "9")),
                        "plain",
                        null));
        var units = List.of(
                new UnitDraft("group", "The group", null, "GR", null),
                new UnitDraft("care", null, "group", "CR", "Pacific/Kiritimati"));
        done(new Act.Define(
                new Drafts(
                        List.of(
                                new NamespaceDraft("marks", "Marks", "allowed", null),
                                new NamespaceDraft("shared", null, null, null)),
                        List.of(book),
                        series,
                        units,
                        List.of(kind),
                        routes),
                List.of(new KeptFile("all.yaml", "# kept as it was\nseries: []\n")),
                Optional.empty()));
        done(new Act.Define(
                Drafts.of(List.of(SeriesDraft.of("yearly", "Y{date yy}-{count 5}")
                        .with(SeriesProperties.TITLE, "A second version")
                        .with(SeriesProperties.RESTARTS, List.of("year"))
                        .with(SeriesProperties.CHRONOLOGICAL, true)
                        .with(SeriesProperties.RETURNS, "refused")
                        .with(SeriesProperties.RANGES, List.of(range(1, 99_999))))),
                List.of(),
                Optional.of(1)));
    }

    private Outcome<?> take(
            String series, long quantity, Act.Form form, LocalDate date, Map<String, String> fields, String reference) {
        return done(new Act.Allocate(
                series, Optional.ofNullable(date), fields, quantity, form, Optional.ofNullable(reference), mark()));
    }

    private Outcome<?> take(String series, long quantity, Act.Form form) {
        return take(series, quantity, form, MARCH, Map.of(), null);
    }

    private static long seq(Outcome<?> outcome) {
        return switch (outcome) {
            case Outcome.Settled settled -> settled.entry().seq();
            case Outcome.Labelled labelled -> labelled.entry().seq();
            default -> ((Outcome.Taken) outcome).taking().seq();
        };
    }

    private static Act.Form held(long seconds) {
        return new Act.Form.Held(Duration.ofSeconds(seconds));
    }

    private void give() {
        take("plain", 1, Act.Form.SINGLES);
        take("plain", 4, Act.Form.SINGLES, MARCH, Map.of(), "ORDER-1");
        take("plain", 1, new Act.Form.Typed("A007"));
        take("plain", 3, Act.Form.SINGLES);
        take("plain", 1, held(3_600), MARCH, Map.of(), "DRAFT-7");
        take("plain", 2, held(3_600));
        take("yearly", 1, Act.Form.SINGLES, LocalDate.of(2026, 12, 31), Map.of(), null);
        take("yearly", 1, Act.Form.SINGLES, LocalDate.of(2027, 1, 1), Map.of(), null);
        take("loose", 6, Act.Form.SINGLES);
        take("part", 2, Act.Form.SINGLES, MARCH, Map.of("group", "Wind-chest", "type", "Pallet"), null);
        take("client", 1, Act.Form.SINGLES, MARCH, Map.of("name", "Öhler"), null);
        take("monthly", 1, Act.Form.SINGLES);
        take("seat", 14, Act.Form.SINGLES);
        take("voucher", 3, Act.Form.SINGLES);
        take("voucher", 5_000, new Act.Form.Block(Optional.of("till")));
        take("mark", 4, Act.Form.SINGLES);
        done(new Act.Allocate(
                "job",
                Optional.empty(),
                Map.of("unit", "CR"),
                1,
                Act.Form.SINGLES,
                Optional.of("J-1"),
                new Purpose(Optional.of("job"), Optional.of("care")),
                mark()));
    }

    private void settle(String series, Deed deed, Selection selection) {
        done(new Act.Settle(series, selection, deed, Optional.of("a reason"), mark()));
    }

    private static Selection one(String... texts) {
        return new Selection.Identifiers(List.of(texts));
    }

    private void settle() {
        settle("plain", Deed.CONFIRM, new Selection.Reference("DRAFT-7"));
        settle("plain", Deed.RELEASE, one("A011"));
        settle("plain", Deed.VOID, new Selection.Reference("ORDER-1"));
        settle("plain", Deed.RETURN, one("A008"));
        take("plain", 1, held(2));
        take("loose", 2, held(2));
        String waiting = Acts.identifiers(take("loose", 2, held(60))).getFirst();
        List<String> unused = Acts.identifiers(take("loose", 3, Act.Form.SINGLES));
        now = now.plusSeconds(4);
        done(new Act.Lapse(now));
        settle("loose", Deed.RELEASE, one(waiting));
        settle("loose", Deed.RETURN, new Selection.Through(unused.getFirst(), unused.getLast()));
        long block = seq(take("plain", 50, new Act.Form.Block(Optional.of("foundry"))));
        settle("plain", Deed.USE, new Selection.Through("A013", "A017"));
        done(new Act.Split(block, 10, Optional.of("label printer"), mark()));
        settle("plain", Deed.RETURN, new Selection.Taken(block));
        take("late", 3, Act.Form.SINGLES, LocalDate.of(2026, 1, 10), Map.of(), null);
        settle("late", Deed.RETURN, one("X0002/01"));
        take("late", 1, Act.Form.SINGLES, LocalDate.of(2026, 2, 10), Map.of(), null);
        settle("late", Deed.RETURN, one("X0003/01"));
    }

    private void close() {
        var january = new Period(Period.Scope.SERIES, "late", LocalDate.of(2026, 1, 1), LocalDate.of(2026, 1, 31));
        long closing = ((Outcome.Settled) done(new Act.Close(january, Optional.of("January"), mark())))
                .entry()
                .seq();
        done(new Act.Reopen(closing, Optional.of("one was forgotten"), mark()));
        done(new Act.Close(
                new Period(Period.Scope.NAMESPACE, "shared", LocalDate.of(2026, 1, 1), LocalDate.of(2026, 1, 31)),
                Optional.empty(),
                mark()));
    }

    private void account(String name, AccountChange change) {
        done(new Act.ChangeAccount(name, change, "a change of " + name, mark()));
    }

    private void organise() {
        account(
                "ada",
                new AccountChange.Open(
                        "Ada",
                        Account.Sort.PERSON,
                        Optional.of("{bcrypt}made-up"),
                        List.of(
                                new Grant(Right.ACCESS, Scope.ALL),
                                new Grant(Right.READ, Scope.unit("care")),
                                new Grant(Right.VOID, Scope.kind("job")),
                                new Grant(Right.DEFINE, Scope.series("plain")))));
        account("till", new AccountChange.Open("The till", Account.Sort.PROGRAM, Optional.empty(), List.of()));
        account("till", new AccountChange.Give(List.of(new Grant(Right.ALLOCATE, Scope.kind("job")))));
        account(
                "till",
                new AccountChange.Issue(
                        new Token("1", "till", "0123abcd", now, LocalDate.of(2026, 12, 31), Optional.empty())));
        account("till", new AccountChange.Revoke("1", now));
        account("till", new AccountChange.Withdraw(List.of(new Grant(Right.ALLOCATE, Scope.kind("job")))));
        account("ada", new AccountChange.NewPassword("{bcrypt}another", now, Optional.empty()));
        account("till", new AccountChange.Close());
        account("till", new AccountChange.Reopen());
        done(new Act.RemoveRoute("job in care when size=10..", Optional.of(1)));
    }

    private KeptRecord change(long record, RecordChange change) {
        return ((Outcome.Recorded) done(new Act.ChangeRecord(record, "group", change, Optional.empty(), mark())))
                .record();
    }

    private static LineOrder.Wanted line(String what) {
        return new LineOrder.Wanted(Optional.empty(), Map.of("what", what));
    }

    private void keep() {
        var values = Map.of(
                "name",
                "Marrow Town Band",
                "dated",
                "2026-03-01",
                "group",
                "Wind-chest",
                "part",
                "Pallet",
                "size",
                "42.50",
                "urgent",
                "yes",
                "tax",
                "T-1");
        long record = ((Outcome.Recorded) done(new Act.SaveRecord(
                        "job",
                        "group",
                        values,
                        List.of(line("tune"), line("clean")),
                        Optional.empty(),
                        Optional.empty(),
                        "job",
                        mark())))
                .record()
                .id();
        done(new Act.SaveRecord(
                "job",
                "group",
                Map.of("name", "Slider"),
                List.of(),
                Optional.empty(),
                Optional.empty(),
                "job",
                mark()));
        change(
                record,
                new RecordChange.Edit(
                        Map.of("name", "Marrow Town Band", "remark", "twice over"),
                        Optional.of(List.of(line("tune"), line("mend"), line("clean")))));
        change(record, new RecordChange.Fix());
        change(record, new RecordChange.Attach(attached()));
        change(record, new RecordChange.Renumber(Optional.of("counted wrongly"), Optional.empty(), "job"));
        done(new Act.ChangeRecord(
                record, "care", new RecordChange.TakeOver(Map.of("remark", "by care")), Optional.empty(), mark()));
        change(2, new RecordChange.Delete(Optional.of("twice")));
        done(new Act.FillTable(
                "job",
                "group",
                List.of(Map.of("name", "one"), Map.of("name", "two"), Map.of("name", "three", "dated", "2026-02-01")),
                Optional.empty(),
                Set.of("job"),
                mark()));
    }

    private KeptRecord.Attached attached() {
        try {
            Attachments.Kept kept =
                    ledger.files().keep(new ByteArrayInputStream("a plan".getBytes(StandardCharsets.UTF_8)), 100);
            return new KeptRecord.Attached("txt", kept.size(), kept.digest());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
