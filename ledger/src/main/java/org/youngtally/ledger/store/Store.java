package org.youngtally.ledger.store;

import static org.youngtally.ledger.store.db.Tables.APPLIED;
import static org.youngtally.ledger.store.db.Tables.ENTRY;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.flywaydb.core.Flyway;
import org.h2.api.ErrorCode;
import org.h2.jdbc.JdbcConnection;
import org.h2.jdbcx.JdbcDataSource;
import org.h2.mvstore.MVStoreException;
import org.h2.store.fs.FilePath;
import org.jooq.DSLContext;
import org.jooq.SQLDialect;
import org.jooq.conf.Settings;
import org.jooq.impl.DSL;
import org.youngtally.core.series.Series;
import org.youngtally.ledger.journal.Entry;
import org.youngtally.ledger.journal.Head;
import org.youngtally.ledger.secret.Secrets;
import org.youngtally.ledger.store.statement.CachedQuery;
import org.youngtally.ledger.store.statement.WriterStatement;

/**
 * The tables, in H2: where every question is answered. One connection writes; readers have a pool of their own and see
 * committed entries only.
 */
public final class Store implements AutoCloseable {
    private static final int READERS = 8;
    /** Of H2: what a question meets whose tables are taken away. */
    private static final Set<Integer> AWAY = Set.of(
            ErrorCode.DATABASE_IS_CLOSED,
            ErrorCode.DATABASE_CALLED_AT_SHUTDOWN,
            ErrorCode.DATABASE_IS_IN_EXCLUSIVE_MODE,
            ErrorCode.CONNECTION_BROKEN_1,
            ErrorCode.OBJECT_CLOSED,
            ErrorCode.IO_EXCEPTION_1,
            ErrorCode.IO_EXCEPTION_2,
            ErrorCode.FILE_CORRUPTED_1);

    /** Of H2: every statement of a transaction sees the same committed state. */
    private static final String SNAPSHOT = "set session characteristics as transaction isolation level snapshot";

    /** By this name a question finds the secrets in the configuration it is asked through. */
    private static final String SECRETS = "secrets";

    /**
     * By this name it finds the versions of series that were read before: a version never changes, and reading one
     * takes longer than most questions.
     */
    private static final String VERSIONS = "versions";

    private final Map<List<Integer>, Series> versions = new ConcurrentHashMap<>();
    /**
     * What each connection of the pool is asked through; there are as many as it has readers, for they are never
     * replaced.
     */
    private final Map<Connection, DSLContext> asking = new ConcurrentHashMap<>();

    private final SeldomWritten seldom = new SeldomWritten();
    private final String file;
    private final Secrets secrets;
    private final HikariDataSource readers;
    private final Connection connection;
    private final DSLContext writing;
    private final EntryTables tables;
    private final WriterStatement reached;
    private final Checkpoints saving;

    private Store(
            String file,
            Secrets secrets,
            HikariDataSource readers,
            Connection connection,
            Checkpoints saving,
            DSLContext writing) {
        this.saving = saving;
        this.file = file;
        this.secrets = secrets;
        this.readers = readers;
        this.connection = connection;
        this.writing = writing;
        this.tables = new EntryTables(writing);
        this.reached = new WriterStatement(
                writing, writing.update(APPLIED).set(APPLIED.SEQ, (Long) null).set(APPLIED.HASH, (String) null));
    }

    /**
     * Opens or makes the database at a JDBC address of H2, and brings its tables up to date.
     *
     * @param secrets of the data folder
     */
    public static Store open(String url, Secrets secrets) throws SQLException {
        var source = new JdbcDataSource();
        source.setUrl(url);
        source.setUser("tally");
        source.setPassword("");
        Connection connection = source.getConnection();
        try {
            Flyway.configure()
                    .dataSource(source)
                    .locations("classpath:org/youngtally/ledger/migrations")
                    .load()
                    .migrate();
            connection.setAutoCommit(false);
            Checkpoints saving = Checkpoints.of(connection);
            var config = new HikariConfig();
            config.setDataSource(source);
            config.setMaximumPoolSize(READERS);
            config.setMinimumIdle(1);
            config.setMaxLifetime(0);
            config.setIdleTimeout(0);
            config.setPoolName("readers");
            config.setAutoCommit(false);
            config.setConnectionInitSql(SNAPSHOT);
            return new Store(
                    file(url), secrets, new HikariDataSource(config), connection, saving, dsl(connection, secrets));
        } catch (RuntimeException | SQLException e) {
            drop(connection);
            throw e;
        }
    }

    /** The same of new tables that are in memory alone. */
    public static Store inMemory(Secrets secrets) throws SQLException {
        return open("jdbc:h2:mem:tables-" + UUID.randomUUID() + ";DB_CLOSE_DELAY=-1", secrets);
    }

    /**
     * Drops the database from memory as it is, without writing. H2's own way of closing is never taken: where the disk
     * fails in the middle of it, it does not return (MVStore.closeStore of 2.4.240 waits for itself).
     */
    private static void drop(Connection connection) throws SQLException {
        try (var statement = connection.createStatement()) {
            statement.execute("shutdown immediately");
        }
    }

    /** The file behind a JDBC address, as H2 names it; empty for a database in memory. */
    private static String file(String url) {
        String path = url.substring("jdbc:h2:".length()).replaceFirst(";.*", "");
        return path.startsWith("mem:") ? "" : path + ".mv.db";
    }

