package oakbasket.server.removal;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * That a file was taken out.
 *
 * @param fileId the file; it has this id again when it is back
 * @param path where it lay
 * @param restoredAt when it was put back; null while it is out
 */
public record FileRemoval(long id, long fileId, String path, String reason, Instant removedAt, long removedBy, @Nullable Instant restoredAt,
        @Nullable Long restoredBy) {

    /** What it was called in its folder. */
    public String name() {
        return path.substring(path.lastIndexOf('/') + 1);
    }
}
