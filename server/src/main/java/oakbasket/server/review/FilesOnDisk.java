package oakbasket.server.review;

import java.nio.file.Files;
import java.nio.file.Path;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import org.springframework.stereotype.Component;

/** Where received files lie. */
@Component
public class FilesOnDisk {

    private final FileStore store;
    private final Roots roots;

    FilesOnDisk(FileStore store, Roots roots) {
        this.roots = roots;
        this.store = store;
    }

    /**
     * The file itself.
     *
     * @throws Problem with status 409 when it is not where its record says
     */
    public Path present(ReceivedFile file) {
        if (file.purgedAt() != null) {
            throw Problem.of(Problem.Kind.GONE, "file-purged");
        }
        Path path = store.resolve(file.storedPath());
        if (!Files.isReadable(path)) {
            throw Problem.conflict("file-missing", roots.words(file.storedPath()));
        }
        return path;
    }
}
