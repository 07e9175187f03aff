package oakbasket.server.upload;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import oakbasket.core.arrival.ArchiveBudget;
import oakbasket.core.arrival.EntryName;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Hash;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.FileStore;
import oakbasket.server.unpack.ZipContents;
import org.springframework.stereotype.Component;

/**
 * Takes the files out of an archive as if each had been sent by itself. One that cannot be taken stops none of the others; and what came out before something
 * broke is received, so that the same archive sent again brings only the rest.
 */
@Component
class Unpacking {

    /**
     * What came of an archive.
     *
     * @param taken files that are received now, those of an earlier try included
     * @param leftOut what could not be taken, with the reason of each
     */
    record Unpacked(int taken, List<Problem.Named> leftOut) {
    }

    private final Arrivals arrivals;
    private final ContentGate gate;
    private final FileQuota quota;
    private final LinkQuota linkQuota;
    private final DiskPromises promises;
    private final ReceivedFiles files;
    private final Links links;
    private final FileStore store;
    private final Disk disk;
    private final SecretKeys keys;

    Unpacking(Arrivals arrivals, ContentGate gate, FileQuota quota, LinkQuota linkQuota, DiskPromises promises, ReceivedFiles files, Links links, FileStore store, Disk disk, SecretKeys keys) {
        this.arrivals = arrivals;
        this.gate = gate;
        this.quota = quota;
        this.linkQuota = linkQuota;
        this.promises = promises;
        this.files = files;
        this.links = links;
        this.store = store;
        this.disk = disk;
        this.keys = keys;
    }

    /**
     * Takes the files out.
     *
     * @param mark what is to be remembered of each
     * @throws Problem when the archive cannot be read or holds no file
     */
    Unpacked unpack(Upload archive, Destination destination, Path whole, Mark mark, Instant at) {
        // Each file takes its own place in the link from here on.
        linkQuota.rest(archive.id(), true);
        List<Problem.Named> leftOut = new ArrayList<>();
        int taken = 0;
        try (ZipContents contents = ZipContents.open(whole)) {
            ArchiveBudget budget = new ArchiveBudget(archive.lengthBytes(), destination.item().spec().mostArchiveBytes());
            Link link = links.byId(destination.submission().linkId());
            for (ZipEntry entry : contents.entries()) {
                EntryName.Verdict verdict = entry.isDirectory() ? EntryName.Verdict.NOTHING_SENT : EntryName.judge(entry.getName());
                if (verdict == EntryName.Verdict.NOTHING_SENT) {
                    continue;
                }
                try {
                    if (verdict != EntryName.Verdict.FILE) {
                        throw Problem.refused("entry-misplaced");
                    }
                    take(contents, entry, destination, link, budget, mark, at);
                    taken++;
                } catch (Problem refused) {
                    leftOut.add(new Problem.Named(entry.getName(), refused));
                } catch (ZipException damaged) {
                    leftOut.add(new Problem.Named(entry.getName(), Problem.refused("entry-damaged")));
                }
            }
        } catch (ZipException | IllegalArgumentException unreadable) {
            throw Problem.refused("archive-unreadable", archive.fileName());
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        if (taken == 0 && leftOut.isEmpty()) {
            throw Problem.refused("archive-empty", archive.fileName());
        }
        return new Unpacked(taken, leftOut);
    }

    private void take(ZipContents contents, ZipEntry entry, Destination destination, Link link, ArchiveBudget budget, Mark mark, Instant at) throws IOException {
        String name = entry.getName().replace('\\', '/');
        FileCheck.checkFile(destination.round(), destination.item(), name, entry.getSize());
        if (entry.getSize() > budget.left()) {
            throw Problem.refused("archive-too-much");
        }
        String id = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(Uploads.ID_BYTES));
        Upload file = new Upload(id, destination.submission().id(), destination.item().id(), name, entry.getSize(), 0, Upload.State.OPEN, at, "");
        // For the archive as a whole: what comes out of it is one caller's.
        promises.promise(id, link.id(), "archive", entry.getSize());
        try {
            byte[] hash = inflate(contents, entry, store.incoming(id));
            budget.take(entry.getSize());
            if (!files.receivedAs(file.submissionId(), file.itemId(), name, hash)) {
                String mediaType = gate.accepted(store.incoming(id), name, destination.round(), destination.item(), false);
                quota.during(destination.submission(), destination.item(), id, () -> {
                    linkQuota.take(link, id, name, entry.getSize());
                    try {
                        arrivals.arrive(file, false, destination, HexFormat.of().formatHex(hash), mediaType, at, mark);
                    } finally {
                        linkQuota.rest(id, true);
                    }
                    return true;
                });
            }
        } finally {
            promises.rest(id, 0);
            store.leave(id);
        }
    }

    private byte[] inflate(ZipContents contents, ZipEntry entry, Path to) throws IOException {
        MessageDigest digest = Hash.sha256();
        try (Disk.DiskFile file = disk.open(to, StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            try (OutputStream out = new BufferedOutputStream(new DigestOutputStream(into(file), digest), 1 << 18)) {
                contents.copy(entry, out);
            }
            file.force();
        }
        return digest.digest();
    }

    private static OutputStream into(Disk.DiskFile file) {
        return new OutputStream() {
            @Override
            public void write(int one) throws IOException {
                write(new byte[] {(byte) one}, 0, 1);
            }

            @Override
            public void write(byte[] bytes, int from, int length) throws IOException {
                ByteBuffer left = ByteBuffer.wrap(bytes, from, length);
                while (left.hasRemaining()) {
                    file.write(left);
                }
            }
        };
    }
}
