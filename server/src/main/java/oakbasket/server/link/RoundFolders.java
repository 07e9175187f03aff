package oakbasket.server.link;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import org.springframework.stereotype.Component;

/** The folders that rounds have files in: whether somebody took one away, and making it again. */
@Component
class RoundFolders {

    private final ReceivedFiles files;
    private final FileStore store;

    RoundFolders(ReceivedFiles files, FileStore store) {
        this.files = files;
        this.store = store;
    }

    /** The rounds of which a folder with files in it is gone, or is no folder any more. */
    Set<Long> gone() {
        return files.topFolders().stream().filter(folder -> !Files.isDirectory(store.resolve(folder.name()))).map(ReceivedFiles.TopFolder::roundId).collect(Collectors.toSet());
    }

    /**
     * Makes the folders of a round again, empty.
     *
     * @return how many were made
     * @throws Problem with status 409 when something else lies in their place
     */
    int mend(long roundId) {
        List<ReceivedFiles.TopFolder> missing = files.topFolders().stream().filter(folder -> folder.roundId() == roundId && !Files.isDirectory(store.resolve(folder.name()))).toList();
        for (ReceivedFiles.TopFolder folder : missing) {
            if (Files.exists(store.resolve(folder.name()))) {
                throw Problem.conflict("folder-is-file", folder.name());
            }
            try {
                Files.createDirectories(store.resolve(folder.name()));
            } catch (IOException problem) {
                throw new UncheckedIOException(problem);
            }
        }
        return missing.size();
    }
}
