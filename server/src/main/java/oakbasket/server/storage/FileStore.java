package oakbasket.server.storage;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.filing.Place;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The folder tree of received files. All untrusted paths pass through {@link #resolve}. */
@Component
public class FileStore {

    private static final int MOST_REMEMBERED_FOLDERS = 1_000;

    /** With this begin the names of copies on another disk until they are whole. */
    static final String COPY_MARK = ".oak-copy-";
    /** What POSIX calls EXDEV: the same disk mounted twice does not link from one to the other either. */
    private static final String OTHER_DISK = "cross-device";
    private static final int BUFFER = 1 << 18;

    private final DataFolder folder;
    private final Roots roots;
    private final Disk disk;
    private final Map<Path, GroupFlush> flushes = new ConcurrentHashMap<>();

    FileStore(DataFolder folder, Roots roots, Disk disk) {
        this.disk = disk;
        this.roots = roots;
        this.folder = folder;
    }

    /**
     * The path of a place.
     *
     * @param place as {@link Place} writes it
     * @throws IllegalArgumentException when it would lie outside its root
     */
    public Path resolve(String place) {
        Path root = roots.path(Place.root(place));
        Path path = root.resolve(Place.path(place)).normalize();
        if (!path.startsWith(root) || path.equals(root)) {
            throw new IllegalArgumentException("The path “" + place + "” lies outside the folder of received files");
        }
        return path;
    }

    /** What stands in the way of a place; null when nothing does. What lies behind a link that leads out of the root is not ours. */
    public @Nullable Obstacle obstacle(String place) {
        if (!roots.isThere(Place.root(place))) {
            return Obstacle.ROOT_AWAY;
        }
        Path root = roots.path(Place.root(place));
        Path there = folderOf(resolve(place));
        while (!Files.exists(there, LinkOption.NOFOLLOW_LINKS) && !there.equals(root)) {
            there = folderOf(there);
        }
        try {
            return !Files.isDirectory(there) ? Obstacle.FILE_IN_THE_WAY : there.toRealPath().startsWith(root.toRealPath()) ? null : Obstacle.LEADS_OUT;
        } catch (IOException problem) {
            return Obstacle.ROOT_AWAY;
        }
    }

    /** What can stand in the way of a place. */
    public enum Obstacle {
        /** Its root cannot be reached. */
        ROOT_AWAY,
        /** A link on the way to it leads out of the root. */
        LEADS_OUT,
        /** A file has the name of a folder on the way to it. */
        FILE_IN_THE_WAY
    }

    /** Where the bytes of an upload gather. */
    public Path incoming(String uploadId) {
        if (!uploadId.matches("[A-Za-z0-9_-]+")) {
            throw new IllegalArgumentException("Not an upload: " + uploadId.length() + " characters");
        }
        return folder.incoming().resolve(uploadId + ".part");
    }

    /** Where the bytes of an upload lie while nobody may open them. */
    public Path quarantined(String uploadId) {
        return folder.quarantine().resolve(incoming(uploadId).getFileName().toString().replace(".part", ".held"));
    }

    /** Takes whole, flushed bytes to the quarantine; they keep the name they had while arriving until {@link #leave}, where the disk knows two names. */
    public void hold(String uploadId) {
        exchange(incoming(uploadId), quarantined(uploadId));
    }

    /** Takes bytes out of the quarantine to where they arrived, to be placed; they also stay until {@link #destroy}. */
    public void unhold(String uploadId) {
        exchange(quarantined(uploadId), incoming(uploadId));
    }

    /** Removes bytes from the quarantine. */
    public void destroy(String uploadId) {
        try {
            if (disk.delete(quarantined(uploadId))) {
                flushFolder(folder.quarantine());
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Gives whole, flushed bytes a second name in another folder of the data folder, for certain; nothing happens where they have it. */
    public void exchange(Path from, Path to) {
        try {
            try {
                link(from, to);
            } catch (FileAlreadyExistsException before) {
                if (!Files.exists(from) || !Files.isSameFile(from, to)) {
                    throw before;
                }
            }
            flushFolder(folderOf(to));
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot move what arrived to " + to.getFileName(), problem);
        }
    }

    /**
     * Gives whole, flushed bytes their place, never overwriting, and flushes the folder. The bytes then have both names, until the caller has
     * recorded the file and removes the first one.
     *
     * @return false when the place is taken
     */
    public boolean place(Path whole, String relative) {
        Path target = resolve(relative);
        if (obstacle(relative) != null) {
            throw new UncheckedIOException(new IOException("Cannot place a file: " + obstacle(relative)));
        }
        try {
            makeFolders(folderOf(target));
            try {
                if (onOneDisk(whole, target)) {
                    link(whole, target);
                } else {
                    copy(whole, target);
                }
            } catch (FileAlreadyExistsException taken) {
                return false;
            }
            flushFolder(folderOf(target));
            return true;
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot place a file at " + relative, problem);
        }
    }

    /** Puts a copy of a placed file at another place, with bytes of its own, never overwriting. @return false when the place is taken */
    public boolean copyTo(String from, String to) {
        if (obstacle(to) != null) {
            throw new UncheckedIOException(new IOException("Cannot place a copy: " + obstacle(to)));
        }
        try {
            Path target = resolve(to);
            makeFolders(folderOf(target));
            copy(resolve(from), target);
            flushFolder(folderOf(target));
            return true;
        } catch (FileAlreadyExistsException taken) {
            return false;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Removes a file from its place for good. @return whether there was one */
    public boolean remove(String place) {
        try {
            Path path = resolve(place);
            boolean there = disk.delete(path);
            if (there) {
                flushFolder(folderOf(path));
            }
            return there;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** Removes a folder, and those around it, as long as nothing lies in them; roots stay. */
    public void removeEmptyFolders(String folder) {
        for (String place = folder; !place.isEmpty() && !place.endsWith("/") && place.lastIndexOf('/') != 0; place = Place.folder(place)) {
            try {
                if (place.startsWith(":") && place.indexOf('/') < 0 || !disk.delete(resolve(place))) {
                    return;
                }
            } catch (IOException notEmpty) {
                return;
            }
        }
    }

    private static boolean onOneDisk(Path whole, Path target) throws IOException {
        return Files.getFileStore(whole).equals(Files.getFileStore(folderOf(target)));
    }

    /** Copies to another disk: under a name of its own until it is flushed and its content is what it should be. */
    private void copy(Path whole, Path target) throws IOException {
        if (Files.exists(target, LinkOption.NOFOLLOW_LINKS)) {
            throw new FileAlreadyExistsException(target.toString());
        }
        Path part = folderOf(target).resolve(COPY_MARK + UUID.randomUUID());
        try {
            MessageDigest read = sha256();
            try (InputStream in = Files.newInputStream(whole); Disk.DiskFile out = disk.open(part, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE)) {
                byte[] buffer = new byte[BUFFER];
                for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                    read.update(buffer, 0, n);
                    ByteBuffer bytes = ByteBuffer.wrap(buffer, 0, n);
                    while (bytes.hasRemaining()) {
                        out.write(bytes);
                    }
                }
                out.force();
            }
            if (!MessageDigest.isEqual(read.digest(), digest(part))) {
                throw new IOException("A copy differs from what was copied");
            }
            link(part, target);
        } finally {
            disk.delete(part);
        }
    }

    /** Whether a file lies at a place and has just this content. */
    public boolean holds(String place, byte[] sha256) {
        try {
            return Files.isRegularFile(resolve(place)) && Arrays.equals(digest(resolve(place)), sha256);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** The SHA-256 of a file. */
    public static byte[] digest(Path file) throws IOException {
        MessageDigest digest = sha256();
        try (InputStream in = Files.newInputStream(file)) {
            byte[] buffer = new byte[BUFFER];
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                digest.update(buffer, 0, n);
            }
        }
        return digest.digest();
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException absent) {
            throw new IllegalStateException(absent);
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

    /**
     * Removes one of two names of the same file, or of its copy on another disk; any other file that has this name stays.
     *
     * @throws UncheckedIOException also when the file cannot be found under the name that it keeps
     */
    public void removeName(String relative, String sameFile) {
        try {
            Path extra = resolve(relative);
            Path kept = resolve(sameFile);
            if (Files.exists(extra) && (Files.isSameFile(extra, kept) || !onOneDisk(extra, kept) && Files.size(extra) == Files.size(kept) && Arrays.equals(digest(extra), digest(kept)))) {
                disk.delete(extra);
                flushFolder(folderOf(extra));
            }
        } catch (NoSuchFileException gone) {
            if (Files.exists(resolve(relative))) {
                throw new UncheckedIOException(gone);
            }
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
        } catch (UnsupportedOperationException | FileSystemException noLinks) {
            if (noLinks instanceof FileAlreadyExistsException taken) {
                throw taken;
            }
            if (noLinks instanceof FileSystemException crossing && String.valueOf(crossing.getReason()).contains(OTHER_DISK)) {
                copy(whole, target);
                return;
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
