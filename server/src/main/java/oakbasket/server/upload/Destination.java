package oakbasket.server.upload;

import oakbasket.server.basket.Submission;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;

/** Everything around an upload that its place and its record need. */
record Destination(Submission submission, Round round, Item item) {
}
