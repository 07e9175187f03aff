package oakbasket.core.standing;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What the rules need to know of one received file.
 *
 * @param receivedAt the instant at which its last byte was stored and verified
 * @param review what the coordinator said of it
 * @param reviewedAt when; null exactly while there is no review
 */
public record FileFact(Instant receivedAt, Review review, @Nullable Instant reviewedAt) {

    public FileFact {
        if ((review == Review.NONE) != (reviewedAt == null)) {
            throw new IllegalArgumentException("A review and its time go together: " + review + ", " + reviewedAt);
        }
    }
}
