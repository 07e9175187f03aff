package oakbasket.server.basket;

import java.util.List;

/**
 * People were asked who shall get an invitation. Told within the transaction that asks them.
 *
 * @param baskets their new baskets
 * @param account the coordinator who asked
 */
public record PeopleAsked(List<Long> baskets, long account) {
}
