package oakbasket.server.post;

import java.time.Instant;
import java.util.List;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.letter.LetterState;
import org.jspecify.annotations.Nullable;

/**
 * A letter to one person.
 *
 * @param batch letters that were sent by one act have the same number
 * @param notBefore when it goes at the earliest
 * @param accountId the coordinator who sent it; null when a plan did
 * @param toAddress where it went; empty while it waits
 * @param subject empty while it waits
 * @param settledAt when the mail server took it, or when it was given up or stopped; null while it waits
 * @param openedAt when the link in it was first opened; null when it was not, as far as is known
 * @param bouncedAt when it was reported that it cannot be delivered; null when it was not
 * @param submissionId the sending that it tells of; null when it tells of none
 * @param language the language it was written in
 * @param parcelLinkId whose link to a parcel it brings; null for a letter about rounds
 * @param trouble why it did not go, or not yet: words of the mail server, or for a stopped letter the name of the reason; empty when nothing is wrong
 */
record Letter(long id, long contactId, LetterKind kind, LetterState state, long batch, Instant madeAt, Instant notBefore, @Nullable Long accountId, String toAddress, String subject,
        @Nullable Instant settledAt, int tries, String trouble, @Nullable Instant openedAt, @Nullable Instant bouncedAt,
        @Nullable Long submissionId, String language, @Nullable Long parcelLinkId) {

    /** One of the baskets it is about. */
    record About(long letterId, long basketId, long roundId) {
    }

    /**
     * A letter that is about to be made.
     *
     * @param submissionId the sending that it tells of; null when it tells of none
     * @param parcelLinkId whose link to a parcel it brings; null for a letter about rounds
     */
    record Fresh(long contactId, LetterKind kind, Instant notBefore, @Nullable Long accountId, List<FreshAbout> about, @Nullable Long submissionId, @Nullable Long parcelLinkId) {

        Fresh(long contactId, LetterKind kind, Instant notBefore, @Nullable Long accountId, List<FreshAbout> about) {
            this(contactId, kind, notBefore, accountId, about, null, null);
        }
    }

    /** One of the baskets a fresh letter is about. */
    record FreshAbout(long basketId, long roundId, @Nullable Instant stepAt) {
    }
}
