package oakbasket.server.loose;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A paper that came without a link.
 *
 * @param uploadId by which its bytes are known, and by which it is filed once only; another one each time it comes back to the tray
 * @param foundAt the place it was found at; empty where it was not found
 * @param fromAddress who sent it by mail; empty where it came otherwise
 * @param basketHint the basket it is supposed to be for; null where nothing tells
 * @param unchecked whether no malware scanner has looked at it
 * @param accountId who put it in; null where nobody did
 * @param submissionId the sending it was filed with last
 * @param fileId the file it became
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record LooseFile(long id, String uploadId, Way cameBy, String foundAt, String fileName, long sizeBytes, byte[] sha256, String mediaType, boolean unchecked, Instant cameAt, @Nullable Long accountId,
        State state, @Nullable Long submissionId, @Nullable Long fileId,
        String fromAddress, @Nullable Long basketHint) {

    /** How it came. */
    public enum Way {
        /** A coordinator put it in. */
        DESK,
        /** It was found in a folder. */
        DISK,
        /** It was sent by mail. */
        MAIL
    }

    /** What became of it. */
    public enum State {
        OPEN,
        /** It is being filed. */
        FILING,
        FILED,
        /** Somebody took it out of the tray. */
        OUT
    }
}
