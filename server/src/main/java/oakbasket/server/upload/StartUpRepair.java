package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.SmartInitializingSingleton;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Mends what was in flight when the server stopped, before anybody is let in, and removes uploads that nobody finished. */
@Component
class StartUpRepair implements SmartInitializingSingleton {

    private static final Logger LOG = LoggerFactory.getLogger(StartUpRepair.class);
    private static final String ENDING = ".part";

    private final UploadTable uploads;
    private final Arrivals arrivals;
    private final Release release;
    private final ArrivalJournal journal;
    private final FileStore store;
    private final DataFolder folder;
    private final Transactions transactions;
    private final Clock clock;

    StartUpRepair(UploadTable uploads, Arrivals arrivals, Release release, ArrivalJournal journal, FileStore store, DataFolder folder, Transactions transactions, Clock clock) {
        this.uploads = uploads;
        this.arrivals = arrivals;
        this.release = release;
        this.journal = journal;
        this.store = store;
        this.folder = folder;
        this.transactions = transactions;
        this.clock = clock;
    }

    @Override
    public void afterSingletonsInstantiated() {
        int filed = 0;
        List<Arrival> left = new ArrayList<>();
        for (Arrival arrival : journal.read()) {
            try {
                if (arrivals.carryOn(arrival)) {
                    filed++;
                    LOG.info("Start-up: upload {} had arrived but was not recorded; finished it", arrival.uploadId());
                }
            } catch (RuntimeException unmended) {
                // One that cannot be mended must not keep the office closed; its line and its bytes stay for somebody to look at.
                LOG.error("Start-up: upload {} had arrived but cannot be recorded; its bytes stay where they are, and its line is kept in {}", arrival.uploadId(), ArrivalJournal.LEFT, unmended);
                left.add(arrival);
            }
        }
        journal.setAside(left);
        journal.empty();
        int cut = 0;
        for (Upload upload : uploads.inState(Upload.State.OPEN)) {
            cut += fitToOffset(upload) ? 1 : 0;
        }
        try {
            release.removeUnknown();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        int removed = 0;
        for (Path part : parts()) {
            String name = part.getFileName().toString();
            Optional<Upload> upload = uploads.byId(name.substring(0, name.length() - ENDING.length()));
            boolean keep = journal.isSetAside(name.substring(0, name.length() - ENDING.length()));
            if (!keep && (upload.isEmpty() || upload.get().state() != Upload.State.OPEN)) {
                delete(part);
                removed++;
            }
        }
        if (filed + cut + removed > 0) {
            LOG.info("Start-up repair: {} filed, {} unfinished uploads cut back to what was flushed, {} leftovers removed", filed, cut, removed);
        }
    }

    /** Removes uploads that rested too long. */
    @Scheduled(initialDelay = 60_000, fixedDelay = 3_600_000)
    void expire() {
        Acting.officeDoes(this::expireNow);
    }

    private void expireNow() {
        for (Upload upload : uploads.untouchedSince(clock.instant().minus(Uploads.LIFE))) {
            if (transactions.durably(() -> uploads.delete(upload.id())) == 1) {
                delete(store.incoming(upload.id()));
                LOG.info("Upload {} was not finished within {} days; removed its {} bytes", upload.id(), Uploads.LIFE.toDays(), upload.offsetBytes());
            }
        }
    }

    /** Bytes beyond the saved offset may not be flushed; missing ones mean the disk lost what it had promised, so the upload starts over from there. */
    private boolean fitToOffset(Upload upload) {
        Path part = store.incoming(upload.id());
        try {
            long size = Files.exists(part) ? Files.size(part) : 0;
            if (size > upload.offsetBytes()) {
                store.cutBack(part, upload.offsetBytes());
                return true;
            }
            if (size < upload.offsetBytes()) {
                LOG.warn("Start-up: upload {} has {} bytes on disk instead of {}; it goes on from there", upload.id(), size, upload.offsetBytes());
                transactions.durably(() -> uploads.advance(upload.id(), upload.offsetBytes(), size, clock.instant()));
            }
            return false;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private List<Path> parts() {
        try (Stream<Path> all = Files.list(folder.incoming())) {
            return all.filter(path -> path.toString().endsWith(ENDING)).toList();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static void delete(Path part) {
        try {
            Files.deleteIfExists(part);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }
}
