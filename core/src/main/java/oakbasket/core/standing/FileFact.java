package oakbasket.core.standing;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * What the rules need to know of one received file.
 *
 * @param receivedAt the instant at which its last byte was stored and verified
 * @param review what the coordinator said of it
 * @param reviewedAt when; null exactly while there is no review
 * @param keptApart whether it is claimed: sent under this person's address by somebody who only said so. Nothing that is kept apart counts anywhere
 */
public record FileFact(Instant receivedAt, Review review, @Nullable Instant reviewedAt, boolean keptApart) {

    /** A file whose sender is known, or stands for themselves. */
    public FileFact(Instant receivedAt, Review review, @Nullable Instant reviewedAt) {
        this(receivedAt, review, reviewedAt, false);
    }

    public FileFact {
        if ((review == Review.NONE) != (reviewedAt == null)) {
            throw new IllegalArgumentException("A review and its time go together: " + review + ", " + reviewedAt);
        }
    }
}
