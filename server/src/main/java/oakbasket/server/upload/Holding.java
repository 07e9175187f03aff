package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.held.HeldFileBuilder;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.scan.Scanned;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Component;

/** Takes whole bytes to the quarantine. They are there for certain before the record is, and the record before anybody is told. */
@Component
class Holding {

    private final UploadTable uploads;
    private final HeldFiles held;
    private final Submissions submissions;
    private final Links links;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;

    Holding(UploadTable uploads, HeldFiles held, Submissions submissions, Links links, FileStore store, Transactions transactions, LiveHub live) {
        this.uploads = uploads;
        this.held = held;
        this.submissions = submissions;
        this.links = links;
        this.store = store;
        this.transactions = transactions;
        this.live = live;
    }

    /** Holds it. What waits to be checked is received: it belongs to a basket and has been counted. */
    void hold(Upload upload, boolean stored, Destination destination, byte[] sha256, String mediaType, Instant at, Scanned scanned) {
        boolean waits = scanned.verdict() == ScanVerdict.UNCHECKED;
        if (waits) {
            submissions.bound(upload.submissionId());
        }
        store.hold(upload.id());
        transactions.durably(() -> {
            Upload.State state = waits ? Upload.State.WAITING : Upload.State.FOUND;
            if (stored) {
                uploads.finish(upload.id(), state);
            } else {
                uploads.insertWhole(upload.id(), upload.submissionId(), upload.itemId(), upload.fileName(), upload.lengthBytes(), state, at);
            }
            held.record(HeldFileBuilder.stagedBuilder().id(0).uploadId(upload.id()).submissionId(upload.submissionId()).roundId(destination.round().id()).itemId(upload.itemId())
                    .originalName(upload.fileName()).sizeBytes(upload.lengthBytes()).sha256(sha256).mediaType(mediaType).receivedAt(at).found(scanned.found()).waits(waits).outcome(null).settledAt(null).settledBy(null).build());
            if (waits) {
                Submission sending = submissions.locked(upload.submissionId());
                if (sending.files() == 0) {
                    links.use(sending.linkId());
                }
                submissions.count(sending, upload.lengthBytes(), at);
            }
        });
        try {
            store.leave(upload.id());
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        live.publish(new LiveEvent(LiveEvent.HELD, destination.round().id(), waits ? submissions.byId(upload.submissionId()).basketId() : destination.submission().basketId()));
    }
}
