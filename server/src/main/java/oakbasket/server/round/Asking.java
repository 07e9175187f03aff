package oakbasket.server.round;

import java.util.List;
import oakbasket.core.identity.Person;

/** Makes the baskets and links of a round that opens; implemented by the capability that keeps them. */
public interface Asking {

    /**
     * Makes a basket and a personal link for each person, and the open link where there is one. Runs in the transaction of the opening.
     *
     * @param passcode for the open link; empty means none
     */
    void ask(long roundId, List<Person> people, boolean openLink, String passcode);
}
