package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.core.act.Act;
import org.youngtally.core.act.Answer;
import org.youngtally.core.organisation.Kind;
import org.youngtally.core.organisation.SeriesAssignment;
import org.youngtally.core.organisation.Unit;
import org.youngtally.core.text.Comparison;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Table;
import org.youngtally.ledger.Ledger;
import org.youngtally.ledger.Outcome;
import org.youngtally.ledger.store.EntryQueries;
import org.youngtally.ledger.store.EntryQueries.Referenced;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.table.KeyedRows;
import org.youngtally.service.table.TableRows;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.web.Refusals;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Lists that are edited elsewhere and kept numbered: each row is known by its key, wherever it stands. */
@RestController
@RequestMapping(Api.V1)
class ListController {
    private static final int MOST_BYTES = 50_000_000;
    private static final int LONGEST_LIST = 60;

    private final Ledger ledger;
    private final HeavyWork work;

    ListController(Ledger ledger, HeavyWork work) {
        this.ledger = ledger;
        this.work = work;
    }

    /**
     * A list after its new rows were numbered.
     *
     * @param list its name
     * @param column of the numbers
     * @param numbered rows without a number in the list, in the order of the lines
     * @param kept how many rows have their number already
     * @param gone rows that were in the list before; each keeps its number
     * @param conflicts rows with the number of another row
     * @param faults rows that cannot be numbered
     */
    record ListView(
            String list,
            String column,
            List<NumberedRow> numbered,
            long kept,
            List<GoneRow> gone,
            List<ConflictingRow> conflicts,
            List<FaultyRow> faults) {}

    /**
     * @param line of the file, from 1
     * @param key of the row
     * @param known whether the row had the number before, and lost it in the list
     */
    record NumberedRow(int line, String key, String identifier, boolean known) {}

    /** @param key of a row that is not in the list */
    record GoneRow(String key, String identifier) {}

    /**
     * @param line of the file, from 1
     * @param key of the row
     * @param identifier that is in the list
     * @param own the number of the row itself, if it has one
     * @param otherKey the key of the row that the number in the list belongs to, if it belongs to one
     */
    record ConflictingRow(
            int line,
            String key,
            String identifier,
            @Nullable String own,
            @Nullable String otherKey) {}

    /**
     * @param line of the file, from 1
     * @param key of the row; absent where it has none
     * @param problem what is wrong, in words
     * @param accepted what would be accepted
     */
    record FaultyRow(
            int line,
            @Nullable String key,
            String problem,
            @Nullable String accepted) {}

