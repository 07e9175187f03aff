package oakbasket.server.upload;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A file on its way in.
 *
 * @param id random, the last part of its tus URL
 * @param offsetBytes how many bytes are flushed to disk
 * @param sha256 of the whole; null until all bytes are there
 * @param targetPath the place chosen for it; null until all bytes are verified
 * @param receivedAt when the last byte was stored and verified; null before
 * @param touchedAt when something last came
 */
record Upload(String id, long submissionId, long itemId, String fileName, long lengthBytes, long offsetBytes, State state, byte @Nullable [] sha256,
        @Nullable String mediaType, @Nullable String targetPath, @Nullable Instant receivedAt, Instant touchedAt) {

    /** The states, in the order of a file's way. */
    enum State {
        /** Bytes are coming. */
        OPEN,
        /** Whole and verified; its place is chosen and noted, so that a crash from here on is mended at start-up. */
        PLACING,
        /** In its folder and recorded. */
        DONE,
        /** Its content was not acceptable; the sender was told. */
        REFUSED
    }
}
