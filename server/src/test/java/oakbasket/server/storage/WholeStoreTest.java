package oakbasket.server.storage;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLongArray;
import org.h2.jdbcx.JdbcDataSource;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What lies on the disk at any moment, as a crash would leave it, is whole: what was written together is there together, and each index holds exactly the rows of its table. */
class WholeStoreTest {

    private static final int WRITERS = 6;
    private static final int PAPERS = 200;
    private static final int CRASHES = 30;
    /** As many tables lie between the two that are looked at; the longer the database takes from the first to the last, the more would be torn. */
    private static final int TABLES = 300;

    @TempDir
    private Path folder;
    private final WriteGate gate = new WriteGate();
    private final AtomicLongArray durable = new AtomicLongArray(PAPERS);

    @Test
    void aCrashAtAnyMomentLeavesTogetherWhatWasWrittenTogether() throws Exception {
        GatedDataSource source = new GatedDataSource(h2(folder.resolve("at-work")), gate);
        try (Connection first = source.getConnection(); Statement statement = first.createStatement()) {
            statement.execute("CREATE TABLE paper (id BIGINT PRIMARY KEY, place BIGINT NOT NULL)");
            for (int i = 0; i < TABLES; i++) {
                statement.execute("CREATE TABLE between_" + i + " (id BIGINT PRIMARY KEY)");
            }
            statement.execute("CREATE TABLE line (id BIGINT PRIMARY KEY, place BIGINT NOT NULL)");
            statement.execute("CREATE UNIQUE INDEX paper_place ON paper (place)");
            for (int i = 0; i < PAPERS; i++) {
                statement.execute("INSERT INTO paper VALUES (%1$d, %1$d)".formatted(i));
                statement.execute("INSERT INTO line VALUES (%1$d, %1$d)".formatted(i));
            }
        }
        AtomicBoolean on = new AtomicBoolean(true);
        ExecutorService pool = Executors.newFixedThreadPool(WRITERS);
        List<Future<?>> writers = new ArrayList<>();
        try (DatabaseKeeper keeper = new DatabaseKeeper(source, gate)) {
            for (int i = 0; i < WRITERS; i++) {
                int mine = i;
                writers.add(pool.submit(() -> write(source, mine, on)));
            }
            for (int crash = 0; crash < CRASHES; crash++) {
                Thread.sleep(10 + crash % 7 * 9L);
                long[] said = new long[PAPERS];
                java.util.Arrays.setAll(said, durable::get);
                Path copy = folder.resolve("after-" + crash);
                Files.copy(folder.resolve("at-work.mv.db"), folder.resolve("after-" + crash + ".mv.db"));
                check(copy, "after crash " + crash, said);
            }
        } finally {
            on.set(false);
            for (Future<?> writer : writers) {
                writer.get();
            }
            pool.shutdown();
        }
    }

    /** Somebody inside may wait for a row that only somebody outside can let go of: the gate gives way, and what is waited for on the disk comes all the same. */
    @Test
    void whoeverWaitsForARowHoldsNobodyUp() throws Exception {
        GatedDataSource source = new GatedDataSource(h2(folder.resolve("waiting")), gate);
        ExecutorService pool = Executors.newFixedThreadPool(2);
        try (DatabaseKeeper keeper = new DatabaseKeeper(source, gate); Connection holder = source.getConnection(); Connection waiter = source.getConnection(); Connection keep = source.getConnection();
                Statement holding = holder.createStatement(); Statement waiting = waiter.createStatement(); Statement keeping = keep.createStatement()) {
            holding.execute("CREATE TABLE paper (id BIGINT PRIMARY KEY, place BIGINT NOT NULL)");
            holding.execute("INSERT INTO paper VALUES (1, 1)");
            holder.setAutoCommit(false);
            holding.execute("UPDATE paper SET place = 2");
            Future<Integer> waits = pool.submit(() -> waiting.executeUpdate("UPDATE paper SET place = place + 10"));
            Thread.sleep(300);
            Future<?> stored = pool.submit(() -> keeping.execute("CHECKPOINT SYNC"));
            Thread.sleep(300);
            assertThat(waits).isNotDone();
            long asked = System.nanoTime();
            holder.commit();
            assertThat(waits.get(5, TimeUnit.SECONDS)).isEqualTo(1);
            stored.get(5, TimeUnit.SECONDS);
            assertThat(System.nanoTime() - asked).as("nanoseconds, of which the wait for a row could take 10 s").isLessThan(5_000_000_000L);
            assertThat(numbers(keep, "SELECT place FROM paper")).containsExactly(12L);
        } finally {
            pool.shutdown();
        }
    }

    /** One transaction of two statements after the other, each writer with its own papers; of some it is waited until they are on the disk. */
    private Void write(GatedDataSource source, int writer, AtomicBoolean on) throws SQLException {
        try (Connection connection = source.getConnection(); PreparedStatement paper = connection.prepareStatement("UPDATE paper SET place = ? WHERE id = ?");
                PreparedStatement line = connection.prepareStatement("UPDATE line SET place = ? WHERE id = ?"); PreparedStatement keep = connection.prepareStatement("CHECKPOINT SYNC")) {
            connection.setAutoCommit(false);
            for (long turn = 1; on.get(); turn++) {
                int id = (int) (turn * WRITERS + writer) % PAPERS / WRITERS * WRITERS + writer;
                if (id >= PAPERS) {
                    continue;
                }
                long place = turn * PAPERS + id;
                for (PreparedStatement one : List.of(paper, line)) {
                    one.setLong(1, place);
                    one.setLong(2, id);
                    one.executeUpdate();
                }
                connection.commit();
                if (turn % 100 == 0) {
                    keep.executeUpdate();
                    durable.set(id, place);
                }
            }
            return null;
        }
    }

    private void check(Path copy, String when, long[] said) throws SQLException {
        try (Connection connection = h2(copy).getConnection()) {
            assertThat(numbers(connection, "SELECT COUNT(*) FROM (SELECT id + 0 FROM paper)")).as("%s: papers", when).containsExactly((long) PAPERS);
            assertThat(numbers(connection, "SELECT COUNT(*) FROM paper WHERE place >= 0")).as("%s: papers found by their place", when).containsExactly((long) PAPERS);
            assertThat(numbers(connection, "SELECT p.id FROM paper p WHERE NOT EXISTS (SELECT 1 FROM paper q WHERE q.place = p.place AND q.id = p.id)")).as("%s: papers not found by their place", when).isEmpty();
            List<Long> places = numbers(connection, "SELECT place + 0 FROM paper ORDER BY id");
            assertThat(numbers(connection, "SELECT place + 0 FROM line ORDER BY id")).as("%s: what both tables say", when).isEqualTo(places);
            for (int id = 0; id < PAPERS; id++) {
                assertThat(places.get(id)).as("%s: what was said to be kept of %d", when, id).isGreaterThanOrEqualTo(said[id]);
            }
        }
    }

    private static List<Long> numbers(Connection connection, String sql) throws SQLException {
        try (Statement statement = connection.createStatement(); ResultSet result = statement.executeQuery(sql)) {
            List<Long> numbers = new ArrayList<>();
            while (result.next()) {
                numbers.add(result.getLong(1));
            }
            return numbers;
        }
    }

    private static JdbcDataSource h2(Path database) {
        JdbcDataSource h2 = new JdbcDataSource();
        h2.setURL("jdbc:h2:file:" + database + ";LOCK_TIMEOUT=10000");
        h2.setUser("sa");
        h2.setPassword("");
        return h2;
    }
}
