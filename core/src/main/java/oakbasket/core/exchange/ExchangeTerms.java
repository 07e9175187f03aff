package oakbasket.core.exchange;

/**
 * What the person of an exchange may do there.
 *
 * @param putIn whether they may put files in
 * @param see whether they may look at the files that lie there for them
 * @param takeAway whether they may take those files away
 * @param asksFirst whether they have to accept the invitation before anything of it holds
 */
public record ExchangeTerms(boolean putIn, boolean see, boolean takeAway, boolean asksFirst) {

    /** Whether they may do anything there at all. */
    public boolean any() {
        return putIn || see || takeAway;
    }
}
