package oakbasket.server.parcel;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Disk;
import oakbasket.server.upload.BodyPump;
import org.springframework.stereotype.Component;

/** Where the bytes of files lie that are handed out and were not received. */
@Component
class ParcelBytes {

    private static final String ENDING = ".parcel";

    private final DataFolder folder;
    private final Disk disk;
    private final BodyPump pump;

    ParcelBytes(DataFolder folder, Disk disk, BodyPump pump) {
        this.folder = folder;
        this.disk = disk;
        this.pump = pump;
    }

    Path path(String bytesId) {
        return folder.parcels().resolve(bytesId + ENDING);
    }

    /**
     * Writes further bytes; what came is flushed when this returns, also where the body broke off.
     *
     * @param offset how many are there; what lies beyond, which nobody was told of, goes
     * @param room how many may come
     * @return how many came
     * @throws Problem when more came than there is room for; nothing of them is kept then
     */
    long write(String bytesId, long offset, long room, InputStream body) throws IOException {
        try (Disk.DiskFile file = disk.open(path(bytesId), StandardOpenOption.CREATE, StandardOpenOption.WRITE)) {
            if (file.size() > offset) {
                file.truncate(offset);
            }
            file.position(offset);
            BodyPump.Pumped pumped = pump.pump(body, file, room, Hash.sha256(), written -> { });
            if (pumped.broken() == null && pumped.bytes() == room && body.read() >= 0) {
                file.truncate(offset);
                throw Problem.of(Problem.Kind.TOO_LARGE, "upload-surplus", offset + room);
            }
            file.force();
            disk.forceFolder(folder.parcels());
            return pumped.bytes();
        }
    }

    void destroy(String bytesId) {
        try {
            if (disk.delete(path(bytesId))) {
                disk.forceFolder(folder.parcels());
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** The ids of bytes that were written last before an instant. */
    List<String> left(Instant before) throws IOException {
        try (Stream<Path> lying = Files.list(folder.parcels())) {
            return lying.filter(path -> path.toFile().lastModified() < before.toEpochMilli()).map(path -> path.getFileName().toString()).filter(name -> name.endsWith(ENDING))
                    .map(name -> name.substring(0, name.length() - ENDING.length())).toList();
        }
    }
}
