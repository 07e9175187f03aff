package oakbasket.server.contact;

import java.time.Instant;

/** What contacts have in rounds, as merging and discarding need it; implemented by the capability that keeps baskets. Calls run in the caller's transaction. */
public interface ContactBaskets {

    /** Whether a contact is or was in any round. */
    boolean any(long contactId);

    /**
     * Hands all baskets of one contact over to another. Where the other has one in the same round, what was sent moves into it.
     *
     * @return a journal for {@link #takeBack}
     */
    String handOver(long from, long to, Instant at);

    /**
     * Takes the baskets of somebody who came unasked out of their rounds.
     *
     * @return a journal for {@link #takeBack}
     */
    String takeOut(long contactId, Instant at);

    /** Puts everything back as the journal says. */
    void takeBack(String journal);
}
