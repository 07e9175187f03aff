package oakbasket.server.upload;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HexFormat;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.server.held.HeldFile;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.scan.Scanned;
import oakbasket.server.scan.Scanner;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;

/** Takes files out of the quarantine: what the scanner has cleared meanwhile, and what a coordinator decided. One at a time, so that nothing is decided twice. */
@Service
public class Release {

    private static final Logger LOG = LoggerFactory.getLogger(Release.class);

    private final HeldFiles held;
    private final ReceivedFiles files;
    private final UploadTable uploads;
    private final Arrivals arrivals;
    private final Settling settling;
    private final Scanner scanner;
    private final FileStore store;
    private final DataFolder folder;
    private final Transactions transactions;
    private final LiveHub live;

    Release(HeldFiles held, ReceivedFiles files, UploadTable uploads, Arrivals arrivals, Settling settling, Scanner scanner, FileStore store, DataFolder folder, Transactions transactions,
            LiveHub live) {
        this.held = held;
        this.files = files;
        this.uploads = uploads;
        this.arrivals = arrivals;
        this.settling = settling;
        this.scanner = scanner;
        this.store = store;
        this.folder = folder;
        this.transactions = transactions;
        this.live = live;
    }

    /**
     * Files it as if it had just arrived, at the time it did.
     *
     * @param account who let it in
     * @throws Problem with status 409 when somebody decided meanwhile
     */
    public synchronized void release(HeldFile file, long account) {
        admit(file, HeldFile.Outcome.RELEASED, account);
    }

    /**
     * Destroys it for good.
     *
     * @throws Problem with status 409 when somebody decided meanwhile
     */
    public synchronized void destroy(HeldFile file, long account) {
        transactions.durably(() -> {
            if (!held.settle(file, HeldFile.Outcome.DESTROYED, account)) {
                throw Problem.conflict("changed-elsewhere");
            }
            uploads.finish(file.uploadId(), Upload.State.REFUSED);
        });
        store.destroy(file.uploadId());
        tell(file);
    }

    /** Asks the scanner again about what waits, the oldest first, until it gives no answer. */
    @Scheduled(initialDelayString = "${oakbasket.scan-again-every:PT1M}", fixedDelayString = "${oakbasket.scan-again-every:PT1M}")
    void scanAgain() {
        Acting.officeDoes(this::scanAgainNow);
    }

    private void scanAgainNow() {
        for (HeldFile file : held.waiting()) {
            try {
                Scanned scanned = scanner.scan(store.quarantined(file.uploadId()));
                if (scanned.verdict() == ScanVerdict.UNCHECKED && scanned.readable()) {
                    return;
                }
                settleScanned(file, scanned);
            } catch (IOException | RuntimeException problem) {
                LOG.warn("File {} in quarantine could not be dealt with; it stays there", file.id(), problem);
            }
        }
    }

    private synchronized void settleScanned(HeldFile file, Scanned scanned) {
        if (!held.lies(file.uploadId())) {
            return;
        }
        if (scanned.verdict() == ScanVerdict.CLEAN) {
            admit(file, HeldFile.Outcome.CLEAN, null);
        } else if (scanned.verdict() == ScanVerdict.FOUND) {
            transactions.durably(() -> {
                if (held.condemn(file, scanned.found())) {
                    uploads.finish(file.uploadId(), Upload.State.FOUND);
                }
            });
            tell(file);
        }
    }

    private void admit(HeldFile file, HeldFile.Outcome outcome, @Nullable Long account) {
        if (!held.lies(file.uploadId())) {
            throw Problem.conflict("changed-elsewhere");
        }
        // A crash may have come between the file's record and this one's.
        if (!files.receivedBy(file.uploadId())) {
            store.unhold(file.uploadId());
            Upload upload = uploads.byId(file.uploadId()).orElseThrow();
            Mark mark = new Mark(file.waits() && outcome == HeldFile.Outcome.RELEASED, false, file.waits());
            settling.fileLate(upload, arrivals.destination(upload), HexFormat.of().formatHex(file.sha256()), file.mediaType(), file.receivedAt(), mark);
        }
        transactions.durably(() -> held.settle(file, outcome, account));
        store.destroy(file.uploadId());
        tell(file);
    }

    private void tell(HeldFile file) {
        live.publish(new LiveEvent(LiveEvent.HELD, file.roundId(), null));
    }

    /** Removes bytes from the quarantine that no record knows: a crash came before it, and nobody was told that they were received. */
    void removeUnknown() throws IOException {
        List<Path> lying;
        try (Stream<Path> all = Files.list(folder.quarantine())) {
            lying = all.toList();
        }
        for (Path path : lying) {
            String id = path.getFileName().toString().replace(".held", "");
            if (!held.lies(id)) {
                store.destroy(id);
            }
        }
    }
}
