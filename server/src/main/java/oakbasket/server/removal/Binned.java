package oakbasket.server.removal;

import java.time.Instant;

/**
 * A file in the bin.
 *
 * @param path where it lay
 */
public record Binned(long id, long fileId, String path, String reason, Instant removedAt, long removedBy, long roundId, long basketId, long itemId, long sizeBytes) {
}
