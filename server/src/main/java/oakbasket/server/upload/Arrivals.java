package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Objects;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.Chosen;
import oakbasket.server.filing.Circumstances.Sent;
import oakbasket.server.filing.Deliveries;
import oakbasket.server.filing.Filing;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.NewFileBuilder;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/**
 * Turns whole bytes into a received file. The order makes every crash harmless: the bytes are flushed before; what arrived and the place chosen for it are
 * written to the journal and flushed; the file gets its place without overwriting and the folder is flushed; the record is committed; only then is the
 * sender told, and the name the bytes had while arriving removed. Start-up carries on with every arrival of the journal that has no record.
 */
@Service
class Arrivals {

    private static final Logger LOG = LoggerFactory.getLogger(Arrivals.class);

    private final UploadTable uploads;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Links links;
    private final Filing filing;
    private final Deliveries deliveries;
    private final FileStore store;
    private final ReceivedFiles files;
    private final Transactions transactions;
    private final LiveHub live;
    private final ArrivalJournal journal;

    Arrivals(UploadTable uploads, Submissions submissions, Baskets baskets, Rounds rounds, Links links, Filing filing, Deliveries deliveries, FileStore store, ReceivedFiles files,
            Transactions transactions, LiveHub live,
            ArrivalJournal journal) {
        this.uploads = uploads;
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
        this.links = links;
        this.filing = filing;
        this.deliveries = deliveries;
        this.store = store;
        this.files = files;
        this.transactions = transactions;
        this.live = live;
        this.journal = journal;
    }

    /**
     * Files whole, flushed bytes that were looked at.
     *
     * @param stored whether the upload has its row
     * @param sha256 in lower-case hexadecimal
     */
    void arrive(Upload upload, boolean stored, Destination destination, String sha256, String mediaType, Instant receivedAt, Mark mark) {
        Submission sending = submissions.bound(destination.submission().id());
        Basket basket = baskets.byId(Objects.requireNonNull(sending.basketId()));
        long[] recorded = {basket.id()};
        journal.whileArriving(() -> {
            Arrival arrival;
            Chosen chosen;
            do {
                chosen = filing.chooseForArrival(destination.round(), basket, sending, destination.item(), new Sent(upload.fileName(), upload.lengthBytes(), mediaType, receivedAt));
                arrival = new Arrival(upload.id(), upload.submissionId(), upload.itemId(), upload.fileName(), upload.lengthBytes(), sha256, mediaType, chosen.place(), receivedAt, mark);
                journal.append(arrival);
            } while (!placed(upload.id(), arrival.target()));
            try {
                recorded[0] = record(arrival, stored, destination, chosen);
            } catch (RuntimeException notRecorded) {
                store.unplace(store.incoming(upload.id()), arrival.target());
                if (notRecorded instanceof Problem refused && refused.kind() == Problem.Kind.GONE) {
                    transactions.durably(() -> uploads.finish(upload.id(), Upload.State.REFUSED));
                    leave(upload.id());
                }
                throw notRecorded;
            }
        });
        leave(upload.id());
        deliveries.wake();
        live.publish(new LiveEvent("arrival", destination.round().id(), recorded[0]));
    }

    /**
     * Carries on with an arrival that a crash may have left without a record.
     *
     * @return whether there was something to do
     */
    boolean carryOn(Arrival arrival) {
        if (files.receivedBy(arrival.uploadId())) {
            return false;
        }
        Path part = store.incoming(arrival.uploadId());
        Path target = store.resolve(arrival.target());
        boolean placed = Files.exists(part) ? store.isPlaced(part, arrival.target()) : is(target, arrival);
        if (!placed && !is(part, arrival)) {
            return false;
        }
        Upload upload = uploads.byId(arrival.uploadId()).orElseGet(() -> rowOf(arrival));
        // The database writes its tables to the disk one after another, so a crash in the middle can keep one half of a commit: this row, and not the record.
        if (upload.state() == Upload.State.DONE && transactions.quickly(() -> uploads.reopen(upload.id())) == 1) {
            LOG.warn("Start-up: upload {} is done and not recorded; what the journal says of it is recorded now", upload.id());
        }
        Submission sending = submissions.bound(arrival.submissionId());
        if (placed) {
            Destination destination = destination(upload);
            Chosen chosen = filing.chooseForArrival(destination.round(), baskets.byId(Objects.requireNonNull(sending.basketId())), sending, destination.item(),
                    new Sent(arrival.fileName(), arrival.lengthBytes(), arrival.mediaType(), arrival.receivedAt()));
            record(arrival, true, destination, chosen.at(arrival.target()));
        } else {
            store.removeReservation(arrival.target());
            arrive(upload, true, destination(upload), arrival.sha256(), arrival.mediaType(), arrival.receivedAt(), arrival.marked());
        }
        leave(arrival.uploadId());
        return true;
    }

