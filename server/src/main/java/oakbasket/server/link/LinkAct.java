package oakbasket.server.link;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Something that was done to links.
 *
 * @param kind {@code link-} and what it was
 * @param said what belongs to it, in words; empty when nothing does
 * @param links to how many links it was done
 * @param undoneAt when it was undone; null when it was not
 */
public record LinkAct(long id, String kind, String said, long accountId, Instant at, @Nullable Instant undoneAt, int links) {
}
