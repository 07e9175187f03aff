package oakbasket.server.basket;

import java.time.Instant;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.Identity;
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
 * @param codeHash stands for the code that was mailed last; null when there is none to be typed
 * @param codeUntil until when it can be typed
 * @param codeTries how often a wrong one was typed
 * @param confirmedAt when the declared address was confirmed; null when it was not
 * @param byDesk whether a coordinator put in what came by other ways
 * @param byMail whether it came by mail and was filed by itself; such a one is by the desk, too, since it is no use of a link
 * @param senderSeenAt when a coordinator looked at who sent it, where nobody could be sure
 * @param claim what became of it where the declared address is that of somebody asked; null where it is nobody's
 */
public record Submission(long id, @Nullable Long basketId, long linkId, String receiptCode, @Nullable String declaredName, @Nullable String declaredEmail,
        @Nullable String declaredKey, byte @Nullable [] callerHash, Instant startedAt, @Nullable Instant finishedAt, int files, String note, @Nullable Claim claim,
        @Nullable Instant claimDecidedAt, @Nullable Long claimDecidedBy, byte @Nullable [] codeHash, @Nullable Instant codeUntil, int codeTries, @Nullable Instant confirmedAt, boolean byDesk, boolean byMail, @Nullable Instant senderSeenAt) {

    /** Whether nothing of it counts until somebody says whose it is. */
    public boolean keptApart() {
        return claim != null && claim.keptApart();
    }

    /** Whether the sender only said who they are. */
    public boolean selfDeclared() {
        return identity() == Identity.SELF_DECLARED;
    }

    /** Whether it came without a link of one person alone. */
    public boolean declared() {
        return declaredEmail != null;
    }

    /** How sure it is who sent it. */
    public Identity identity() {
        return byDesk && !byMail ? Identity.PUT_IN : Identity.of(declaredEmail != null, confirmedAt != null);
    }

    /** The same as the key of a word: what came by mail came from the person's own address, and by no link. */
    public String identityKey() {
        return "identity." + (byMail ? "BY_MAIL" : identity().name());
    }
}
