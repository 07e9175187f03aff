package oakbasket.server.refiling;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One batch of moves.
 *
 * @param roundId the round; 0 stands for all
 * @param undoes the batch it takes back; null when none
 * @param done how many files have their new place
 * @param failed how many could not be moved and stay where they were
 * @param endedAt null while it goes on
 */
public record Refiling(long id, long roundId, @Nullable Long undoes, int total, int done, int failed, Instant begunAt, long begunBy, @Nullable Instant endedAt, boolean undone) {
}
