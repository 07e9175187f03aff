package oakbasket.server.post;

/**
 * What all letters of the office have in common.
 *
 * @param signature stands below every letter; empty when none does
 * @param replyTo who reads answers; empty for the coordinator who asks
 * @param calendar whether deadlines go along as calendar entries (RFC 5545)
 * @param version a change names the version it was made from
 */
record LetterSetting(String signature, String replyTo, boolean calendar, int version) {
}
