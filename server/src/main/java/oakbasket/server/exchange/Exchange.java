package oakbasket.server.exchange;

import java.time.Instant;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeRights;
import oakbasket.core.exchange.ExchangeTerms;
import org.jspecify.annotations.Nullable;

/**
 * A place for one person outside. Its address, its window and its passcode are those of the personal link of its basket.
 *
 * @param id its number, which is also that of the parcel in which the files lie that are put there for its person
 * @param basketId where what its person puts in goes to
 * @param wayId the link by which it is counted what is taken away
 * @param alone whether its round is there for it only; else the round asks others too
 * @param answeredAt when its person said something to the invitation; null when they did not
 * @param version counts what coordinators change about it
 */
public record Exchange(long id, long roundId, long basketId, long wayId, boolean alone, ExchangeTerms terms, ExchangeAnswer answer, @Nullable Instant answeredAt, int version) {

    /** What its person may do at this moment, as far as the link admits them. */
    public ExchangeRights rights() {
        return ExchangeRights.of(terms, answer);
    }
}
