package oakbasket.server.bell;

import java.time.Instant;

/** Up to where somebody has looked. @param takenAt up to when at what was taken away */
record BellLook(long accountId, long fileId, long mailId, Instant takenAt) {
}
