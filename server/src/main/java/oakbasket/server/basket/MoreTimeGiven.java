package oakbasket.server.basket;

import java.util.List;

/**
 * People were given more time than they had. Told within the transaction that gives it.
 *
 * @param baskets theirs, all of this round
 * @param account the coordinator who gave it
 */
public record MoreTimeGiven(long roundId, List<Long> baskets, long account) {

    public MoreTimeGiven {
        baskets = List.copyOf(baskets);
    }
}
