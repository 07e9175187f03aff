package oakbasket.server.basket;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something a coordinator did to baskets.
 *
 * @param said what was given with it, such as a reason
 * @param undoneAt when it was undone; null while it stands
 */
public record BasketAct(long id, long roundId, long accountId, Instant at, String kind, String said, @Nullable Instant undoneAt) {
}
