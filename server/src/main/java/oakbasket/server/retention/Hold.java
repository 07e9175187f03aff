package oakbasket.server.retention;

import java.time.Instant;

/** That a round's files are kept beyond their date. */
record Hold(long id, long roundId, String reason, Instant heldAt, long heldBy) {
}
