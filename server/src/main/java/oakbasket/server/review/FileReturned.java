package oakbasket.server.review;

/**
 * A file was sent back to its sender. Told within the transaction that returns it.
 *
 * @param account the coordinator who returned it
 */
public record FileReturned(long basketId, long account) {
}
