package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Base64;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import java.util.regex.Pattern;
import oakbasket.server.basket.Submission;
import oakbasket.server.link.Link;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.space.Spaces;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/** Takes in files: begins uploads, moves their bytes, and settles them when they are whole. */
@Service
public class Uploads {

    /** How long an unfinished upload may rest before it is removed. */
    static final Duration LIFE = Duration.ofDays(7);

    /** How Linux says that a disk, or somebody's share of it, is full (ENOSPC, EDQUOT). */
    private static final Pattern FULL = Pattern.compile("No space left|quota exceeded");
    static final int ID_BYTES = 18;

    private static final Logger LOG = LoggerFactory.getLogger(Uploads.class);

    private final UploadTable table;
    private final Arrivals arrivals;
    private final Settling settling;
    private final FileQuota quota;
    private final LinkQuota linkQuota;
    private final RefusedUploads refusals;
    private final FileStore store;
    private final Disk disk;
    private final DataFolder folder;
    private final UploadWriter writer;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final DiskPromises promises;
    private final Spaces spaces;
    private final Limits limits;
    private final Clock clock;
    private final Set<String> locked = ConcurrentHashMap.newKeySet();

    Uploads(UploadTable table, Arrivals arrivals, Settling settling, FileQuota quota, LinkQuota linkQuota, RefusedUploads refusals, FileStore store, Disk disk, DataFolder folder, UploadWriter writer, SecretKeys keys,
            Transactions transactions, DiskPromises promises, Spaces spaces, Limits limits, Clock clock) {
        this.spaces = spaces;
        this.promises = promises;
        this.table = table;
        this.arrivals = arrivals;
        this.settling = settling;
        this.quota = quota;
        this.linkQuota = linkQuota;
        this.refusals = refusals;
        this.store = store;
        this.disk = disk;
        this.folder = folder;
        this.writer = writer;
        this.keys = keys;
        this.transactions = transactions;
        this.limits = limits;
        this.clock = clock;
    }

    /** Finds an upload. */
    Upload find(String id) {
        return table.byId(id).filter(u -> u.state().known()).orElseThrow(() -> Problem.notFound("no-upload"));
    }

    /**
     * What a client tells of a file.
     *
     * @param metadata all it says, to be told again
     * @param once chosen by the client: who begins a second time with the same, because an answer was lost, gets the same upload; null when it does not say
     */
    record Told(String fileName, long length, String metadata, @Nullable String once) {
    }

    /**
     * Begins an upload whose bytes will follow.
     *
     * @param caller the caller's address, by which limits count
     * @throws Problem when the file cannot be accepted, told before its bytes are sent
     */
    Upload begin(Link link, Destination destination, Told told, String caller) {
        return told.once() == null ? begin(link, destination, told, fresh(link, destination, told, caller), caller)
                : onlyOnce(destination.submission(), told, () -> begin(link, destination, told, fresh(link, destination, told, caller), caller));
    }

    private Upload begin(Link link, Destination destination, Told told, Upload upload, String caller) {
        String fileName = told.fileName();
        long length = told.length();
        try {
            quota.take(destination, upload, () -> {
                linkQuota.take(link, upload.id(), fileName, length);
                linkQuota.rest(upload.id(), false);
                room(link, upload.id(), length);
                spaces.rest(upload.id());
                promises.promise(upload.id(), link.id(), caller, length);
                promises.rest(upload.id(), length);
                writer.insert(upload);
            });
        } catch (Problem refused) {
            throw refusals.noted(link, refused);
        }
        transactions.flush();
        return upload;
    }

    /**
     * Begins an upload and takes the bytes that come with its beginning, often all of them.
     *
     * @return the upload with the offset it has then
     * @throws Problem when the file cannot be accepted
     */
    Upload beginWithBytes(Link link, Destination destination, Told told, String caller, InputStream body) {
        return told.once() == null ? beginWithBytes(link, destination, told, fresh(link, destination, told, caller), caller, body)
                : onlyOnce(destination.submission(), told, () -> beginWithBytes(link, destination, told, fresh(link, destination, told, caller), caller, body));
    }

    /** What was begun before is answered as it stands; what is just being taken in is not taken in beside it. */
    private Upload onlyOnce(Submission submission, Told told, Supplier<Upload> begin) {
        String id = idOf(submission, told);
        if (!lock(id)) {
            throw Problem.of(Problem.Kind.LOCKED, "upload-locked");
        }
        try {
            Upload before = table.byId(id).orElse(null);
            if (before == null) {
                return begin.get();
            }
            if (!before.state().known() || before.lengthBytes() != told.length()) {
                throw Problem.notFound("no-upload");
            }
            return before;
        } finally {
            locked.remove(id);
        }
    }

    private String idOf(Submission submission, Told told) {
        byte[] id = told.once() == null ? keys.random(ID_BYTES)
                : Arrays.copyOf(keys.sign(("once " + submission.id() + " " + told.once()).getBytes(StandardCharsets.UTF_8)), ID_BYTES);
        return Base64.getUrlEncoder().withoutPadding().encodeToString(id);
    }

