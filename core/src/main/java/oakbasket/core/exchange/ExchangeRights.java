package oakbasket.core.exchange;

/**
 * What the person of an exchange may do at this moment.
 *
 * @param putIn whether they may put files in
 * @param see whether they may look at the files that lie there for them
 * @param takeAway whether they may take those files away
 */
public record ExchangeRights(boolean putIn, boolean see, boolean takeAway) {

    /** None at all. */
    public static final ExchangeRights NONE = new ExchangeRights(false, false, false);

    /** The rights these terms give to somebody who said this to the invitation. */
    public static ExchangeRights of(ExchangeTerms terms, ExchangeAnswer answer) {
        return terms.asksFirst() && answer != ExchangeAnswer.ACCEPTED ? NONE : new ExchangeRights(terms.putIn(), terms.see(), terms.takeAway());
    }

    /** Whether they learn which files lie there for them. Whoever may neither see nor take them away learns nothing of them. */
    public boolean namesFiles() {
        return see || takeAway;
    }
}
