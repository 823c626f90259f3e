package org.youngtally.service.api;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import org.springframework.stereotype.Component;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Decision;
import org.youngtally.core.act.Refusal;
import org.youngtally.core.act.Refusal.DraftFaults;
import org.youngtally.core.act.Refusal.What;
import org.youngtally.core.act.RequestMark;
import org.youngtally.core.label.KeptLayout;
import org.youngtally.core.label.LabelJob;
import org.youngtally.core.label.Layout;
import org.youngtally.core.label.Layout.Advance;
import org.youngtally.core.label.LayoutCheck;
import org.youngtally.core.label.LayoutDraft;
import org.youngtally.core.text.NearestName;
import org.youngtally.ledger.Ledger;
import org.youngtally.printers.PrinterAddress;
import org.youngtally.service.access.Caller;
import org.youngtally.service.api.LabelController.LabelFault;
import org.youngtally.service.api.LabelController.LabelRequest;
import org.youngtally.service.api.LabelNumbering.Wanted;
import org.youngtally.service.definitions.DefinitionFile;
import org.youngtally.service.label.ExpectedNumbers;
import org.youngtally.service.label.FieldRows;
import org.youngtally.service.label.FieldTable;
import org.youngtally.service.label.FieldTables;
import org.youngtally.service.label.LabelRun;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.web.Refusals.DefinitionFault;

/** Finds what labels are drawn from: their layout, their series, and the numbers that it would allocate. */
@Component
class LabelPreparation {
    /** What a layout that is sent is called as a file. */
    private static final String WRITTEN = "definition";

    private static final long MOST_LABELS = 1_000_000;
    /** The most that are drawn for one answer. */
    static final int MOST_DRAWN = 20_000;

    private static final int MOST_COPIES = 100;

    private static final int MOST_MISSING = 50;

    private final Ledger ledger;
    private final FieldTables tables;

    LabelPreparation(Ledger ledger, FieldTables tables) {
        this.ledger = ledger;
        this.tables = tables;
    }

    /**
     * A run of labels with its numbers.
     *
     * @param wanted what would be allocated
     * @param missing fields that are asked for and have no value
     * @param version of the layout; 0 for one that is not applied
     * @param file in which the layout is written; absent for one that is applied
     */
    record Prepared(
            LabelRun run,
            Wanted wanted,
            Optional<String> table,
            ExpectedNumbers numbers,
            List<LabelFault> missing,
            int version,
            Optional<DefinitionFile> file) {
        String identifier(long label) {
            return numbers.identifier(run.identifierOf(label));
        }

        /** What prints them. */
        Act.PrintLabels print(RequestMark mark, Optional<PrinterAddress> printer) {
            var job = new LabelJob(
                    run.layout().key(),
                    version,
                    wanted.series().key(),
                    run.date(),
                    wanted.purpose().kind(),
                    wanted.purpose().unit(),
                    run.fields(),
                    table,
                    run.labels(),
                    run.labels() / run.identifiers(),
                    run.copies(),
                    printer.map(PrinterAddress::toString));
            return new Act.PrintLabels(job, wanted.date(), wanted.rows(), mark);
        }

        Problem problem(Refusal refusal) {
            return LabelPreparation.problem(
                    refusal,
                    run.rows().map(rows -> run.identifiers() / rows.size()).orElse(1L));
        }

        /** The line of an item of the layout, where it is written. */
        Integer line(String path) {
            return file.map(each -> each.line(What.LAYOUT, 0, path)).orElse(null);
        }
    }

