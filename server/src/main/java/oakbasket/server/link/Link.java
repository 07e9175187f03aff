package oakbasket.server.link;

import oakbasket.core.link.LinkTerms;
import org.jspecify.annotations.Nullable;

/**
 * A request link.
 *
 * @param basketId the basket that a personal link opens; null for an open link
 * @param passcodeHash null when none is asked
 */
public record Link(long id, long roundId, @Nullable Long basketId, byte[] tokenSealed, LinkTerms terms, @Nullable String passcodeHash) {

    /** Whether anyone who holds it may come in. */
    public boolean isOpen() {
        return basketId == null;
    }
}
