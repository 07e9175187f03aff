package oakbasket.server.review;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;

/** A file about to be recorded as received; the fields are those of {@link ReceivedFile}. */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record NewFile(String uploadId, long submissionId, long roundId, long basketId, long itemId, String originalName, String storedPath,
        long sizeBytes, byte[] sha256, String mediaType, Instant receivedAt, boolean keptApart, boolean unchecked, boolean opened) {
}
