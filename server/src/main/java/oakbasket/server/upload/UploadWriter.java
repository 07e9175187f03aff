package oakbasket.server.upload;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.Clock;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.function.LongConsumer;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Writes the bytes of an upload at its offset, saves its progress, and settles it when it is whole. One writer at a time is the caller's care. */
@Component
class UploadWriter {

    private static final Logger LOG = LoggerFactory.getLogger(UploadWriter.class);
    private static final long SAVE_EVERY_BYTES = 64L << 20;
    private static final int MOST_RESTING = 1_000;

    /** The digest of an upload that rests at an offset. */
    private record Resting(MessageDigest digest, long offset) {
    }

    private final UploadTable table;
    private final Arrivals arrivals;
    private final Settling settling;
    private final FileStore store;
    private final Disk disk;
    private final BodyPump pump;
    private final Transactions transactions;
    private final Clock clock;
    /** So that going on need not read again what is there; lost at a restart. */
    private final Map<String, Resting> digests = Collections.synchronizedMap(new LinkedHashMap<>() {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Resting> eldest) {
            return size() > MOST_RESTING;
        }
    });

    UploadWriter(UploadTable table, Arrivals arrivals, Settling settling, FileStore store, Disk disk, BodyPump pump, Transactions transactions, Clock clock) {
        this.table = table;
        this.arrivals = arrivals;
        this.settling = settling;
        this.store = store;
        this.disk = disk;
        this.pump = pump;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** Gives an upload its row. */
    void insert(Upload upload) {
        transactions.quickly(() -> {
            table.insert(upload.id(), upload.submissionId(), upload.itemId(), upload.fileName(), upload.lengthBytes(), upload.touchedAt(), upload.metadata());
            return true;
        });
    }

    /** Forgets what was remembered of an upload that was given up. */
    void forget(String id) {
        digests.remove(id);
    }

    /** Writes what comes and settles the upload when it is whole; the destination is looked up when it is not known. */
    long write(Upload upload, boolean stored, @Nullable Destination known, InputStream body) throws IOException {
        Path path = store.incoming(upload.id());
        BodyPump.Pumped pumped;
        Resting begun = digests.remove(upload.id());
        MessageDigest digest;
        Saver saver = new Saver(upload);
        try (Disk.DiskFile file = disk.open(path, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (file.size() > upload.offsetBytes()) {
                store.cutBack(path, upload.offsetBytes());
            }
            file.position(upload.offsetBytes());
            digest = upload.offsetBytes() == 0 ? Hash.sha256()
                    : begun != null && begun.offset() == upload.offsetBytes() ? begun.digest() : digestOf(path);
            pumped = pump.pump(body, file, upload.lengthBytes() - upload.offsetBytes(), digest, stored ? saver.of(file) : written -> { });
            saver.finish();
            refuseSurplus(upload, pumped, path, body);
            file.force();
        }
        long offset = upload.offsetBytes() + pumped.bytes();
        if (offset < upload.lengthBytes()) {
            if (!stored && pumped.broken() != null) {
                // Whoever sent this never learned the address of the upload, so nobody could go on with it.
                store.leave(upload.id());
                return offset;
            }
            if (!stored) {
                insert(upload);
            }
            saver.save(offset);
            transactions.flush();
            digests.put(upload.id(), new Resting(digest, offset));
            if (pumped.broken() != null) {
                LOG.debug("Upload {} broke off at {} of {} bytes", upload.id(), offset, upload.lengthBytes(), pumped.broken());
            }
            return offset;
        }
        if (Files.size(path) != upload.lengthBytes()) {
            throw new IllegalStateException("Upload " + upload.id() + " has " + Files.size(path) + " bytes on disk instead of " + upload.lengthBytes());
        }
        settling.settle(upload, stored, known != null ? known : arrivals.destination(upload), digest.digest(), clock.instant());
        return offset;
    }

    /** Bytes beyond what was announced belong to no file that was promised; nothing of this request is then kept. */
    private void refuseSurplus(Upload upload, BodyPump.Pumped pumped, Path path, InputStream body) throws IOException {
        if (pumped.broken() == null && upload.offsetBytes() + pumped.bytes() == upload.lengthBytes() && body.read() >= 0) {
            store.cutBack(path, upload.offsetBytes());
            throw Problem.of(Problem.Kind.TOO_LARGE, "upload-surplus", upload.lengthBytes());
        }
    }

    /** Saves progress while bytes still come, each time after they are flushed. */
    private final class Saver {
        private final Upload upload;
        private long saved;
        private CompletableFuture<Void> running = CompletableFuture.completedFuture(null);

        Saver(Upload upload) {
            this.upload = upload;
            this.saved = upload.offsetBytes();
        }

        LongConsumer of(Disk.DiskFile file) {
            return written -> {
                long offset = upload.offsetBytes() + written;
                if (offset - saved >= SAVE_EVERY_BYTES && running.isDone()) {
                    long from = saved;
                    saved = offset;
                    running = CompletableFuture.runAsync(Acting.office(() -> flushAndSave(file, from, offset)));
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

        private void flushAndSave(Disk.DiskFile file, long from, long to) {
            try {
                file.force();
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
}
