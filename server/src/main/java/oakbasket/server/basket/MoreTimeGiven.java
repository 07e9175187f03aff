package oakbasket.server.basket;

import java.util.List;

/**
 * People were given more time than they had. Told within the transaction that gives it.
 *
 * @param baskets theirs
 * @param account the coordinator who gave it
 */
public record MoreTimeGiven(List<Long> baskets, long account) {

    public MoreTimeGiven {
        baskets = List.copyOf(baskets);
    }
}
