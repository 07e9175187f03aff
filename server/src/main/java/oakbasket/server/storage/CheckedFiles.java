package oakbasket.server.storage;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/**
 * Says whether a file on the disk still holds what was checked, so that nothing else is ever given out in its name. While the disk says the same of it as when it was read last, that is known without reading it; otherwise it
 * is read and hashed before its first byte leaves. What was read is noted in the database and holds for every server of it; what is remembered here is a copy for speed, of each server on purpose.
 */
@Service
public class CheckedFiles {

    /** A file on the disk does not hold what was checked any more. */
    public record Altered(Path file) {
    }

    private static final int REMEMBERED = 50_000;
    private static final int CHUNK = 1_000;
    private static final Duration KEPT = Duration.ofDays(400);
    private static final Logger LOG = LoggerFactory.getLogger(CheckedFiles.class);

    private final KnownBytesTable table;
    private final Transactions transactions;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final Map<String, byte[]> known = Collections.synchronizedMap(new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<String, byte[]> eldest) {
            return size() > REMEMBERED;
        }
    });
    /** Many may ask for one file at once; one of them reads it. A stripe of locks keeps that from growing. */
    private final Object[] locks = Stream.generate(Object::new).limit(32).toArray();

    CheckedFiles(KnownBytesTable table, Transactions transactions, ApplicationEventPublisher events, Clock clock) {
        this.events = events;
        this.table = table;
        this.transactions = transactions;
        this.clock = clock;
    }

    /**
     * Whether a file holds what it should.
     *
     * @param sha256 of what was received and scanned
     * @throws IOException when it cannot be read
     */
    public boolean holds(Path file, byte[] sha256) throws IOException {
        String mark = FileMark.of(file).written();
        byte[] before = lookUp(mark);
        if (before != null) {
            return Arrays.equals(before, sha256);
        }
        synchronized (locks[Math.floorMod(mark.hashCode(), locks.length)]) {
            byte[] meanwhile = known.get(mark);
            byte[] found = meanwhile != null ? meanwhile : FileStore.digest(file);
            // What changed while it was read is read again the next time, and is not what was asked for now.
            if (!FileMark.of(file).written().equals(mark)) {
                return false;
            }
            if (meanwhile == null) {
                keep(mark, found);
            }
            if (!Arrays.equals(found, sha256)) {
                LOG.warn("{} does not hold what was checked, and is not given out", file);
                events.publishEvent(new Altered(file));
            }
            return Arrays.equals(found, sha256);
        }
    }

    private byte @Nullable [] lookUp(String mark) {
        byte[] before = known.get(mark);
        if (before == null) {
            before = table.of(List.of(mark)).get(mark);
            if (before != null) {
                known.put(mark, before);
            }
        }
        return before;
    }

    /** Notes what a file was just found to hold. @throws IOException when it is gone */
    public void note(Path file, byte[] sha256) throws IOException {
        keep(FileMark.of(file).written(), sha256);
    }

    private void keep(String mark, byte[] sha256) {
        known.put(mark, sha256);
        Acting.officeDoes(() -> transactions.quickly(() -> {
            table.note(mark, sha256, clock.instant());
            return true;
        }));
    }

    /** Looks up what is known of many files at once, before each is asked for. */
    public void warm(Collection<Path> files) {
        known(files.stream().map(CheckedFiles::mark).filter(mark -> !mark.isEmpty()).toList());
    }

    /**
     * Which of many files hold what they should, looked at together: one look at the disk for each, and a question to the database for a thousand.
     *
     * @param wanted the hash that each should have
     */
    public Set<Path> holding(Map<Path, byte[]> wanted) {
        Map<Path, String> marks = new HashMap<>();
        wanted.keySet().forEach(file -> marks.put(file, mark(file)));
        known(marks.values());
        Set<Path> holding = new HashSet<>();
        wanted.forEach((file, sha256) -> {
            byte[] before = known.get(Objects.requireNonNull(marks.get(file)));
            try {
                if (before != null ? Arrays.equals(before, sha256) : holds(file, sha256)) {
                    holding.add(file);
                }
            } catch (IOException gone) {
                LOG.debug("{} is not there", file, gone);
            }
        });
        return holding;
    }

    private void known(Collection<String> marks) {
        List<String> missing = marks.stream().filter(mark -> !mark.isEmpty() && !known.containsKey(mark)).toList();
        for (int from = 0; from < missing.size(); from += CHUNK) {
            known.putAll(table.of(missing.subList(from, Math.min(missing.size(), from + CHUNK))));
        }
    }

    /** The mark of a file; empty where there is none. */
    private static String mark(Path file) {
        try {
            return FileMark.of(file).written();
        } catch (IOException gone) {
            return "";
        }
    }

    /** Forgets what was noted long ago; what is still there is read once more when it is asked for. */
    @Scheduled(initialDelayString = "${oakbasket.purge-first:PT2M}", fixedDelayString = "${oakbasket.purge-every:PT1H}")
    void tidy() {
        Acting.officeDoes(() -> {
            int gone;
            do {
                gone = transactions.quickly(() -> table.forgetBefore(clock.instant().minus(KEPT), CHUNK));
            } while (gone == CHUNK);
        });
    }
}
