package oakbasket.server.review;

import java.nio.file.Files;
import java.nio.file.Path;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.FileStore;
import org.springframework.stereotype.Component;

/** Where received files lie. */
@Component
public class FilesOnDisk {

    private final FileStore store;

    FilesOnDisk(FileStore store) {
        this.store = store;
    }

    /**
     * The file itself.
     *
     * @throws Problem with status 409 when it is not where its record says
     */
    public Path present(ReceivedFile file) {
        Path path = store.resolve(file.storedPath());
        if (!Files.isReadable(path)) {
            throw Problem.conflict("file-missing", file.storedPath());
        }
        return path;
    }
}
