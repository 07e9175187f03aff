package oakbasket.server.parcel;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.zip.CRC32;
import oakbasket.core.arrival.ScanVerdict;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.scan.Scanner;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.CheckedFiles;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.ContentLook;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/** Reads every file of a parcel once before it is handed out: its hash and what a ZIP needs of it, whether it is what was received, and whether it holds malware. */
@Component
class ParcelChecks {

    private static final Logger LOG = LoggerFactory.getLogger(ParcelChecks.class);
    private static final int BUFFER = 1 << 18;
    private static final long LARGE_BYTES = 64L << 20;

    private final ParcelFileTable table;
    private final ParcelBytes bytes;
    private final ReceivedFiles received;
    private final FilesOnDisk disk;
    private final Scanner scanner;
    private final ContentLook look;
    private final Parcels parcels;
    private final CheckedFiles checked;
    private final Transactions transactions;
    private final LiveHub live;
    private final AtomicBoolean done = new AtomicBoolean();
    private final ExecutorService small = threads(2);
    private final ExecutorService large = threads(1);
    private final Set<Long> under = ConcurrentHashMap.newKeySet();

    ParcelChecks(ParcelFileTable table, ParcelBytes bytes, ReceivedFiles received, FilesOnDisk disk, Scanner scanner, ContentLook look, Parcels parcels, CheckedFiles checked, Transactions transactions, LiveHub live) {
        this.table = table;
        this.bytes = bytes;
        this.received = received;
        this.disk = disk;
        this.scanner = scanner;
        this.look = look;
        this.parcels = parcels;
        this.checked = checked;
        this.transactions = transactions;
        this.live = live;
    }

    /** Has what waits read, the small beside the large, so that nobody waits behind somebody else's film; what a restart interrupted is read again. Parcels that waited for it are handed out. */
    @Scheduled(fixedDelayString = "${oakbasket.parcels-every:PT1S}")
    void look() {
        Acting.officeDoes(this::lookNow);
    }

    private void lookNow() {
        if (done.getAndSet(false)) {
            parcels.handOutWhatIsReady();
        }
        for (ParcelFile file : table.checking()) {
            if (under.add(file.id())) {
                (file.sizeBytes() > LARGE_BYTES ? large : small).execute(Acting.office(() -> looked(file)));
            }
        }
    }

    private void looked(ParcelFile file) {
        try {
            check(file);
            live.publish(LiveEvent.PARCELS);
        } finally {
            under.remove(file.id());
            // Once for all that were read since, and not once for each of some thousands.
            done.set(true);
        }
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        small.shutdownNow();
        large.shutdownNow();
    }

    private static ExecutorService threads(int many) {
        return Executors.newFixedThreadPool(many, work -> {
            Thread thread = new Thread(work, "parcel-check");
            thread.setDaemon(true);
            return thread;
        });
    }

    private void check(ParcelFile file) {
        try {
            Path path = path(file);
            CRC32 crc = new CRC32();
            MessageDigest digest = Hash.sha256();
            long length = 0;
            byte[] buffer = new byte[BUFFER];
            try (InputStream in = Files.newInputStream(path)) {
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    crc.update(buffer, 0, n);
                    digest.update(buffer, 0, n);
                    length += n;
                }
            }
            byte[] sha256 = digest.digest();
            Long from = file.receivedFileId();
            if (length != file.sizeBytes() || from != null && !Arrays.equals(sha256, received.byId(from).sha256())) {
                refuse(file, "parcel.changed");
                return;
            }
            ScanVerdict verdict = scanner.scan(path).verdict();
            if (verdict == ScanVerdict.FOUND) {
                refuse(file, "parcel.malware");
                return;
            }
            checked.note(path, sha256);
            String type = look.mediaType(path, file.fileName());
            transactions.durably(() -> table.ready(file.id(), sha256, crc.getValue(), type, verdict == ScanVerdict.UNCHECKED));
        } catch (IOException | Problem gone) {
            refuse(file, "parcel.gone");
        } catch (RuntimeException broken) {
            LOG.error("File {} of parcel {} could not be looked at", file.id(), file.parcelId(), broken);
            refuse(file, "parcel.gone");
        }
    }

    private Path path(ParcelFile file) {
        Long from = file.receivedFileId();
        if (from == null) {
            return bytes.path(String.valueOf(file.bytesId()));
        }
        ReceivedFile known = received.byId(from);
        return disk.present(known);
    }

    private void refuse(ParcelFile file, String trouble) {
        transactions.durably(() -> table.turn(file.id(), ParcelFile.State.CHECKING, ParcelFile.State.REFUSED, trouble));
    }
}
