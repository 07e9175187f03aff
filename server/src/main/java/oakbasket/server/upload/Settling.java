package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HexFormat;
import oakbasket.core.arrival.Archives;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.server.problem.Problem;
import oakbasket.server.scan.Scanned;
import oakbasket.server.scan.Scanner;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/** Settles an upload whose bytes are all flushed: looks what it is, has it checked for malware, opens it where it is an archive to be opened, and files it. */
@Service
class Settling {

    private static final Logger LOG = LoggerFactory.getLogger(Settling.class);

    private final ContentGate gate;
    private final Scanner scanner;
    private final Arrivals arrivals;
    private final Unpacking unpacking;
    private final Holding holding;
    private final UploadTable uploads;
    private final FileStore store;
    private final Transactions transactions;

    Settling(ContentGate gate, Scanner scanner, Arrivals arrivals, Unpacking unpacking, Holding holding, UploadTable uploads, FileStore store, Transactions transactions) {
        this.gate = gate;
        this.scanner = scanner;
        this.arrivals = arrivals;
        this.unpacking = unpacking;
        this.holding = holding;
        this.uploads = uploads;
        this.store = store;
        this.transactions = transactions;
    }

    /**
     * Settles it.
     *
     * @param stored whether the upload has its row; one whose bytes came with its beginning gets it with its record
     * @throws Problem when it is not taken, or not all of an archive; the sender can read why
     */
    void settle(Upload upload, boolean stored, Destination destination, byte[] sha256, Instant receivedAt) {
        Path whole = store.incoming(upload.id());
        String mediaType;
        Scanned scanned;
        try {
            mediaType = gate.accepted(whole, upload.fileName(), destination.round(), destination.item(), destination.item().spec().opens(upload.fileName()));
            scanned = scanner.scan(whole);
        } catch (Problem refused) {
            close(upload, stored, Upload.State.REFUSED, receivedAt);
            throw refused;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        ScanVerdict.Next next = scanned.verdict().next(destination.item().spec().arrival().unchecked());
        switch (next) {
            case FILED, FILED_WITH_MARK -> file(upload, stored, destination, HexFormat.of().formatHex(sha256), mediaType, receivedAt, new Mark(next == ScanVerdict.Next.FILED_WITH_MARK, false, false));
            case WAITS -> holding.hold(upload, stored, destination, sha256, mediaType, receivedAt, scanned);
            case QUARANTINED -> {
                holding.hold(upload, stored, destination, sha256, mediaType, receivedAt, scanned);
                throw Problem.refused("malware", upload.fileName());
            }
        }
    }

    private void file(Upload upload, boolean stored, Destination destination, String sha256, String mediaType, Instant at, Mark mark) {
        if (!destination.item().spec().opens(upload.fileName())) {
            arrivals.arrive(upload, stored, destination, sha256, mediaType, at, mark);
            return;
        }
        Unpacking.Unpacked unpacked;
        try {
            unpacked = unpacking.unpack(upload, destination, store.incoming(upload.id()), mark, at);
        } catch (Problem refused) {
            close(upload, stored, Upload.State.REFUSED, at);
            throw refused;
        }
        if (!unpacked.leftOut().isEmpty()) {
            close(upload, stored, Upload.State.REFUSED, at);
            throw Problem.refused(unpacked.taken() == 0 ? "archive-nothing" : "archive-partly", upload.fileName(), unpacked.taken(), unpacked.leftOut().size(),
                    new Problem.Several(unpacked.leftOut()));
        }
        if (destination.item().spec().arrival().archives() == Archives.OPENED_AND_KEPT) {
            arrivals.arrive(upload, stored, destination, sha256, mediaType, at, new Mark(mark.unchecked(), true, true));
        } else {
            close(upload, stored, Upload.State.OPENED, at);
        }
    }

    /** Files what lay in quarantine. Its sender is not there to be told, so an archive of which something cannot be taken is kept beside its files. */
    void fileLate(Upload upload, Destination destination, String sha256, String mediaType, Instant at, Mark mark) {
        boolean archive = destination.item().spec().opens(upload.fileName());
        if (archive) {
            boolean whole;
            try {
                whole = unpacking.unpack(upload, destination, store.incoming(upload.id()), mark, at).leftOut().isEmpty();
            } catch (Problem unreadable) {
                LOG.info("Upload {} cannot be opened ({}) and is filed as it is", upload.id(), unreadable.code());
                arrivals.arrive(upload, true, destination, sha256, mediaType, at, mark);
                return;
            }
            if (whole && destination.item().spec().arrival().archives() == Archives.OPENED) {
                close(upload, true, Upload.State.OPENED, at);
                return;
            }
        }
        arrivals.arrive(upload, true, destination, sha256, mediaType, at, new Mark(mark.unchecked(), archive, archive || mark.counted()));
    }

    /** Ends an upload that does not become a file. */
    private void close(Upload upload, boolean stored, Upload.State state, Instant at) {
        transactions.durably(() -> {
            if (stored) {
                uploads.finish(upload.id(), state);
            } else if (state != Upload.State.REFUSED) {
                uploads.insertWhole(upload.id(), upload.submissionId(), upload.itemId(), upload.fileName(), upload.lengthBytes(), state, at);
            }
        });
        try {
            store.leave(upload.id());
        } catch (IOException problem) {
            LOG.warn("What came of upload {} could not be removed; it will be at the next start", upload.id(), problem);
        }
    }
}
