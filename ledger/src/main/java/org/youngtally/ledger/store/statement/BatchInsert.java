package org.youngtally.ledger.store.statement;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jooq.InsertValuesStepN;
import org.jooq.Record;
import org.jooq.Table;
import org.jooq.TableField;

/**
 * An insertion of the writer's hot path. Rows go in by one statement for up to 64 of them, rendered once for each
 * number of rows: a statement costs more than a row of it.
 */
public final class BatchInsert {
    private static final int MOST_ROWS = 64;

    private final DSLContext dsl;
    private final Table<?> table;
    private final List<? extends TableField<?, ?>> columns;
    private final Map<Integer, WriterStatement> bySize = new HashMap<>();

    public BatchInsert(DSLContext dsl, Table<?> table, TableField<?, ?>... columns) {
        this.dsl = dsl;
        this.table = table;
        this.columns = List.of(columns);
    }

    /** Each row has a value for each column, in their order. */
    public void run(List<Object[]> rows) {
        for (int from = 0; from < rows.size(); ) {
            int size = Math.min(MOST_ROWS, rows.size() - from);
            Object[] parameters = new Object[size * columns.size()];
            for (int i = 0; i < size; i++)
                System.arraycopy(rows.get(from + i), 0, parameters, i * columns.size(), columns.size());
            bySize.computeIfAbsent(size, this::prepared).run(parameters);
            from += size;
        }
    }

    private WriterStatement prepared(int size) {
        InsertValuesStepN<? extends Record> insert = dsl.insertInto(table, columns);
        for (int i = 0; i < size; i++) insert = insert.values(new Object[columns.size()]);
        return new WriterStatement(dsl, insert);
    }
}
