package oakbasket.server.round;

import java.util.Collection;
import java.util.List;
import oakbasket.core.identity.Person;

/** Makes the baskets and links of a round that opens; implemented by the capability that keeps them. */
public interface Asking {

    /** Somebody who is asked in a round. */
    record Asked(String name, String email) {
    }

    /**
     * Makes a basket and a personal link for each person and each member of the groups, and the open link where there is one. Runs in the transaction of
     * the opening.
     *
     * @param passcode for the open link; empty means none
     * @return the new baskets
     */
    List<Long> ask(long roundId, List<Person> people, Collection<String> groups, boolean openLink, String passcode);

    /** Who is asked in a round now, without walk-ins and those removed. */
    List<Asked> asked(long roundId);
}
