package oakbasket.server.digest;

import java.time.Instant;
import oakbasket.core.digest.DigestPlan;

/**
 * How an account is told.
 *
 * @param muted ids of rounds it is not told of, parted by commas
 * @param toldFile the newest file that was told
 * @param toldAt when it was told last, or began to want it
 * @param toldTaken up to when was told of what was taken away of their parcels
 * @param problem why the last letter could not go; empty when it could
 */
record Wanted(long accountId, DigestPlan plan, String muted, long toldFile, Instant toldAt, Instant toldTaken, String problem) {
}
