package oakbasket.server.storage;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** The folder tree of received files. All untrusted paths pass through {@link #resolve}. */
@Component
public class FileStore {

    private static final int MOST_REMEMBERED_FOLDERS = 1_000;

    private final DataFolder folder;
    private final Disk disk;
    private final Map<Path, GroupFlush> flushes = new ConcurrentHashMap<>();

    FileStore(DataFolder folder, Disk disk) {
        this.disk = disk;
        this.folder = folder;
    }

    /**
     * The place of a stored path.
     *
     * @param relative segments parted by slashes
     * @throws IllegalArgumentException when it would lie outside the root
     */
    public Path resolve(String relative) {
        Path root = folder.files();
        Path path = root.resolve(relative).normalize();
        if (!path.startsWith(root) || path.equals(root)) {
            throw new IllegalArgumentException("The path “" + relative + "” lies outside the folder of received files");
        }
        return path;
    }

    /** Where the bytes of an upload gather. */
    public Path incoming(String uploadId) {
        if (!uploadId.matches("[A-Za-z0-9_-]+")) {
            throw new IllegalArgumentException("Not an upload: " + uploadId.length() + " characters");
        }
        return folder.incoming().resolve(uploadId + ".part");
    }

    /**
     * Gives whole, flushed bytes their place, never overwriting, and flushes the folder. The bytes then have both names, until the caller has
     * recorded the file and removes the first one.
     *
     * @return false when the place is taken
     */
    public boolean place(Path whole, String relative) {
        Path target = resolve(relative);
        try {
            makeFolders(folderOf(target));
            try {
                link(whole, target);
            } catch (FileAlreadyExistsException taken) {
                return false;
            }
            flushFolder(folderOf(target));
            return true;
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot place a file at " + relative, problem);
        }
    }

    /** Takes a place back that was given by {@link #place} and could not be recorded; the bytes stay under their first name. */
    public void unplace(Path whole, String relative) {
        try {
            if (Files.exists(whole)) {
                if (isPlaced(whole, relative)) {
                    disk.delete(resolve(relative));
                }
            } else if (Files.exists(resolve(relative))) {
                disk.replace(resolve(relative), whole);
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /**
     * Shortens gathered bytes. Bytes that have a place in the folders are never touched.
     *
     * @throws IllegalStateException when they have one
     */
    public void cutBack(Path part, long length) throws IOException {
        if (Files.getFileStore(part).supportsFileAttributeView("unix") && (int) Files.getAttribute(part, "unix:nlink") > 1) {
            throw new IllegalStateException(part.getFileName() + " is a file that has its place and will not be shortened");
        }
        try (Disk.DiskFile file = disk.open(part, StandardOpenOption.WRITE)) {
            file.truncate(length);
            file.force();
        }
    }

    /** Removes the empty reservation that a crash may leave on a disk without hard links. */
    public void removeReservation(String relative) {
        Path target = resolve(relative);
        try {
            if (Files.isRegularFile(target) && Files.size(target) == 0) {
                disk.delete(target);
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Removes the name that the bytes of an upload had while arriving; nothing else has any use for it. */
    public void leave(String uploadId) throws IOException {
        disk.delete(incoming(uploadId));
    }

    /** Removes one of two names of the same file; any other file that has this name stays. */
    public void removeName(String relative, String sameFile) {
        try {
            Path extra = resolve(relative);
            if (Files.exists(extra) && Files.isSameFile(extra, resolve(sameFile))) {
                disk.delete(extra);
                flushFolder(folderOf(extra));
            }
        } catch (NoSuchFileException gone) {
            return;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Whether a placed file and the gathered bytes are one and the same. */
    public boolean isPlaced(Path whole, String relative) {
        try {
            return Files.isSameFile(whole, resolve(relative));
        } catch (NoSuchFileException absent) {
            return false;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private void link(Path whole, Path target) throws IOException {
        try {
            disk.link(target, whole);
        } catch (UnsupportedOperationException | java.nio.file.FileSystemException noLinks) {
            if (noLinks instanceof FileAlreadyExistsException taken) {
                throw taken;
            }
            // A disk without hard links: reserve the name, then replace the reservation in one step.
            disk.reserve(target);
            disk.replace(whole, target);
        }
    }

    /** The folder of a place below the root, which always has one. */
    private static Path folderOf(Path place) {
        return Objects.requireNonNull(place.getParent());
    }

    private void makeFolders(Path wanted) throws IOException {
        if (Files.isDirectory(wanted)) {
            return;
        }
        makeFolders(folderOf(wanted));
        try {
            disk.makeFolder(wanted);
        } catch (FileAlreadyExistsException madeMeanwhile) {
            if (!Files.isDirectory(wanted)) {
                throw madeMeanwhile;
            }
        }
        flushFolder(folderOf(wanted));
    }

    private void flushFolder(Path path) {
        if (flushes.size() > MOST_REMEMBERED_FOLDERS) {
            flushes.clear();
        }
        flushes.computeIfAbsent(path, p -> new GroupFlush(() -> force(p))).await();
    }

    private void force(Path path) {
        try {
            disk.forceFolder(path);
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot flush " + path, problem);
        }
    }
}
