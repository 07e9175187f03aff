package oakbasket.core.link;

import java.time.Instant;
import oakbasket.core.round.RoundState;

/** How a link stands for the coordinator. */
public enum LinkState {
    WAITING, LIVE, PAUSED, USED_UP, ENDED, WITHDRAWN;

    /** The state of a link of a round in the given state. */
    public static LinkState of(LinkTerms link, RoundState round, Instant now) {
        if (link.withdrawnAt() != null) {
            return WITHDRAWN;
        }
        if (link.window().ended(now) || round == RoundState.CLOSED || round == RoundState.ARCHIVED) {
            return ENDED;
        }
        if (link.pausedAt() != null) {
            return PAUSED;
        }
        if (link.window().waiting(now)) {
            return WAITING;
        }
        return link.usedUp() ? USED_UP : LIVE;
    }

    /** Whether a live link ends within {@link LinkWindow#WARNING}. */
    public static boolean endsSoon(LinkTerms link, RoundState round, Instant now) {
        return of(link, round, now) == LIVE && !now.isBefore(link.window().end().minus(LinkWindow.WARNING));
    }
}
