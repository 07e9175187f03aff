package oakbasket.core.link;

import java.time.Instant;
import oakbasket.core.round.RoundState;
import org.jspecify.annotations.Nullable;

/** Decides whether a request link admits somebody now. The order of the checks is part of the rule. */
public enum LinkAdmission {
    ADMITTED,
    /** Also for a withdrawn link: strangers cannot tell the two apart. */
    UNKNOWN,
    PAUSED,
    NOT_YET_BEGUN,
    CLOSED,
    USED_UP,
    PASSCODE_NEEDED;

    /**
     * Decides.
     *
     * @param link the link's terms; null when no such link exists
     * @param round the state of its round
     * @param closesAt the round's closing time; null when it has none
     * @param goingOn whether it is asked for a submission that is counted among the uses already
     * @param passcodeGiven whether the passcode was given rightly, or none is asked
     */
    public static LinkAdmission decide(@Nullable LinkTerms link, RoundState round, @Nullable Instant closesAt, boolean goingOn,
            boolean passcodeGiven, Instant now) {
        if (link == null || link.withdrawnAt() != null || round == RoundState.DRAFT) {
            return UNKNOWN;
        }
        if (link.pausedAt() != null) {
            return PAUSED;
        }
        if (link.window().waiting(now)) {
            return NOT_YET_BEGUN;
        }
        if (round != RoundState.GATHERING || link.window().ended(now) || closesAt != null && !now.isBefore(closesAt)) {
            return CLOSED;
        }
        if (link.usedUp() && !goingOn) {
            return USED_UP;
        }
        return passcodeGiven ? ADMITTED : PASSCODE_NEEDED;
    }
}