    /**
     * Finds the layout, the series and the numbers that are expected.
     *
     * @param right that it takes
     * @throws Problem where one of them is missing or cannot be
     */
    Prepared of(LabelRequest request, Right right, Caller caller) {
        if ((request.layout() == null) == (request.definition() == null))
            throw new Problem(
                            Type.MALFORMED,
                            request.layout() == null
                                    ? "No layout is named."
                                    : "A layout is named, and a definition sent with it.")
                    .field("layout", "the key of a layout; or, as definition, the text of a file with one");
        Optional<DefinitionFile> file =
                Optional.ofNullable(request.definition()).map(LabelPreparation::written);
        KeptLayout kept = file.map(
                        each -> new KeptLayout(each.drafts().layouts().getFirst(), 0))
                .orElseGet(() -> kept(request.layout(), caller));
        Layout layout = checked(kept.draft(), file);
        Optional<FieldTable> table = Optional.ofNullable(request.table()).map(this::table);
        if (table.isPresent() && layout.advance() == Advance.SHEET)
            throw new Problem(Type.MALFORMED, "This layout advances with each sheet, and prints no tables.")
                    .field("table", "a layout that advances with each row or each label");
        long rows = table.map(all -> (long) all.rows().size()).orElse(1L);
        long quantity = request.quantity() == null ? 1 : request.quantity();
        int copies = request.copies() == null ? 1 : request.copies();
        if (copies < 1 || copies > MOST_COPIES)
            throw new Problem(Type.MALFORMED, copies + " copies of a label are not made.")
                    .field("copies", "1 to " + MOST_COPIES);
        long most = MOST_LABELS / copies / rows / LabelRun.labels(layout, 1);
        if (quantity < 1 || quantity > most)
            throw new Problem(Type.QUANTITY, "More than %,d labels are not printed at once.".formatted(MOST_LABELS))
                    .field("quantity", most < 1 ? "fewer copies" : "1 to %,d with these copies".formatted(most));
        SortedMap<String, String> given =
                Requests.fields(request.fields(), request.series() == null ? null : request.unit());
        boolean alike = layout.advance() == Advance.JOB || layout.advance() == Advance.ROW && table.isPresent();
        var numbering = new LabelNumbering(request, layout, given, table, alike ? 1 : quantity, right, caller);
        Wanted wanted = numbering.wanted();
        ExpectedNumbers numbers =
                expected(wanted, kept, Optional.ofNullable(request.table()), alike ? 1 : quantity, caller);
        long labels = table.isPresent() ? rows * quantity : LabelRun.labels(layout, quantity);
        var run = new LabelRun(
                layout,
                wanted.quantity(),
                labels,
                copies,
                numbers.date(),
                wanted.purpose().unit(),
                given,
                numbering.rows(wanted, labels));
        return new Prepared(
                run, wanted, table.map(each -> request.table()), numbers, missing(run, numbers), kept.version(), file);
    }

    private FieldTable table(String digest) {
        return tables.at(digest).orElseThrow(() -> new Problem(Type.TABLE_FAULTY, "Table ‘" + digest + "’ not found.")
                .field("table", "what the answer calls the table that was sent"));
    }

    private ExpectedNumbers expected(
            Wanted wanted, KeptLayout layout, Optional<String> table, long perRow, Caller caller) {
        return switch (ledger.decide(caller.snapshot(), act(wanted, layout, table))) {
            case Decision.Done done -> new ExpectedNumbers(wanted.series(), caller.snapshot(), done.effects());
            case Decision.Refused refused -> throw problem(refused.refusal(), perRow);
            case Decision.Repeated repeated -> throw new IllegalStateException("a preview has no key");
            case Decision.Known known -> throw new IllegalStateException("a preview keeps no record");
        };
    }

    /** What would allocate the numbers; for rows with different fields that is the print itself. */
    private static Act<?> act(Wanted wanted, KeptLayout layout, Optional<String> table) {
        RequestMark mark = Requests.unmarked();
        if (wanted.rows().size() == 1) {
            Act.LabelRow only = wanted.rows().getFirst();
            return new Act.Allocate(
                    wanted.series().key(),
                    wanted.date(),
                    only.fields(),
                    only.quantity(),
                    Act.Form.ofLabels(wanted.series(), only.quantity()),
                    Optional.empty(),
                    wanted.purpose(),
                    mark);
        }
        if (layout.version() == 0)
            throw new Problem(Type.MALFORMED, "The rows of a table are shown on a layout that is applied.")
                    .field("table", "apply the layout, and name it as layout");
        var job = new LabelJob(
                layout.draft().key(),
                layout.version(),
                wanted.series().key(),
                LocalDate.EPOCH,
                wanted.purpose().kind(),
                wanted.purpose().unit(),
                Map.of(),
                table,
                wanted.quantity(),
                1,
                1,
                Optional.empty());
        return new Act.PrintLabels(job, wanted.date(), wanted.rows(), mark);
    }

