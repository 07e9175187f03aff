package oakbasket.server.storage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import oakbasket.server.Settings;
import org.springframework.stereotype.Component;

/** The folders below the one data folder. Arriving bytes and the folders of received files share it, so that placing a file never copies it. */
@Component
public class DataFolder {

    private final Path root;
    private final java.nio.file.FileStore disk;

    DataFolder(Settings settings) {
        this.root = settings.data().toAbsolutePath().normalize();
        for (Path folder : new Path[] {root, files(), incoming(), quarantine(), tray(), outbox(), postIn(), parcels(), decoding(), keys(), root.resolve("db")}) {
            try {
                Files.createDirectories(folder);
                forTheServerAlone(folder, "rwx------");
            } catch (IOException problem) {
                throw new UncheckedIOException("Cannot make the folder " + folder + ". Check that the data folder can be written to (setting oakbasket.data)", problem);
            }
        }
        try {
            this.disk = Files.getFileStore(root);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Lets nobody else on this machine read a file or enter a folder, where the disk knows such rights. */
    public static void forTheServerAlone(Path path, String rights) throws IOException {
        if (Files.getFileStore(path).supportsFileAttributeView("posix")) {
            Files.setPosixFilePermissions(path, PosixFilePermissions.fromString(rights));
        }
    }

    /** The root of the folders that the coordinator's files lie in. */
    public Path files() {
        return root.resolve("files");
    }

    /** Where bytes wait until they are whole and verified. */
    public Path incoming() {
        return root.resolve("incoming");
    }

    /** Where files lie that nobody may open yet, under the ids of their uploads. */
    public Path quarantine() {
        return root.resolve("quarantine");
    }

    /** Where papers lie that came without a link, until somebody says whose they are; under ids. */
    public Path tray() {
        return root.resolve("tray");
    }

    /** Where messages lie as they came by mail, for a while. */
    public Path postIn() {
        return root.resolve("post-in");
    }

    /** Where the bytes of files lie that are handed out and were not received; under ids. */
    public Path parcels() {
        return root.resolve("parcels");
    }

    /** Where child processes find their program and write for a moment. Nothing in it is kept. */
    public Path decoding() {
        return root.resolve("decoding");
    }

    /** Where letters are put when there is no mail server. */
    public Path outbox() {
        return root.resolve("outbox");
    }

    /** Where the keys lie that the database must not hold. */
    public Path keys() {
        return root.resolve("keys");
    }

    Path database() {
        return root.resolve("db").resolve("oak-basket");
    }

    /** Bytes that can still be written, as the disk tells. */
    public long free() {
        try {
            return disk.getUsableSpace();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }
}
