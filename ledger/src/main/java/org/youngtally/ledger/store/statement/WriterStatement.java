package org.youngtally.ledger.store.statement;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Query;
import org.jooq.exception.DataAccessException;
import org.jooq.exception.IntegrityConstraintViolationException;

/**
 * A statement of the writer's hot path, written in jOOQ and rendered once: rendering it anew for each batch cost more
 * than running it. Parameters are bound in the order in which they are in the statement.
 */
public final class WriterStatement {
    private final DSLContext dsl;
    private final Query query;
    private PreparedStatement statement;

    public WriterStatement(DSLContext dsl, Query query) {
        this.dsl = dsl;
        this.query = query;
    }

    /** Rendered when it is first used: a question that is asked once should not pay for its neighbours. */
    private PreparedStatement statement() {
        if (statement == null) statement = dsl.connectionResult(connection -> prepare(connection, query.getSQL()));
        return statement;
    }

    private static PreparedStatement prepare(Connection connection, String sql) throws SQLException {
        return connection.prepareStatement(sql);
    }

    /**
     * Runs it once.
     *
     * @return how many rows it changed
     */
    public int run(Object[] parameters) {
        PreparedStatement statement = statement();
        try {
            for (int i = 0; i < parameters.length; i++) statement.setObject(i + 1, parameters[i]);
            return statement.executeUpdate();
        } catch (SQLException e) {
            throw translated(e);
        }
    }

    /** Runs it once for each row of parameters, as one batch. */
    public void run(List<Object[]> rows) {
        PreparedStatement statement = statement();
        try {
            for (Object[] row : rows) {
                for (int i = 0; i < row.length; i++) statement.setObject(i + 1, row[i]);
                statement.addBatch();
            }
            statement.executeBatch();
        } catch (SQLException e) {
            throw translated(e);
        }
    }

    /** Reads one row of an answer. */
    public interface RowReader<T> {
        T read(ResultSet row) throws SQLException;
    }

    /** Runs it once with these parameters, and reads every row of the answer. */
    public <T> List<T> ask(Object[] parameters, RowReader<T> reader) {
        PreparedStatement statement = statement();
        try {
            for (int i = 0; i < parameters.length; i++) statement.setObject(i + 1, parameters[i]);
            var found = new ArrayList<T>();
            try (ResultSet rows = statement.executeQuery()) {
                while (rows.next()) found.add(reader.read(rows));
            }
            return found;
        } catch (SQLException e) {
            throw translated(e);
        }
    }

    private static DataAccessException translated(SQLException e) {
        boolean violation = e.getSQLState() != null && e.getSQLState().startsWith("23");
        return violation
                ? new IntegrityConstraintViolationException(e.getMessage(), e)
                : new DataAccessException(e.getMessage(), e);
    }
}
