package org.youngtally.service.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.Parameter;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.youngtally.core.access.Right;
import org.youngtally.documents.UnreadableDocument;
import org.youngtally.documents.table.Table;
import org.youngtally.service.access.Caller;
import org.youngtally.service.access.Needs;
import org.youngtally.service.access.Needs.At;
import org.youngtally.service.body.Takes;
import org.youngtally.service.label.FieldTable;
import org.youngtally.service.label.FieldTables;
import org.youngtally.service.web.Problem;
import org.youngtally.service.web.Problem.Type;
import org.youngtally.service.work.HeavyWork;
import org.youngtally.service.work.HeavyWork.Sort;

/** Tables that labels are printed for. */
@RestController
@RequestMapping(Api.V1)
class LabelTableController {
    private static final Logger LOG = LoggerFactory.getLogger(LabelTableController.class);
    private static final int MOST_BYTES = 20_000_000;

    private final HeavyWork work;
    private final FieldTables tables;

    LabelTableController(HeavyWork work, FieldTables tables) {
        this.work = work;
        this.tables = tables;
    }

    /**
     * A table that labels can be printed for.
     *
     * @param table by which a request names it
     * @param columns their names
     * @param rows how many there are
     */
    record LabelTableView(String table, List<String> columns, int rows) {}

    @Takes(value = MOST_BYTES, file = true)
    @PostMapping("/label-tables")
    @Needs(value = Right.ALLOCATE, at = At.SOMEWHERE)
    @io.swagger.v3.oas.annotations.parameters.RequestBody(
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_OCTET_STREAM_VALUE,
                            schema = @Schema(type = "string", format = "binary")))
    @Operation(
            operationId = "keepLabelTable",
            summary =
                    "Send a table (CSV, XLSX) with a row for each label, up to 10,000 rows: columns with the name or title of a field have its values. Nothing is allocated")
    LabelTableView table(
            @Parameter(description = "The name of the file, which ends in .csv or .xlsx") @RequestParam String name,
            Caller caller,
            @Parameter(hidden = true) HttpServletRequest request)
            throws IOException {
        try {
            Table.Format format = Table.Format.of(name);
            byte[] bytes = Requests.file(request).readAllBytes();
            FieldTable table = work.run(Sort.TABLE, caller.name(), () -> FieldTables.read(format, bytes));
            return new LabelTableView(
                    tables.keep(table), table.columns(), table.rows().size());
        } catch (UnreadableDocument e) {
            LOG.debug("a table could not be read", e);
            throw new Problem(Type.TABLE_FAULTY, e.getMessage() + ".").field("body", e.accepted());
        }
    }
}
