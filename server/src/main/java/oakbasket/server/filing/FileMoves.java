package oakbasket.server.filing;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.stereotype.Service;

/**
 * Moves a received file to another place. Where it goes is written down before, and where it came from until that is empty, so that a crash at any point
 * leaves a file that start-up finds and brings to one place.
 */
@Service
public class FileMoves implements SmartInitializingSingleton {

    private static final Logger LOG = LoggerFactory.getLogger(FileMoves.class);

    private final ReceivedFiles files;
    private final FileStore store;
    private final Transactions transactions;

    FileMoves(ReceivedFiles files, FileStore store, Transactions transactions) {
        this.files = files;
        this.store = store;
        this.transactions = transactions;
    }

    /**
     * Moves a file, never overwriting.
     *
     * @param place gives a free place, another one at each call
     * @return false when the file moves already, or is not where its record says
     */
    public boolean move(ReceivedFile file, Supplier<String> place) {
        Path from = store.resolve(file.storedPath());
        if (!Files.isRegularFile(from)) {
            LOG.warn("File {} should move but is not at its place", file.id());
            return false;
        }
        while (true) {
            String to = place.get();
            if (to.equals(file.storedPath())) {
                return true;
            }
            if (!transactions.durably(() -> files.beginMove(file, to))) {
                return false;
            }
            if (store.place(from, to)) {
                arrive(file, to);
                return true;
            }
            end(file);
        }
    }

    private void arrive(ReceivedFile file, String to) {
        transactions.durably(() -> files.swapPlaces(file, to));
        store.removeName(file.storedPath(), to);
        end(file);
    }

    private void end(ReceivedFile file) {
        transactions.quickly(() -> {
            files.endMove(file.id());
            return true;
        });
    }

    @Override
    public void afterSingletonsInstantiated() {
        for (ReceivedFile file : files.moving()) {
            finish(file, String.valueOf(file.otherPath()));
            LOG.info("Start-up: file {} was moving; it has one place again", file.id());
        }
    }

    /** Whatever had happened: the recorded place keeps the file where it has it, else the other one becomes the recorded place. */
    private void finish(ReceivedFile file, String other) {
        boolean here = Files.isRegularFile(store.resolve(file.storedPath()));
        boolean there = Files.isRegularFile(store.resolve(other));
        if (here && there) {
            store.removeName(other, file.storedPath());
            store.removeReservation(other);
        } else if (there) {
            transactions.durably(() -> files.swapPlaces(file, other));
        }
        end(file);
    }
}
