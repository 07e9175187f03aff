package oakbasket.server.contactchange;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something done to contacts that can be undone.
 *
 * @param kind {@code import}, {@code merge} or {@code discard}
 * @param undoneAt when it was undone; null while it stands
 */
record ContactAct(long id, String kind, Instant at, String summary, @Nullable Instant undoneAt) {
}
