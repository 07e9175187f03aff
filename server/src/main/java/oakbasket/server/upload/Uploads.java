package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.filekind.KindCheck;
import oakbasket.server.basket.Submission;
import oakbasket.server.link.Hash;
import oakbasket.server.link.Link;
import oakbasket.server.round.Item;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.SecretKeys;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Limits;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/** Takes in files: begins uploads, moves their bytes, and settles them when they are whole. */
@Service
public class Uploads {

    /** How long an unfinished upload may rest before it is removed. */
    static final Duration LIFE = Duration.ofDays(7);

    private static final Logger LOG = LoggerFactory.getLogger(Uploads.class);
    private static final int ID_BYTES = 18;
    private static final int LONGEST_NAME = 1_000;
    /** Left free on the disk for everything else. */
    private static final long SPARE_BYTES = 256L << 20;
    private static final long SAVE_EVERY_BYTES = 64L << 20;

    private record Begun(MessageDigest digest, long offset) {
    }

    private final UploadTable table;
    private final Settling settling;
    private final Places places;
    private final FileStore store;
    private final DataFolder folder;
    private final BodyPump pump;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Limits limits;
    private final Clock clock;
    private final Set<String> locked = ConcurrentHashMap.newKeySet();
    /** Digests of uploads that rest, so that going on need not read again what is there; lost at a restart. */
    private final Map<String, Begun> digests = new ConcurrentHashMap<>();

    Uploads(UploadTable table, Settling settling, Places places, FileStore store, DataFolder folder, BodyPump pump, SecretKeys keys,
            Transactions transactions, Limits limits, Clock clock) {
        this.table = table;
        this.settling = settling;
        this.places = places;
        this.store = store;
        this.folder = folder;
        this.pump = pump;
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
     * @throws Problem when the file cannot be accepted, told before its bytes are sent
     */
    Upload begin(Link link, Submission submission, Item item, String fileName, long length) {
        Upload upload = fresh(link, submission, item, fileName, length);
        places.take(submission, item, () -> insert(upload));
        transactions.flush();
        return upload;
    }

    /**
     * Begins an upload and takes the bytes that come with its beginning, often all of them.
     *
     * @return the upload with the offset it has then
     * @throws Problem when the file cannot be accepted
     */
    Upload beginWithBytes(Link link, Setting setting, String fileName, long length, InputStream body) {
        Upload upload = fresh(link, setting.submission(), setting.item(), fileName, length);
        places.take(setting.submission(), setting.item(), () -> { });
        try {
            long offset = write(upload, false, setting, body);
            return new Upload(upload.id(), upload.submissionId(), upload.itemId(), fileName, length, offset, Upload.State.OPEN, upload.touchedAt());
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot store upload " + upload.id(), problem);
        }
    }

    private Upload fresh(Link link, Submission submission, Item item, String fileName, long length) {
        if (submission.finishedAt() != null) {
            throw Problem.conflict("submission-finished");
        }
        check(item, fileName, length);
        limits.count(Limits.Kind.UPLOAD, Long.toString(link.id()));
        return fresh(submission, item, fileName, length);
    }

    private Upload fresh(Submission submission, Item item, String fileName, long length) {
        String id = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(ID_BYTES));
        return new Upload(id, submission.id(), item.id(), fileName, length, 0, Upload.State.OPEN, clock.instant());
    }

    private void insert(Upload upload) {
        transactions.quickly(() -> {
            table.insert(upload.id(), upload.submissionId(), upload.itemId(), upload.fileName(), upload.lengthBytes(), upload.touchedAt());
            return true;
        });
    }

    private void check(Item item, String fileName, long length) {
        if (fileName.isBlank() || fileName.length() > LONGEST_NAME) {
            throw Problem.refused("file-name", LONGEST_NAME);
        }
        if (length == 0) {
            throw Problem.refused("file-empty", fileName);
        }
        if (length > item.spec().maxBytes()) {
            throw Problem.of(HttpStatus.CONTENT_TOO_LARGE, "file-too-large", fileName, mebibytes(length), mebibytes(item.spec().maxBytes()));
        }
        KindCheck.Verdict verdict = KindCheck.byName(item.spec().kinds(), fileName);
        if (verdict != KindCheck.Verdict.ACCEPTED) {
            throw KindRefusal.of(verdict, fileName, item);
        }
        if (folder.free() - SPARE_BYTES < length) {
            throw Problem.of(HttpStatus.INSUFFICIENT_STORAGE, "disk-full");
        }
    }

    /**
     * Takes bytes at an offset.
     *
     * @return the offset after it
     * @throws Problem with status 409 for a wrong offset, 423 while another request writes
     */
    long receive(String id, long expectedOffset, InputStream body) {
        if (!lock(id)) {
            throw Problem.of(HttpStatus.LOCKED, "upload-locked");
        }
        try {
            Upload upload = find(id);
            if (expectedOffset != upload.offsetBytes()) {
                throw Problem.conflict("offset", upload.offsetBytes());
            }
            if (upload.state() != Upload.State.OPEN) {
                return upload.offsetBytes();
            }
            return write(upload, true, null, body);
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot store upload " + id, problem);
        } finally {
            locked.remove(id);
        }
    }

