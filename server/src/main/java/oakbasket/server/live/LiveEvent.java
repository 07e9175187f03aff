package oakbasket.server.live;

import org.jspecify.annotations.Nullable;

/**
 * Something an open desk wants to know.
 *
 * @param type what happened: {@code arrival}, {@code basket} or {@code round}
 * @param basketId whose basket; null when the whole round changed
 */
public record LiveEvent(String type, long roundId, @Nullable Long basketId) {
}
