package oakbasket.server.basket;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something a coordinator did to baskets of a round.
 *
 * @param said what was given with it, such as a reason
 * @param people how many baskets it was for
 * @param name one of them; the one where there is only one
 * @param undoneAt when it was undone; null while it stands
 */
public record RoundAct(long id, long accountId, Instant at, String kind, String said, int people, String name, @Nullable Instant undoneAt) {
}
