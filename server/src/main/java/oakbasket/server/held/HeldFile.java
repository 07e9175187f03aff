package oakbasket.server.held;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A file in quarantine, or one that was there.
 *
 * @param uploadId the upload it came with; its bytes lie in the quarantine under this id
 * @param sha256 its SHA-256, 32 bytes
 * @param found what the scanner found; empty when it only could not be checked
 * @param waits whether it is received and waits to be checked; else it was refused
 * @param outcome what became of it; null while it lies there
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record HeldFile(long id, String uploadId, long submissionId, long roundId, long itemId, String originalName, long sizeBytes, byte[] sha256, String mediaType,
        Instant receivedAt, String found, boolean waits, @Nullable Outcome outcome, @Nullable Instant settledAt, @Nullable Long settledBy) {

    /** How it ended. */
    public enum Outcome {
        /** The scanner found nothing in it. */
        CLEAN,
        /** A coordinator let it in. */
        RELEASED,
        /** A coordinator had it destroyed. */
        DESTROYED
    }
}
