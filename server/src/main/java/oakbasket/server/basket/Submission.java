package oakbasket.server.basket;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One sending.
 *
 * @param receiptCode twelve symbols, without dashes
 * @param declaredName who the sender said they were, on an open link; null on a personal one
 * @param finishedAt when the receipt was given; null before
 */
public record Submission(long id, long basketId, long linkId, String receiptCode, @Nullable String declaredName, @Nullable String declaredEmail,
        Instant startedAt, @Nullable Instant finishedAt) {

    /** Whether the sender only said who they are. */
    public boolean selfDeclared() {
        return declaredEmail != null;
    }
}