    /** The row of an upload whose beginning the database lost. */
    private Upload rowOf(Arrival arrival) {
        uploads.insert(arrival.uploadId(), arrival.submissionId(), arrival.itemId(), arrival.fileName(), arrival.lengthBytes(), arrival.receivedAt(), "");
        return uploads.byId(arrival.uploadId()).orElseThrow();
    }

    private static boolean is(Path file, Arrival arrival) {
        try {
            if (!Files.isRegularFile(file) || Files.size(file) != arrival.lengthBytes()) {
                return false;
            }
            return HexFormat.of().formatHex(UploadWriter.digestOf(file).digest()).equals(arrival.sha256());
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Looks up the destination of an upload. */
    Destination destination(Upload upload) {
        Submission submission = submissions.byId(upload.submissionId());
        long round = links.byId(submission.linkId()).roundId();
        Item item = rounds.items(round).stream().filter(i -> i.id() == upload.itemId()).findFirst().orElseThrow();
        return new Destination(submission, rounds.opened(round), item);
    }

    /** Records the file with the basket its submission belongs to now: contacts may have been merged while the bytes came. */
    private long record(Arrival arrival, boolean stored, Destination destination, Chosen chosen) {
        return transactions.quickly(() -> {
            Submission sending = submissions.locked(arrival.submissionId());
            long basket = Objects.requireNonNull(sending.basketId());
            if (!stored) {
                uploads.insertWhole(arrival.uploadId(), arrival.submissionId(), arrival.itemId(), arrival.fileName(), arrival.lengthBytes(), Upload.State.DONE, arrival.receivedAt());
            } else if (uploads.finish(arrival.uploadId(), Upload.State.DONE) != 1) {
                throw Problem.notFound("no-upload");
            }
            if (!arrival.marked().counted()) {
                if (sending.files() == 0 && !sending.byDesk()) {
                    links.use(sending.linkId());
                }
                submissions.count(sending, arrival.lengthBytes(), arrival.receivedAt());
            }
            long file = files.record(NewFileBuilder.stagedBuilder().uploadId(arrival.uploadId()).submissionId(arrival.submissionId())
                    .roundId(destination.round().id()).basketId(basket).itemId(arrival.itemId()).originalName(arrival.fileName())
                    .storedPath(arrival.target()).sizeBytes(arrival.lengthBytes()).sha256(HexFormat.of().parseHex(arrival.sha256()))
                    .mediaType(arrival.mediaType()).receivedAt(arrival.receivedAt()).keptApart(sending.keptApart())
                    .unchecked(arrival.marked().unchecked()).opened(arrival.marked().opened()).build());
            filing.placed(file, destination.round().id(), chosen);
            return basket;
        });
    }

    /** Gives the bytes their place; when that fails in the middle, they have none. */
    private boolean placed(String uploadId, String target) {
        try {
            return store.place(store.incoming(uploadId), target);
        } catch (RuntimeException notPlaced) {
            store.unplace(store.incoming(uploadId), target);
            throw notPlaced;
        }
    }

    /** Removes the name the bytes had while arriving. The file is received whether that works or not; start-up removes what is left over. */
    private void leave(String uploadId) {
        try {
            store.leave(uploadId);
        } catch (IOException problem) {
            LOG.warn("The arriving name of upload {} could not be removed; it will be at the next start", uploadId, problem);
        }
    }
}