    /** @param perRow how many numbers each row of a table has, by which the refusal counts */
    private static Problem problem(Refusal refusal, long perRow) {
        return Refusals.problem(
                refusal instanceof Refusal.RowFaulty faulty
                        ? new Refusal.RowFaulty((int) (faulty.row() / perRow), faulty.refusal())
                        : refusal);
    }

    /** What is asked for and has no value: for all labels, or for those of some rows. */
    private static List<LabelFault> missing(LabelRun run, ExpectedNumbers numbers) {
        var missing = new ArrayList<LabelFault>();
        for (Layout.Asked asked : run.layout().asked()) {
            if (!run.fields().getOrDefault(asked.name(), "").isBlank()) continue;
            Optional<FieldRows> rows = run.rows().filter(all -> all.columns().containsKey(asked.name()));
            long labels = rows.isPresent() ? run.labels() : 1;
            long each = rows.map(FieldRows::each).orElse(1L);
            for (long label = 0; label < labels && missing.size() < MOST_MISSING; label += each)
                if (rows.isEmpty() || !rows.get().values(label).containsKey(asked.name()))
                    missing.add(missing(run, label, asked, numbers));
        }
        return missing;
    }

    private static LabelFault missing(LabelRun run, long label, Layout.Asked asked, ExpectedNumbers numbers) {
        boolean tabled = run.rows().isPresent();
        String where = run.rows()
                .filter(rows -> rows.columns().containsKey(asked.name()))
                .map(rows -> " in row " + (label / rows.each() + 1))
                .orElse(tabled ? ", nor has the table such a column" : "");
        return new LabelFault(
                label + 1,
                numbers.identifier(run.identifierOf(label)),
                "fields." + asked.name(),
                "(" + asked.title() + ") is asked for, and has no value" + where,
                "a value for " + asked.name() + (tabled ? ", or a column ‘" + asked.name() + "’" : ""),
                null);
    }

    /** The layout that is applied under a key. */
    static KeptLayout kept(String layout, Caller caller) {
        Map<String, KeptLayout> layouts = caller.snapshot().organisation().layouts();
        return Optional.ofNullable(layouts.get(layout)).orElseThrow(() -> new Problem(
                        Type.UNKNOWN_LAYOUT,
                        "Layout ‘" + layout + "’ not found."
                                + NearestName.to(layout, layouts.keySet())
                                        .map(near -> " Did you mean ‘" + near + "’?")
                                        .orElse(""))
                .field("layout", "a layout that is applied"));
    }

    /** A definition file that holds one layout, and nothing else that matters. */
    private static DefinitionFile written(String text) {
        DefinitionFile file = DefinitionFile.read(WRITTEN, text);
        if (!file.faults().isEmpty()) throw Refusals.definitionsFaulty(file.faults());
        int layouts = file.drafts().layouts().size();
        if (layouts != 1)
            throw new Problem(Type.MALFORMED, "The definition holds " + layouts + " layouts.")
                    .field("definition", "layouts: and one layout");
        return file;
    }

    static Layout checked(LayoutDraft draft, Optional<DefinitionFile> file) {
        LayoutCheck.Result checked = LayoutCheck.of(draft);
        if (checked.layout().isPresent()) return checked.layout().get();
        var faults = new DraftFaults(What.LAYOUT, 0, String.valueOf(draft.key()), checked.faults(), Optional.empty());
        throw Refusals.definitionsFaulty(checked.faults().stream()
                .map(fault -> DefinitionFault.of(
                        file.map(DefinitionFile::name).orElse(null),
                        file.map(each -> each.line(What.LAYOUT, 0, fault.path()))
                                .orElse(null),
                        faults,
                        fault))
                .toList());
    }
}
