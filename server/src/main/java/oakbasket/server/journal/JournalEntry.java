package oakbasket.server.journal;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * One thing that was done to a file.
 *
 * @param fromPlace empty where it had none before
 * @param toPlace empty where it has none any more
 * @param accountId who did it; null when a rule or the program did
 * @param batchId the refiling it belongs to
 * @param undoes the entry that this one took back
 * @param undone whether another entry took this one back
 */
public record JournalEntry(long id, long fileId, long roundId, Act act, String fromPlace, String toPlace, Instant at, @Nullable Long accountId, Why why, @Nullable Long batchId, @Nullable Long undoes,
        boolean undone) {
}
