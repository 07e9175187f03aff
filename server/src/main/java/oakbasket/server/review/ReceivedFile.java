package oakbasket.server.review;

import java.time.Instant;
import oakbasket.core.standing.FileFact;
import oakbasket.core.standing.Review;
import org.jspecify.annotations.Nullable;

/**
 * One file as it arrived.
 *
 * @param originalName as the sender's device called it, untrusted
 * @param storedPath its place below the folder of received files, segments parted by slashes
 * @param sizeBytes its length
 * @param sha256 its SHA-256, 32 bytes
 * @param mediaType as its content shows
 * @param keptApart whether it is claimed and counts for nothing until somebody says whose it is
 * @param otherPath while it moves: the place it goes to, then the one it came from; null when it rests
 */
public record ReceivedFile(long id, long submissionId, long roundId, long basketId, long itemId, String originalName, String storedPath,
        long sizeBytes, byte[] sha256, String mediaType, Instant receivedAt, Review review, @Nullable Instant reviewedAt, String reviewReason, boolean keptApart, @Nullable String otherPath) {

    /** What the rules need to know of it. */
    public FileFact fact() {
        return new FileFact(receivedAt, review, reviewedAt, keptApart);
    }

    /** The last segment of its place. */
    public String storedName() {
        return storedPath.substring(storedPath.lastIndexOf('/') + 1);
    }
}
