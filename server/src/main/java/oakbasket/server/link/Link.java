package oakbasket.server.link;

import oakbasket.core.link.LinkTerms;
import org.jspecify.annotations.Nullable;

/**
 * A request link.
 *
 * @param basketId the basket that a personal link opens; null for an open link
 * @param name the readable part of its address; empty when it has none
 * @param passcodeHash null when none is asked
 * @param takesIn whether anything can be put in through it
 * @param version counts what coordinators change about it
 */
public record Link(long id, long roundId, @Nullable Long basketId, byte[] tokenSealed, LinkTerms terms, String name, @Nullable String passcodeHash, boolean takesIn, int version) {

    /** Whether anyone who holds it may come in. */
    public boolean isOpen() {
        return basketId == null;
    }
}
