package oakbasket.server.review;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collection;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.CheckedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Roots;
import org.springframework.stereotype.Component;

/** Where received files lie. */
@Component
public class FilesOnDisk {

    private final FileStore store;
    private final Roots roots;
    private final CheckedFiles checked;

    FilesOnDisk(FileStore store, Roots roots, CheckedFiles checked) {
        this.checked = checked;
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

    /**
     * The file itself, about to be given out or shown: only while it holds what was received and checked.
     *
     * @throws Problem with status 409 when it is not where its record says, or holds something else now
     */
    public Path leaving(ReceivedFile file) {
        Path path = present(file);
        try {
            if (!checked.holds(path, file.sha256())) {
                throw Problem.conflict("file-altered", roots.words(file.storedPath()));
            }
        } catch (IOException gone) {
            throw Problem.conflict("file-missing", roots.words(file.storedPath()));
        }
        return path;
    }

    /** Where a file lies by its record, whether or not it does. */
    public Path place(ReceivedFile file) {
        return store.resolve(file.storedPath());
    }

    /** Notes that a file was just read and holds what it should. @throws IOException when it is gone */
    public void foundRight(ReceivedFile file) throws IOException {
        checked.note(present(file), file.sha256());
    }

    /** Looks up what is known of many files at once, before each of them leaves. */
    public void warm(Collection<ReceivedFile> files) {
        checked.warm(files.stream().filter(file -> file.purgedAt() == null).map(file -> store.resolve(file.storedPath())).toList());
    }
}
