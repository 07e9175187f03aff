package oakbasket.server.findings;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something that lies otherwise than the records say.
 *
 * @param place where
 * @param fileId whose record it is; null for what nobody knows
 * @param sha256 of what lies there now; null where nothing does
 * @param leftAlone whether somebody said that it is to stay so
 */
record Finding(long id, Kind kind, String place, @Nullable Long fileId, long sizeBytes, byte @Nullable [] sha256, Instant foundAt, boolean leftAlone) {

    enum Kind {
        /** A file of the records is not at its place. */
        MISSING,
        /** A file has another content than was received. */
        ALTERED,
        /** A file lies there that nobody knows. */
        NEW
    }
}