    /** Writes what comes and settles the upload when it is whole; the setting is looked up when it is not known. */
    private long write(Upload upload, boolean stored, @Nullable Setting known, InputStream body) throws IOException {
        Path path = store.incoming(upload.id());
        BodyPump.Pumped pumped;
        Begun begun = digests.remove(upload.id());
        MessageDigest digest;
        Saver saver = new Saver(upload);
        try (FileChannel file = FileChannel.open(path, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (file.size() > upload.offsetBytes()) {
                store.cutBack(path, upload.offsetBytes());
            }
            file.position(upload.offsetBytes());
            digest = upload.offsetBytes() == 0 ? Hash.sha256()
                    : begun != null && begun.offset() == upload.offsetBytes() ? begun.digest() : digestOf(path);
            pumped = pump.pump(body, file, upload.lengthBytes() - upload.offsetBytes(), digest, stored ? saver.of(file) : written -> { });
            saver.finish();
            file.force(false);
        }
        long offset = upload.offsetBytes() + pumped.bytes();
        if (offset < upload.lengthBytes()) {
            if (!stored && pumped.broken() != null) {
                // Whoever sent this never learned the address of the upload, so nobody could go on with it.
                places.forget(upload.submissionId(), upload.itemId());
                Files.deleteIfExists(path);
                return offset;
            }
            if (!stored) {
                insert(upload);
            }
            saver.save(offset);
            transactions.flush();
            digests.put(upload.id(), new Begun(digest, offset));
            if (pumped.broken() != null) {
                LOG.debug("Upload {} broke off at {} of {} bytes", upload.id(), offset, upload.lengthBytes(), pumped.broken());
            }
            return offset;
        }
        if (Files.size(path) != upload.lengthBytes()) {
            throw new IllegalStateException("Upload " + upload.id() + " has " + Files.size(path) + " bytes on disk instead of " + upload.lengthBytes());
        }
        settling.settle(upload, stored, known != null ? known : settling.setting(upload), digest.digest(), clock.instant());
        return offset;
    }

    /** Saves progress while bytes still come, each time after they are flushed. */
    private final class Saver {
        private final Upload upload;
        private long saved;
        private java.util.concurrent.CompletableFuture<Void> running = java.util.concurrent.CompletableFuture.completedFuture(null);

        Saver(Upload upload) {
            this.upload = upload;
            this.saved = upload.offsetBytes();
        }

        java.util.function.LongConsumer of(FileChannel file) {
            return written -> {
                long offset = upload.offsetBytes() + written;
                if (offset - saved >= SAVE_EVERY_BYTES && running.isDone()) {
                    long from = saved;
                    saved = offset;
                    running = java.util.concurrent.CompletableFuture.runAsync(() -> flushAndSave(file, from, offset));
                }
            };
        }

        void finish() {
            running.join();
        }

        void save(long offset) {
            if (offset > saved) {
                advance(saved, offset);
                saved = offset;
            }
        }

        private void flushAndSave(FileChannel file, long from, long to) {
            try {
                file.force(false);
                advance(from, to);
            } catch (IOException problem) {
                throw new UncheckedIOException(problem);
            }
        }

        private void advance(long from, long to) {
            if (transactions.quickly(() -> table.advance(upload.id(), from, to, clock.instant())) != 1) {
                throw new IllegalStateException("Upload " + upload.id() + " is not at " + from);
            }
        }
    }

    /** Gives an unfinished upload up. */
    void remove(String id) {
        if (!lock(id)) {
            throw Problem.of(HttpStatus.LOCKED, "upload-locked");
        }
        try {
            Upload upload = find(id);
            if (upload.state() != Upload.State.OPEN || transactions.durably(() -> table.delete(id)) != 1) {
                throw Problem.conflict("received-already");
            }
            places.forget(upload.submissionId(), upload.itemId());
            digests.remove(id);
            Files.deleteIfExists(store.incoming(id));
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        } finally {
            locked.remove(id);
        }
    }

    /** Takes in a whole file at a time of the past; only the demo does. */
    public void receiveWhole(Submission submission, Item item, String fileName, byte[] content, Instant at) {
        Upload upload = fresh(submission, item, fileName, content.length);
        insert(upload);
        try (FileChannel file = FileChannel.open(store.incoming(upload.id()), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            file.write(java.nio.ByteBuffer.wrap(content));
            file.force(false);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        settling.settle(upload, true, settling.setting(upload), Hash.sha256().digest(content), at);
    }

    /** When an upload is removed if nothing more comes. */
    Instant expires(Upload upload) {
        return upload.touchedAt().plus(LIFE);
    }

    private boolean lock(String id) {
        return locked.add(id);
    }

    /** The digest of the bytes on disk: needed only after a restart. */
    static MessageDigest digestOf(Path path) throws IOException {
        MessageDigest digest = Hash.sha256();
        byte[] buffer = new byte[256 * 1024];
        try (InputStream in = Files.newInputStream(path)) {
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                digest.update(buffer, 0, read);
            }
        }
        return digest;
    }

    private static String mebibytes(long bytes) {
        return String.format(java.util.Locale.ROOT, "%.1f MiB", bytes / 1048576.0);
    }
}
