package oakbasket.core.standing;

/** The lists of baskets that a round can be narrowed down to and counted by. {@link BasketView} says which a basket belongs to. */
public enum BasketList {
    /** All but those taken out of the round. */
    EVERYBODY,
    /** The denominator: not taken out, not excused from everything, and not somebody who came unasked. */
    ASKED,
    /** Asked, and something required is missing. */
    OWES,
    /** Owes after grace, and is chased. */
    OVERDUE,
    /** Something of it waits for review. */
    TO_CHECK,
    /** Something is kept apart until somebody says whose it is. */
    CLAIMED,
    /** Asked, and the page was never seen. */
    NEVER_OPENED,
    /** Asked, and nothing required is missing. */
    COMPLETE,
    /** At least one file that counts has come. */
    SENT,
    /** Excused from everything. */
    WAIVED,
    /** Came through the open link without being asked. */
    WALK_INS,
    /** Owes, and nobody chases it for now. */
    PAUSED,
    /** Asked, and neither was an invitation sent nor a link handed over. */
    HAND_OVER,
    /** Taken out of the round; in no other list. */
    REMOVED
}
