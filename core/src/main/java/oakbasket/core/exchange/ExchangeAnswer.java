package oakbasket.core.exchange;

/** What the person of an exchange said to the invitation. */
public enum ExchangeAnswer {
    NONE,
    ACCEPTED,
    DECLINED;

    /** Whether they can still say this. Whoever accepted has used the place, and cannot decline it any more; whoever declined may think better of it. */
    public boolean mayBecome(ExchangeAnswer next) {
        return next != NONE && this != ACCEPTED && this != next;
    }
}
