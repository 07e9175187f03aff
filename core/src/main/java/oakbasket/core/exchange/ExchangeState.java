package oakbasket.core.exchange;

import oakbasket.core.link.LinkState;

/** How an exchange stands for the coordinator. */
public enum ExchangeState {
    WAITING,
    INVITED,
    DECLINED,
    LIVE,
    PAUSED,
    ENDED,
    WITHDRAWN;

    /** The state of an exchange whose link stands like this. A link that does not admit comes before whatever was said to the invitation. */
    public static ExchangeState of(ExchangeTerms terms, ExchangeAnswer answer, LinkState link) {
        return switch (link) {
            case WAITING -> WAITING;
            case PAUSED -> PAUSED;
            case WITHDRAWN -> WITHDRAWN;
            case ENDED, USED_UP -> ENDED;
            case LIVE -> !terms.asksFirst() || answer == ExchangeAnswer.ACCEPTED ? LIVE : answer == ExchangeAnswer.DECLINED ? DECLINED : INVITED;
        };
    }
}