    @Takes(value = MOST_BYTES, file = true)
    @PostMapping("/kinds/{kind}/lists")
    @Needs(value = Right.ALLOCATE, at = At.REQUEST)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "numberList",
            summary =
                    "Number the new rows of a list whose rows are known by a key. A row keeps its number whatever its place and its other cells; the reference of each number is the list and the key, so that a repeated request allocates nothing twice")
    ListView number(
            @PathVariable String kind,
            @Parameter(description = "The name of the list; keys are unique within it") @RequestParam String list,
            @Parameter(description = "The unit of the rows") @RequestParam String unit,
            @Parameter(description = "The file's name: .csv or .xlsx") @RequestParam String name,
            @Parameter(description = "The column of the keys") @RequestParam String keyColumn,
            @Parameter(
                            description =
                                    "The column of the numbers; default: the one with the name or title of the field that receives them")
                    @RequestParam(required = false)
                    String column,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request)
            throws IOException {
        Kind of = RecordSeries.kind(caller.snapshot(), kind);
        Unit in = RecordSeries.unit(caller.snapshot(), unit);
        Set<String> series = TableController.series(caller, of, in);
        String listed = Requests.name("list", list).orElseThrow();
        if (listed.length() > LONGEST_LIST || listed.indexOf(':') >= 0)
            throw new Problem(Type.MALFORMED, "‘" + listed + "’ is not a name for a list.")
                    .field("list", "up to " + LONGEST_LIST + " symbols, no colon among them");
        try (HeavyWork.Place place = work.enter(Sort.TABLE, caller.name())) {
            byte[] bytes = Requests.file(request).readAllBytes();
            Table.Format format = Table.Format.of(name);
            Table table = place.run(() -> Table.read(format, bytes));
            KeyedRows keyed = place.run(() -> KeyedRows.of(table, keyColumn));
            TableRows rows = place.run(() -> TableRows.of(
                    table,
                    of,
                    column,
                    RecordSeries.placing(caller.snapshot()).filled(of),
                    TableController.targets(caller.snapshot(), of)));
            var numbering = new Numbering(caller, of, in, series, listed);
            return numbering.of(table, keyed, rows);
        } catch (UnreadableDocument e) {
            throw new Problem(Type.TABLE_FAULTY, e.getMessage() + ".").field("body", e.accepted());
        }
    }

    /** Goes through the rows of a list. */
    private final class Numbering {
        private final Caller caller;
        private final Kind kind;
        private final Unit unit;
        private final Set<String> series;
        private final String list;
        private final Map<String, Referenced> known = new LinkedHashMap<>();
        private final Map<String, String> keysByNumber = new HashMap<>();
        private final List<NumberedRow> numbered = new ArrayList<>();
        private final List<ConflictingRow> conflicts = new ArrayList<>();
        private final List<FaultyRow> faults = new ArrayList<>();
        private long kept;

        Numbering(Caller caller, Kind kind, Unit unit, Set<String> series, String list) {
            this.caller = caller;
            this.kind = kind;
            this.unit = unit;
            this.series = series;
            this.list = list;
            for (Referenced each : ledger.read(dsl -> new EntryQueries(dsl).referencesFrom(list + ":", series))) {
                String key = each.reference().substring(list.length() + 1);
                known.put(Comparison.OF_NAMES.key(key), each);
                keysByNumber.put(Comparison.OF_NAMES.key(each.identifier()), key);
            }
        }

        ListView of(Table table, KeyedRows keyed, TableRows rows) {
            for (int line : keyed.withoutKey())
                if (rows.blank().containsKey(line))
                    faults.add(new FaultyRow(line, null, "The row has no key", "a text in the column of the keys"));
            keyed.keys().forEach((line, key) -> {
                String number = rows.given().get(line);
                if (number != null) given(line, key, number);
                else blank(line, key, rows.blank().getOrDefault(line, Map.of()));
            });
            var gone = new ArrayList<GoneRow>();
            Set<String> present = new HashSet<>();
            keyed.keys().values().forEach(key -> present.add(Comparison.OF_NAMES.key(key)));
            known.forEach((key, each) -> {
                if (!present.contains(key))
                    gone.add(new GoneRow(each.reference().substring(list.length() + 1), each.identifier()));
            });
            return new ListView(list, table.columns().get(rows.column()), numbered, kept, gone, conflicts, faults);
        }

        /** A number that is there already must be the row's own. */
        private void given(int line, String key, String number) {
            Referenced own = known.get(Comparison.OF_NAMES.key(key));
            String owner = keysByNumber.get(Comparison.OF_NAMES.key(number));
            boolean others = owner != null && !Comparison.OF_NAMES.key(owner).equals(Comparison.OF_NAMES.key(key));
            boolean another =
                    own != null && !Comparison.OF_NAMES.key(own.identifier()).equals(Comparison.OF_NAMES.key(number));
            if (others || another)
                conflicts.add(new ConflictingRow(
                        line, key, number, own == null ? null : own.identifier(), others ? owner : null));
            else kept++;
        }

        private void blank(int line, String key, Map<String, String> values) {
            Referenced own = known.get(Comparison.OF_NAMES.key(key));
            if (own != null) {
                numbered.add(new NumberedRow(line, key, own.identifier(), true));
                return;
            }
            try {
                numbered.add(new NumberedRow(line, key, allocated(key, values), false));
            } catch (Problem problem) {
                faults.add(new FaultyRow(
                        line, key, problem.getMessage(), problem.accepted().orElse(null)));
            }
        }

        private String allocated(String key, Map<String, String> values) {
            SeriesAssignment.Assigned placed = RecordSeries.of(caller.snapshot(), kind, unit, values, Map.of());
            caller.need(Right.ALLOCATE, RecordSeries.where(placed));
            var act = new Act.Allocate(
                    placed.route().series(),
                    placed.kind().keeping().datedBy().map(placed.values()::get).map(LocalDate::parse),
                    placed.given(),
                    1,
                    Act.Form.SINGLES,
                    Optional.of(list + ":" + key),
                    RecordSeries.purpose(placed),
                    Requests.mark(
                            caller.name(),
                            null,
                            RequestText.of("LIST")
                                    .part(kind.key())
                                    .part(unit.key())
                                    .part(list)
                                    .part(key)));
            return switch (Requests.perform(ledger, act, caller.name())) {
                case Outcome.Taken taken -> taken.taking().identifiers().getFirst();
                case Outcome.Refused<Answer.Numbers> refused -> throw Refusals.problem(refused.refusal());
            };
        }
    }
}
