package oakbasket.server.basket;

/**
 * A sender has sent what they wanted to send. Told within the transaction that gives the receipt.
 *
 * @param submission the sending, whose basket is known by now
 */
public record SendingFinished(Submission submission) {
}
