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
 * @param unchecked whether nobody could check it for malware
 * @param opened whether it is an archive whose files were taken out; it counts for nothing
 * @param inTray whether it waits in the tray for somebody to decide where it goes
 * @param trayDecided whether somebody decided it in the tray, so that no rule sends it there again
 * @param assigned whether it was given to another person than its sending belongs to
 * @param purgedAt when its content was destroyed for good; null while it is there
 * @param otherPath while it moves: the place it goes to, then the one it came from; null when it rests
 */
public record ReceivedFile(long id, long submissionId, long roundId, long basketId, long itemId, String originalName, String storedPath,
        long sizeBytes, byte[] sha256, String mediaType, Instant receivedAt, Review review, @Nullable Instant reviewedAt, String reviewReason, boolean keptApart, boolean unchecked, boolean opened,
        boolean inTray, boolean trayDecided, boolean assigned, @Nullable String otherPath,
        @Nullable Instant purgedAt) {

    /** Whether it is one of its person's papers: neither claimed by somebody else nor an archive beside its own files. */
    public boolean counts() {
        return !keptApart && !opened;
    }

    /** What the rules need to know of it. */
    public FileFact fact() {
        return new FileFact(receivedAt, review, reviewedAt, keptApart);
    }

    /** The last segment of its place. */
    public String storedName() {
        return storedPath.substring(storedPath.lastIndexOf('/') + 1);
    }
}
