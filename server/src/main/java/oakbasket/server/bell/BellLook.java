package oakbasket.server.bell;

/** Up to where somebody has looked. */
record BellLook(long accountId, long fileId, long mailId) {
}
