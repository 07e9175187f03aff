package oakbasket.server.basket;

import java.time.Instant;
import oakbasket.core.identity.Claim;
import org.jspecify.annotations.Nullable;

/**
 * One sending.
 *
 * @param basketId whose share it is; null on an open link until the first file has arrived, so that nothing a stranger merely begins changes a basket
 * @param receiptCode twelve symbols, without dashes
 * @param declaredName who the sender said they were, on an open link; null on a personal one
 * @param declaredKey what identifies the mailbox of {@code declaredEmail}; null with it
 * @param callerHash stands for the address of the caller on an open link; null on a personal one
 * @param finishedAt when the receipt was given; null before
 * @param files how many files came with it, those taken out later included
 * @param note what the sender wrote to the office; empty when nothing
 * @param claim what became of it where the declared address is that of somebody asked; null where it is nobody's
 */
public record Submission(long id, @Nullable Long basketId, long linkId, String receiptCode, @Nullable String declaredName, @Nullable String declaredEmail,
        @Nullable String declaredKey, byte @Nullable [] callerHash, Instant startedAt, @Nullable Instant finishedAt, int files, String note, @Nullable Claim claim,
        @Nullable Instant claimDecidedAt, @Nullable Long claimDecidedBy) {

    /** Whether nothing of it counts until somebody says whose it is. */
    public boolean keptApart() {
        return claim != null && claim.keptApart();
    }

    /** Whether the sender only said who they are. */
    public boolean selfDeclared() {
        return declaredEmail != null;
    }
}