    private static DSLContext dsl(Connection connection, Secrets secrets) {
        DSLContext dsl = DSL.using(connection, SQLDialect.H2, new Settings().withExecuteLogging(false));
        dsl.configuration().data(SECRETS, secrets);
        CachedQuery.keptOn(dsl);
        return dsl;
    }

    /** The secrets that go with the tables which a question is asked of. */
    static Secrets secrets(DSLContext dsl) {
        return (Secrets) dsl.configuration().data(SECRETS);
    }

    /**
     * The versions of series that questions have read, by the row id of the series and the version; none for the
     * writer, who may take back what it wrote.
     */
    @SuppressWarnings("unchecked")
    static Map<List<Integer>, Series> versions(DSLContext dsl) {
        return (Map<List<Integer>, Series>) dsl.configuration().data().getOrDefault(VERSIONS, new HashMap<>());
    }

    /** The last entry that the tables hold. */
    public Head applied() {
        return writing.selectFrom(APPLIED).fetchOne(row -> new Head(row.get(APPLIED.SEQ), row.get(APPLIED.HASH)));
    }

    /**
     * Writes the effects of entries, which follow {@link #applied}, without committing: the unique indexes speak here.
     */
    public void write(List<Entry> entries) {
        tables.write(entries);
        seldom.write(entries);
    }

    /** Commits what was written since the last commit, up to the entry at this head. */
    public void commit(Head head) throws SQLException {
        reached.run(List.<Object[]>of(new Object[] {head.seq(), head.hash()}));
        connection.commit();
        seldom.committed();
    }

    /**
     * Has what was committed written to the file now and then. For the writing thread, between two batches.
     *
     * @param atRest whether nobody waits for it
     */
    public void tidy(boolean atRest) {
        saving.betweenTransactions(atRest);
    }

    /** The bytes of the tables that are in memory alone. */
    public long unsaved() {
        return saving.unsaved();
    }

    /** Whether {@link #tidy} would write. */
    public boolean isSavingDue(boolean atRest) {
        return saving.isDue(atRest);
    }

    /** Whether tables could not be opened because another process has them open. */
    public static boolean isBusy(Throwable failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause())
            if (cause instanceof SQLException sql && sql.getErrorCode() == ErrorCode.DATABASE_ALREADY_OPEN_1)
                return true;
        return false;
    }

    /** Whether a question failed because the tables were closed or could not be read, and not by itself. */
    public static boolean isAway(Throwable failure) {
        for (Throwable cause = failure; cause != null; cause = cause.getCause())
            if (cause instanceof SQLException sql && AWAY.contains(sql.getErrorCode())
                    || cause instanceof MVStoreException) return true;
        return false;
    }

    /** Whether a question failed because no connection was free for it in time. */
    public static boolean isCrowded(Throwable failure) {
        return failure.getCause() instanceof SQLTransientConnectionException;
    }

    /**
     * Whether the tables hold each entry up to {@link #applied}, and none behind it: what a killed process has left
     * must, and is not believed otherwise.
     */
    public boolean isWhole() {
        long reachedEntry = applied().seq();
        return writing.select(DSL.count(), DSL.coalesce(DSL.max(ENTRY.SEQ), DSL.inline(0L)))
                .from(ENTRY)
                .fetchSingle(row -> row.value1() == reachedEntry && row.value2() == reachedEntry);
    }

    public void rollback() throws SQLException {
        connection.rollback();
        tables.forget();
    }

    /** The state as the next act meets it, read through the writing connection. For the writing thread alone. */
    public StateQueries state() {
        return new StateQueries(writing, secrets::of);
    }

    /** Asks something of one committed state. */
    public <T> T read(Function<DSLContext, T> question) {
        try (Connection reader = readers.getConnection()) {
            try {
                DSLContext dsl = asking.computeIfAbsent(reader.unwrap(JdbcConnection.class), this::asking);
                // A connection that is new or was at rest was asked something, and may look at the tables as they were
                // then.
                reader.rollback();
                seldom.begin(dsl);
                return question.apply(dsl);
            } finally {
                reader.rollback();
            }
        } catch (SQLException e) {
            throw new IllegalStateException("the tables cannot be read: " + e.getMessage(), e);
        }
    }

    private DSLContext asking(Connection reader) {
        DSLContext dsl = dsl(reader, secrets);
        dsl.configuration().data(VERSIONS, versions);
        return dsl;
    }

    /** Drops the database from memory as it is, without writing: for a database that has failed. */
    public void abandon() throws SQLException {
        try {
            drop(connection);
        } finally {
            readers.close();
        }
    }

    /** Writes everything, closes the database, and returns when its file is on disk. */
    @Override
    public void close() throws SQLException, IOException {
        readers.close();
        try (var statement = connection.createStatement()) {
            statement.execute("checkpoint sync");
        } catch (SQLException e) {
            try {
                drop(connection);
            } catch (SQLException alsoFailed) {
                e.addSuppressed(alsoFailed);
            }
            throw e;
        }
        drop(connection);
        if (file.isEmpty()) return;
        try (FileChannel channel = FilePath.get(file).open("rw")) {
            channel.force(true);
        }
    }
}
