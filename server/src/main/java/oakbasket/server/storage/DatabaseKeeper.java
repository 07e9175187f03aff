package oakbasket.server.storage;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.h2.mvstore.MVStore;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Stores, in the place of H2's own thread, what was committed and not yet stored, and makes room in the database's file: both with nobody halfway through a change. */
final class DatabaseKeeper implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(DatabaseKeeper.class);
    private static final Duration LOOKED_AT = Duration.ofMillis(50);
    /** What a crash may take of that which nobody was told is kept. */
    private static final int LOOKS_BEFORE_STORED = 5;
    /** Bytes not yet stored at which it is stored earlier; well below those at which H2 stores by itself (16 MiB and more). */
    private static final int MUCH = 4 * 1024 * 1024;
    private static final int LOOKS_BEFORE_TIDIED = 20;
    /** Percent of a part of the file that is still of use, under which the part is written anew; as H2 has it for a database at work. */
    private static final int USED_PERCENT = 80;
    private static final int TIDIED_BYTES = 4 * 1024 * 1024;

    private final GatedDataSource source;
    private final WriteGate gate;
    private final ScheduledExecutorService every = Executors.newSingleThreadScheduledExecutor(work -> {
        Thread thread = new Thread(work, "database");
        thread.setDaemon(true);
        return thread;
    });
    private @Nullable Connection connection;
    private int looks;
    private boolean stored;
    private boolean failing;

    DatabaseKeeper(GatedDataSource source, WriteGate gate) {
        this.source = source;
        this.gate = gate;
        every.scheduleWithFixedDelay(this::look, 0, LOOKED_AT.toMillis(), TimeUnit.MILLISECONDS);
    }

    private void look() {
        try {
            if (connection == null || connection.isClosed()) {
                connection = source.getConnection();
            }
            MVStore store = GatedDataSource.storeOf(connection);
            looks++;
            if ((looks % LOOKS_BEFORE_STORED == 0 || store.getUnsavedMemory() > MUCH) && store.hasUnsavedChanges()) {
                stored |= gate.shut(Duration.ZERO, store::commit);
            }
            if (looks % LOOKS_BEFORE_TIDIED == 0 && stored) {
                stored = false;
                gate.shut(Duration.ZERO, () -> store.compact(USED_PERCENT, TIDIED_BYTES));
            }
            failing = false;
        } catch (SQLException | RuntimeException problem) { // whatever it was: the next look must come
            if (!failing) {
                LOG.warn("The database could not be stored; it is tried again: {}", problem.getMessage());
            }
            failing = true;
            letGo();
        }
    }

    private void letGo() {
        try (Connection old = connection) {
            connection = null;
        } catch (SQLException gone) {
            LOG.debug("The connection was gone", gone);
        }
    }

    /** What is left is stored when the last connection is closed. */
    @Override
    public void close() {
        every.shutdown();
        try {
            every.awaitTermination(10, TimeUnit.SECONDS);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
        letGo();
    }
}
