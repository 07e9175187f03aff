package oakbasket.server.root;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.UUID;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Roots;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Looks what can be done in a folder of this machine. */
@Component
class RootChecks {

    /**
     * What was found.
     *
     * @param there whether it can be reached
     * @param writable whether files can be made in it
     * @param links whether a file can have two names there, so that nothing is ever overwritten
     * @param sameDisk whether it lies on the disk of what arrives, so that filing copies nothing
     * @param freeBytes what can still be written; null when it cannot be reached
     */
    record Found(boolean there, boolean writable, boolean links, boolean sameDisk, @Nullable Long freeBytes) {
        static final Found AWAY = new Found(false, false, false, false, null);
    }

    private final Roots roots;
    private final DataFolder data;

    RootChecks(Roots roots, DataFolder data) {
        this.roots = roots;
        this.data = data;
    }

    Found look(long root) {
        return roots.isThere(root) ? look(roots.path(root)) : Found.AWAY;
    }

    private Found look(Path folder) {
        Path one = folder.resolve(".oak-copy-" + UUID.randomUUID());
        Path other = folder.resolve(".oak-copy-" + UUID.randomUUID());
        boolean writable = false;
        boolean links = false;
        try {
            Files.createFile(one);
            writable = true;
            Files.createLink(other, one);
            links = true;
        } catch (UnsupportedOperationException | IOException cannot) {
            links = false;
        } finally {
            remove(other);
            remove(one);
        }
        try {
            return new Found(true, writable, links, Files.getFileStore(folder).equals(Files.getFileStore(data.incoming())), Files.getFileStore(folder).getUsableSpace());
        } catch (IOException away) {
            return Found.AWAY;
        }
    }

    private static void remove(Path path) {
        try {
            Files.deleteIfExists(path);
        } catch (IOException left) {
            // A test file that cannot be removed harms nobody; its name says whose it is.
            return;
        }
    }

    /**
     * The folder that is typed for a new root.
     *
     * @throws Problem with status 422 when it cannot be used
     */
    Path usable(String typed) {
        Path path = read(typed);
        if (!Files.isDirectory(path)) {
            throw Problem.field("path", "root-no-folder");
        }
        Path real;
        try {
            real = path.toRealPath();
            Path own = data.files().toRealPath().getParent();
            for (Roots.Root root : roots.all()) {
                Path there = roots.path(root.id());
                if (Files.isDirectory(there) && (real.startsWith(there.toRealPath()) || there.toRealPath().startsWith(real))) {
                    throw Problem.field("path", "root-within-root");
                }
            }
            if (own != null && (real.startsWith(own) || own.startsWith(real))) {
                throw Problem.field("path", "root-within-root");
            }
        } catch (IOException away) {
            throw Problem.field("path", "root-no-folder");
        }
        Found found = look(real);
        if (!found.writable()) {
            throw Problem.field("path", "root-not-writable");
        }
        return real;
    }

    private static Path read(String typed) {
        try {
            Path path = Path.of(typed);
            if (!path.isAbsolute()) {
                throw Problem.field("path", "root-absolute");
            }
            return path;
        } catch (InvalidPathException wrong) {
            throw Problem.field("path", "root-absolute");
        }
    }
}
