package oakbasket.server.filing;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Supplier;
import oakbasket.core.filing.Place;
import oakbasket.server.journal.Journal;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Service;

/**
 * Moves a received file to another place. Where it goes is written down before, and where it came from until that is empty, so that a crash at any point
 * leaves a file that start-up finds and brings to one place; the journal tells what came about and nothing else.
 */
@Service
public class FileMoves implements SmartInitializingSingleton {

    private static final Logger LOG = LoggerFactory.getLogger(FileMoves.class);

    private final ReceivedFiles files;
    private final FileStore store;
    private final Roots roots;
    private final EffectTable effects;
    private final Journal journal;
    private final Transactions transactions;
    /** Moves that a crash or a root that went away interrupted, until every root they concern can be reached. */
    private final List<ReceivedFile> postponed = new CopyOnWriteArrayList<>();
    /** Places that may hold a file which did not come to lie there, because their root went away while it was brought. */
    private final Map<String, Long> doubtful = new ConcurrentHashMap<>();

    FileMoves(ReceivedFiles files, FileStore store, Roots roots, EffectTable effects, Journal journal, Transactions transactions) {
        this.files = files;
        this.store = store;
        this.roots = roots;
        this.effects = effects;
        this.journal = journal;
        this.transactions = transactions;
    }

    /** What came of a move. */
    public enum Outcome {
        MOVED,
        /** It lies there already. */
        STAYS,
        /** Somebody else moves it now, or has moved it. */
        BUSY,
        /** It is not where its record says. */
        MISSING;

        /** Whether it lies where it should. */
        public boolean there() {
            return this == MOVED || this == STAYS;
        }
    }

    /**
     * Moves a file, never overwriting.
     *
     * @param place gives a free place; asked again when that was taken meanwhile
     * @throws java.io.UncheckedIOException when the disk fails or the place cannot be reached; the file is then where it was
     */
    public Outcome move(ReceivedFile file, Supplier<String> place, Journal.Cause cause) {
        return move(file, place, () -> cause, () -> {
        });
    }

    /**
     * Moves a file, never overwriting.
     *
     * @param cause asked after the place
     * @param beside runs in the transaction that records the new place
     */
    public Outcome move(ReceivedFile file, Supplier<String> place, Supplier<Journal.Cause> cause, Runnable beside) {
        Path from = store.resolve(file.storedPath());
        if (!Files.isRegularFile(from)) {
            LOG.warn("File {} should move but is not at its place", file.id());
            return Outcome.MISSING;
        }
        while (true) {
            String to = place.get();
            if (to.equals(file.storedPath())) {
                transactions.durably(beside);
                return Outcome.STAYS;
            }
            boolean begun = transactions.durably(() -> {
                boolean free = files.beginMove(file, to);
                if (free) {
                    journal.begin(file.id(), file.roundId(), file.storedPath(), to, cause.get());
                }
                return free;
            });
            if (!begun) {
                return Outcome.BUSY;
            }
            boolean placed = false;
            try {
                placed = store.place(from, to);
            } finally {
                if (!placed) {
                    if (!roots.isThere(Place.root(to))) {
                        doubtful.put(to, file.id());
                    }
                    end(file);
                }
            }
            if (placed) {
                arrive(file, to, beside);
                return Outcome.MOVED;
            }
        }
    }

    private void arrive(ReceivedFile file, String to, Runnable beside) {
        transactions.durably(() -> {
            swap(file, to);
            beside.run();
        });
        try {
            store.removeName(file.storedPath(), to);
            end(file);
        } catch (RuntimeException away) {
            LOG.warn("File {} has moved; its old place is emptied when both roots can be reached", file.id(), away);
            postponed.add(files.byId(file.id()));
        }
    }

    private void swap(ReceivedFile file, String to) {
        files.swapPlaces(file, to);
        journal.end(file.id());
        effects.waits(file.id(), null, "");
    }

    private void end(ReceivedFile file) {
        transactions.quickly(() -> {
            files.endMove(file.id());
            journal.drop(file.id());
            return true;
        });
    }

    @Override
    public void afterSingletonsInstantiated() {
        for (ReceivedFile file : files.moving()) {
            if (!finish(file)) {
                postponed.add(file);
            }
        }
    }

    /** Tries again what could not be finished because a root was away. */
    void finishPostponed() {
        postponed.removeIf(this::finish);
        doubtful.forEach((place, file) -> {
            if (roots.isThere(Place.root(place))) {
                files.find(file).filter(now -> !now.storedPath().equals(place) && now.otherPath() == null && !files.taken(place) && Files.isRegularFile(store.resolve(now.storedPath()))).ifPresent(now -> store.removeName(place, now.storedPath()));
                doubtful.remove(place, file);
            }
        });
    }

    /** Whatever had happened: the recorded place keeps the file where it has it, else the other one becomes the recorded place. */
    private boolean finish(ReceivedFile file) {
        String other = String.valueOf(file.otherPath());
        if (!roots.isThere(Place.root(other)) || !roots.isThere(Place.root(file.storedPath()))) {
            return false;
        }
        boolean here = Files.isRegularFile(store.resolve(file.storedPath()));
        boolean there = Files.isRegularFile(store.resolve(other));
        if (here && there) {
            store.removeName(other, file.storedPath());
            store.removeReservation(other);
        } else if (there) {
            transactions.durably(() -> swap(file, other));
        }
        end(file);
        LOG.info("File {} was moving; it has one place again", file.id());
        return true;
    }
}