    private Upload beginWithBytes(Link link, Destination destination, Told told, Upload upload, String caller, InputStream body) {
        String fileName = told.fileName();
        long length = told.length();
        try {
            return quota.during(destination, upload, () -> {
                linkQuota.take(link, upload.id(), fileName, length);
                long missing = 0;
                try {
                    room(link, upload.id(), length);
                    promises.promise(upload.id(), link.id(), caller, length);
                    long offset = writer.write(upload, false, destination, body);
                    missing = length - offset;
                    return new Upload(upload.id(), upload.submissionId(), upload.itemId(), fileName, length, offset, Upload.State.OPEN, upload.touchedAt(), told.metadata());
                } finally {
                    promises.rest(upload.id(), missing);
                    spaces.rest(upload.id());
                    linkQuota.rest(upload.id(), missing == 0);
                }
            });
        } catch (IOException | UncheckedIOException problem) {
            discard(upload.id());
            throw notStored(upload.id(), problem);
        } catch (RuntimeException refused) {
            discard(upload.id());
            throw refused instanceof Problem problem ? refusals.noted(link, problem) : refused;
        }
    }

    /** Takes room in the round, of its owner and of the office. */
    private void room(Link link, String id, long length) {
        spaces.take(link.roundId(), null, id, length, () -> table.byId(id).filter(known -> known.state() != Upload.State.OPEN).isPresent());
    }

    /** The sender never learned the address of this upload; what came of it must not turn up later beside a second try. */
    private void discard(String id) {
        spaces.giveBack(id);
        try {
            store.leave(id);
        } catch (IOException problem) {
            LOG.warn("What came of upload {} could not be removed", id, problem);
        }
    }

    private Upload fresh(Link link, Destination destination, Told told, String caller) {
        if (destination.submission().finishedAt() != null) {
            throw Problem.conflict("submission-finished");
        }
        FileCheck.check(destination.round(), destination.item(), told.fileName(), told.length());
        limits.count(Limits.Kind.UPLOAD, link.id() + " " + caller);
        return fresh(destination.submission(), destination.item(), told);
    }

    private Upload fresh(Submission submission, Item item, Told told) {
        return new Upload(idOf(submission, told), submission.id(), item.id(), told.fileName(), told.length(), 0, Upload.State.OPEN, clock.instant(), told.metadata());
    }

    /**
     * Takes bytes at an offset.
     *
     * @param caller the caller's address, by which limits count
     * @return the offset after it
     * @throws Problem with status 409 for a wrong offset, 423 while another request writes
     */
    long receive(Link link, String id, long expectedOffset, String caller, InputStream body) {
        if (!lock(id)) {
            throw Problem.of(Problem.Kind.LOCKED, "upload-locked");
        }
        long missing = 0;
        try {
            Upload upload = find(id);
            if (expectedOffset != upload.offsetBytes()) {
                throw Problem.conflict("offset", upload.offsetBytes());
            }
            if (upload.state() != Upload.State.OPEN) {
                return upload.offsetBytes();
            }
            missing = upload.lengthBytes() - upload.offsetBytes();
            linkQuota.take(link, id, upload.fileName(), upload.lengthBytes());
            room(link, id, upload.lengthBytes());
            promises.promise(id, link.id(), caller, missing);
            long offset = writer.write(upload, true, null, body);
            missing = upload.lengthBytes() - offset;
            return offset;
        } catch (IOException | UncheckedIOException problem) {
            throw notStored(id, problem);
        } catch (Problem refused) {
            throw refusals.noted(link, refused);
        } finally {
            promises.rest(id, missing);
            spaces.rest(id);
            linkQuota.rest(id, missing == 0);
            locked.remove(id);
        }
    }

    /** Gives an unfinished upload up. */
    void remove(String id) {
        if (!lock(id)) {
            throw Problem.of(Problem.Kind.LOCKED, "upload-locked");
        }
        try {
            Upload upload = find(id);
            if (upload.state() != Upload.State.OPEN || transactions.durably(() -> table.delete(id)) != 1) {
                throw Problem.conflict("received-already");
            }
            promises.rest(id, 0);
            spaces.giveBack(id);
            linkQuota.rest(id, true);
            writer.forget(id);
            store.leave(id);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } finally {
            locked.remove(id);
        }
    }

    /** Takes in a whole file at a time of the past; only the demo does. */
    public void receiveWhole(Submission submission, Item item, String fileName, byte[] content, Instant at) {
        Upload upload = fresh(submission, item, new Told(fileName, content.length, "", null));
        writer.insert(upload);
        try (Disk.DiskFile file = disk.open(store.incoming(upload.id()), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            file.write(java.nio.ByteBuffer.wrap(content));
            file.force();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        settling.settle(upload, true, arrivals.destination(upload), Hash.sha256().digest(content), at);
    }

    /** When an upload is removed if nothing more comes. */
    Instant expires(Upload upload) {
        return upload.touchedAt().plus(LIFE);
    }

    private boolean lock(String id) {
        return locked.add(id);
    }

    /** A disk that filled up while bytes came is told as such; what came before stays, and the sender can go on later. */
    private RuntimeException notStored(String id, Exception problem) {
        Throwable cause = problem.getCause() == null ? problem : problem.getCause();
        boolean full = FULL.matcher(String.valueOf(cause.getMessage())).find();
        return full || folder.free() < DiskPromises.SPARE_BYTES ? Problem.of(Problem.Kind.NO_ROOM, "disk-full")
                : new IllegalStateException("Cannot store upload " + id, problem);
    }
}
