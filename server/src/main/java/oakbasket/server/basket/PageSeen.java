package oakbasket.server.basket;

/** Somebody looks at the page behind the personal link of a basket. Told after it was noted. */
public record PageSeen(long basketId) {
}
