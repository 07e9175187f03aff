package oakbasket.server.round;

import java.util.List;

/** Sends people their links; implemented by the capability that keeps the post. */
public interface Inviting {

    /** Has an invitation go to the people of these baskets. Runs in the caller's transaction. */
    void invite(List<Long> basketIds, long account);
}
