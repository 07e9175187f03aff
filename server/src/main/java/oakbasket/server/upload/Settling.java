package oakbasket.server.upload;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Objects;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.Filing;
import oakbasket.server.link.Links;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.review.NewFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Problem;
import org.springframework.stereotype.Service;

/**
 * Turns whole bytes into a received file. The order makes every crash harmless: the bytes are flushed before; the chosen place is noted durably
 * (PLACING); the file gets its place without overwriting and the folder is flushed; the record is committed durably (DONE); only then is the
 * sender told, and the name the bytes had while arriving removed. Start-up carries on from wherever a crash left an upload.
 */
@Service
class Settling {

    private final UploadTable uploads;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Links links;
    private final Filing filing;
    private final FileStore store;
    private final ReceivedFiles files;
    private final ContentLook look;
    private final Transactions transactions;
    private final LiveHub live;

    Settling(UploadTable uploads, Submissions submissions, Baskets baskets, Rounds rounds, Links links, Filing filing, FileStore store, ReceivedFiles files,
            ContentLook look, Transactions transactions, LiveHub live) {
        this.uploads = uploads;
        this.submissions = submissions;
        this.baskets = baskets;
        this.rounds = rounds;
        this.links = links;
        this.filing = filing;
        this.store = store;
        this.files = files;
        this.look = look;
        this.transactions = transactions;
        this.live = live;
    }

    /** Everything around an upload that its place and its record need. */
    private record Setting(Submission submission, Basket basket, Round round, Item item) {
    }

    /**
     * Settles an upload whose bytes are all flushed.
     *
     * @throws Problem when the content is of a kind that is not accepted; the bytes are then removed
     */
    void settle(Upload upload, byte[] sha256, Instant receivedAt) {
        Setting setting = setting(upload);
        Path whole = store.incoming(upload.id());
        String mediaType = accepted(upload, setting.item(), whole);
        String target = choose(upload, setting, receivedAt);
        note(upload, sha256, mediaType, target, receivedAt);
        while (!store.place(whole, target)) {
            target = choose(upload, setting, receivedAt);
            note(upload, sha256, mediaType, target, receivedAt);
        }
        record(upload, setting, sha256, mediaType, target, receivedAt);
    }

    /** Carries on with an upload that was being placed when the server stopped. */
    void carryOn(Upload upload) {
        byte[] sha256 = Objects.requireNonNull(upload.sha256());
        String target = Objects.requireNonNull(upload.targetPath());
        Instant receivedAt = Objects.requireNonNull(upload.receivedAt());
        Path whole = store.incoming(upload.id());
        boolean placed = Files.exists(whole) ? store.isPlaced(whole, target) : Files.exists(store.resolve(target));
        if (placed) {
            record(upload, setting(upload), sha256, Objects.requireNonNull(upload.mediaType()), target, receivedAt);
        } else {
            settle(upload, sha256, receivedAt);
        }
    }

    private Setting setting(Upload upload) {
        Submission submission = submissions.byId(upload.submissionId());
        Basket basket = baskets.byId(submission.basketId());
        Item item = rounds.items(basket.roundId()).stream().filter(i -> i.id() == upload.itemId()).findFirst().orElseThrow();
        return new Setting(submission, basket, rounds.opened(basket.roundId()), item);
    }

    private String accepted(Upload upload, Item item, Path whole) {
        try {
            String mediaType = look.mediaType(whole, upload.fileName());
            KindCheck.Verdict verdict = KindCheck.byContent(item.spec().kinds(), upload.fileName(), mediaType);
            if (verdict != KindCheck.Verdict.ACCEPTED) {
                transactions.durably(() -> uploads.finish(upload.id(), Upload.State.OPEN, Upload.State.REFUSED));
                Files.deleteIfExists(whole);
                throw KindRefusal.of(verdict, upload.fileName(), item);
            }
            return mediaType;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private String choose(Upload upload, Setting setting, Instant receivedAt) {
        return filing.choose(setting.round(), setting.basket(), setting.submission(), setting.item(), upload.fileName(), receivedAt);
    }

    private void note(Upload upload, byte[] sha256, String mediaType, String target, Instant receivedAt) {
        if (transactions.durably(() -> uploads.placing(upload.id(), sha256, mediaType, target, receivedAt)) != 1) {
            throw Problem.notFound("no-upload");
        }
    }

    private void record(Upload upload, Setting setting, byte[] sha256, String mediaType, String target, Instant receivedAt) {
        transactions.durably(() -> {
            if (uploads.finish(upload.id(), Upload.State.PLACING, Upload.State.DONE) != 1) {
                throw new IllegalStateException("Upload " + upload.id() + " was not being placed");
            }
            if (files.ofSubmission(upload.submissionId()).isEmpty()) {
                links.use(setting.submission().linkId());
            }
            files.record(new NewFile(upload.id(), upload.submissionId(), setting.round().id(), setting.basket().id(), upload.itemId(), upload.fileName(),
                    target, upload.lengthBytes(), sha256, mediaType, receivedAt));
        });
        try {
            Files.deleteIfExists(store.incoming(upload.id()));
        } catch (IOException leftForStartUp) {
            throw new UncheckedIOException(leftForStartUp);
        }
        live.publish(new LiveEvent("arrival", setting.round().id(), setting.basket().id()));
    }
}
