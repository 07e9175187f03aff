package oakbasket.server.upload;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A whole, verified file and the place chosen for it, as the journal keeps it until the database has it for certain.
 *
 * @param sha256 in lower-case hexadecimal
 * @param target its place below the folder of received files
 * @param mark what is to be remembered of it; null in a journal of an earlier version
 */
record Arrival(String uploadId, long submissionId, long itemId, String fileName, long lengthBytes, String sha256, String mediaType, String target,
        Instant receivedAt, @Nullable Mark mark) {

    /** What is to be remembered of it. */
    Mark marked() {
        return mark == null ? Mark.NONE : mark;
    }
}
