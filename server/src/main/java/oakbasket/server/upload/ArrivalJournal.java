package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.ReadWriteLock;
import java.util.concurrent.locks.ReentrantReadWriteLock;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.GroupFlush;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What survives a crash between a file getting its place and the database having flushed its record: one line of JSON an arrival, flushed before the file
 * gets its place. That is much cheaper than flushing the database for each file. Every few seconds the database is flushed once and the journal emptied;
 * at start-up whatever stands in it is carried on with.
 */
@Component
class ArrivalJournal {

    private static final Logger LOG = LoggerFactory.getLogger(ArrivalJournal.class);

    /** Where lines are kept that could not be mended. */
    static final String LEFT = "arrivals.left";

    private final Path path;
    private final Disk.DiskFile file;
    private final GroupFlush flush;
    private final JsonMapper json;
    private final Transactions transactions;
    /** Read: an arrival between its line and its commit. Write: emptying. */
    private final ReadWriteLock arriving = new ReentrantReadWriteLock();

    ArrivalJournal(DataFolder folder, Disk disk, JsonMapper json, Transactions transactions) throws IOException {
        this.path = folder.incoming().resolve("arrivals.journal");
        this.file = disk.open(path, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.APPEND);
        this.flush = new GroupFlush(this::force);
        this.json = json;
        this.transactions = transactions;
    }

    /** Runs what lies between the line of an arrival and the commit of its record; the journal is not emptied meanwhile. */
    void whileArriving(Runnable work) {
        arriving.readLock().lock();
        try {
            work.run();
        } finally {
            arriving.readLock().unlock();
        }
    }

    /** Writes and flushes a line. To be called within {@link #whileArriving}. */
    void append(Arrival arrival) {
        ByteBuffer line = ByteBuffer.wrap((json.writeValueAsString(arrival) + "\n").getBytes(StandardCharsets.UTF_8));
        try {
            synchronized (file) {
                while (line.hasRemaining()) {
                    file.write(line);
                }
            }
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot write the journal of arrivals", problem);
        }
        flush.await();
    }

    /** All lines, the oldest first. A last line cut off by a crash was never acted on and is left out. */
    List<Arrival> read() {
        List<Arrival> arrivals = new ArrayList<>();
        try {
            for (String line : Files.readString(path).split("\n")) {
                if (!line.isBlank()) {
                    arrivals.add(json.readValue(line, Arrival.class));
                }
            }
        } catch (JacksonException cutOff) {
            LOG.info("Start-up: the last line of the journal of arrivals was cut off; it was never acted on");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        return arrivals;
    }

    /** Keeps the lines of arrivals that could not be mended. */
    void setAside(List<Arrival> left) {
        if (left.isEmpty()) {
            return;
        }
        StringBuilder lines = new StringBuilder();
        left.forEach(arrival -> lines.append(json.writeValueAsString(arrival)).append('\n'));
        try {
            Files.writeString(path.resolveSibling(LEFT), lines, StandardOpenOption.CREATE, StandardOpenOption.APPEND, StandardOpenOption.SYNC);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Whether an upload is among those that could not be mended, at this start or at one before. */
    boolean isSetAside(String uploadId) {
        try {
            Path aside = path.resolveSibling(LEFT);
            return Files.exists(aside) && Files.readString(aside).contains("\"" + uploadId + "\"");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Flushes the database and empties the journal. */
    @Scheduled(initialDelayString = "${oakbasket.journal-every:PT5S}", fixedDelayString = "${oakbasket.journal-every:PT5S}")
    void empty() {
        Acting.officeDoes(this::emptyNow);
    }

    private void emptyNow() {
        arriving.writeLock().lock();
        try {
            if (file.size() > 0) {
                transactions.flush();
                file.truncate(0);
                force();
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } finally {
            arriving.writeLock().unlock();
        }
    }

    private void force() {
        try {
            file.force();
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot flush the journal of arrivals", problem);
        }
    }
}
