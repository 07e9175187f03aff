package oakbasket.server.loose;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Disk;
import oakbasket.server.storage.FileStore;
import oakbasket.server.upload.BodyPump;
import org.springframework.stereotype.Component;

/** Where the bytes of loose papers lie: beside what arrives, so that filing one never copies it. */
@Component
class LooseBytes {

    private static final String ENDING = ".loose";

    private final DataFolder folder;
    private final FileStore store;
    private final Disk disk;
    private final BodyPump pump;

    LooseBytes(DataFolder folder, FileStore store, Disk disk, BodyPump pump) {
        this.folder = folder;
        this.store = store;
        this.disk = disk;
        this.pump = pump;
    }

    Path path(String uploadId) {
        return folder.tray().resolve(uploadId + ENDING);
    }

    /**
     * Takes bytes in; they are flushed and whole when this returns, and nothing is left of them when it does not.
     *
     * @return their SHA-256
     * @throws Problem with status 400 when fewer or more came than were announced
     */
    byte[] take(String uploadId, InputStream body, long length) throws IOException {
        MessageDigest digest = Hash.sha256();
        Path path = path(uploadId);
        boolean whole = false;
        try (Disk.DiskFile file = disk.open(path, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
            BodyPump.Pumped pumped = pump.pump(body, file, length, digest, written -> { });
            if (pumped.bytes() < length || body.read() >= 0) {
                throw Problem.unreadable("unreadable");
            }
            file.force();
            whole = true;
        } finally {
            if (!whole) {
                disk.delete(path);
            }
        }
        disk.forceFolder(folder.tray());
        return digest.digest();
    }

    /** Gives the bytes also the name under which what arrives is filed. */
    void toArrive(String uploadId) {
        store.exchange(path(uploadId), store.incoming(uploadId));
    }

    /** Takes {@link #toArrive} back. */
    void notToArrive(String uploadId) throws IOException {
        store.leave(uploadId);
    }

    void destroy(String uploadId) {
        try {
            if (disk.delete(path(uploadId))) {
                disk.forceFolder(folder.tray());
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** The ids of bytes that were written last before an instant. */
    List<String> left(Instant before) throws IOException {
        try (Stream<Path> lying = Files.list(folder.tray())) {
            return lying.filter(path -> path.toFile().lastModified() < before.toEpochMilli()).map(path -> path.getFileName().toString()).filter(name -> name.endsWith(ENDING))
                    .map(name -> name.substring(0, name.length() - ENDING.length())).toList();
        }
    }
}
