package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.basket.Submission;
import oakbasket.server.link.Link;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
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
    private static final int ID_BYTES = 18;
    private static final int LONGEST_NAME = 1_000;

    private static final Logger LOG = LoggerFactory.getLogger(Uploads.class);

    private final UploadTable table;
    private final Arrivals arrivals;
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
    private final Limits limits;
    private final Clock clock;
    private final Set<String> locked = ConcurrentHashMap.newKeySet();

    Uploads(UploadTable table, Arrivals arrivals, FileQuota quota, LinkQuota linkQuota, RefusedUploads refusals, FileStore store, Disk disk, DataFolder folder, UploadWriter writer, SecretKeys keys,
            Transactions transactions, DiskPromises promises, Limits limits, Clock clock) {
        this.promises = promises;
        this.table = table;
        this.arrivals = arrivals;
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
        return table.byId(id).filter(u -> u.state() != Upload.State.REFUSED).orElseThrow(() -> Problem.notFound("no-upload"));
    }

    /**
     * Begins an upload whose bytes will follow.
     *
     * @param metadata what the client says of it, to be told again
     * @param caller the caller's address, by which limits count
     * @throws Problem when the file cannot be accepted, told before its bytes are sent
     */
    Upload begin(Link link, Destination destination, String fileName, long length, String metadata, String caller) {
        Upload upload = fresh(link, destination, fileName, length, metadata, caller);
        try {
            quota.take(destination.submission(), destination.item(), () -> {
                linkQuota.take(link, upload.id(), fileName, length);
                linkQuota.rest(upload.id(), false);
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
    Upload beginWithBytes(Link link, Destination destination, String fileName, long length, String metadata, String caller, InputStream body) {
        Upload upload = fresh(link, destination, fileName, length, metadata, caller);
        try {
            return quota.during(destination.submission(), destination.item(), upload.id(), () -> {
                linkQuota.take(link, upload.id(), fileName, length);
                long missing = 0;
                try {
                    promises.promise(upload.id(), link.id(), caller, length);
                    long offset = writer.write(upload, false, destination, body);
                    missing = length - offset;
                    return new Upload(upload.id(), upload.submissionId(), upload.itemId(), fileName, length, offset, Upload.State.OPEN, upload.touchedAt(), metadata);
                } finally {
                    promises.rest(upload.id(), missing);
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

    /** The sender never learned the address of this upload; what came of it must not turn up later beside a second try. */
    private void discard(String id) {
        try {
            store.leave(id);
        } catch (IOException problem) {
            LOG.warn("What came of upload {} could not be removed", id, problem);
        }
    }

    private Upload fresh(Link link, Destination destination, String fileName, long length, String metadata, String caller) {
        if (destination.submission().finishedAt() != null) {
            throw Problem.conflict("submission-finished");
        }
        check(destination, fileName, length);
        limits.count(Limits.Kind.UPLOAD, link.id() + " " + caller);
        return fresh(destination.submission(), destination.item(), fileName, length, metadata);
    }

    private Upload fresh(Submission submission, Item item, String fileName, long length, String metadata) {
        String id = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES));
        return new Upload(id, submission.id(), item.id(), fileName, length, 0, Upload.State.OPEN, clock.instant(), metadata);
    }

    private static void check(Destination destination, String fileName, long length) {
        check(destination.round(), destination.item(), fileName, length);
    }

    /**
     * What can be said of a file by its name and length.
     *
     * @throws Problem when it cannot be accepted
     */
    static void check(Round round, Item item, String fileName, long length) {
        if (fileName.isBlank() || fileName.length() > LONGEST_NAME) {
            throw Problem.refused("file-name", LONGEST_NAME);
        }
        if (length == 0) {
            throw Problem.refused("file-empty", fileName);
        }
        if (length > item.spec().maxBytes()) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "upload-too-large", fileName, mebibytes(length), mebibytes(item.spec().maxBytes()));
        }
        KindCheck.Verdict verdict = KindCheck.byName(item.spec().kinds(), fileName, round.takesActive());
        if (verdict != KindCheck.Verdict.ACCEPTED) {
            throw KindRefusal.of(verdict, fileName, item);
        }
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
        Upload upload = fresh(submission, item, fileName, content.length, "");
        writer.insert(upload);
        try (Disk.DiskFile file = disk.open(store.incoming(upload.id()), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            file.write(java.nio.ByteBuffer.wrap(content));
            file.force();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        arrivals.receive(upload, true, arrivals.destination(upload), Hash.sha256().digest(content), at);
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

    /** A size for a refusal. */
    static String mebibytes(long bytes) {
        return String.format(java.util.Locale.ROOT, "%.1f MiB", bytes / 1048576.0);
    }
}
