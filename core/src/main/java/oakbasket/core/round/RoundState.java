package oakbasket.core.round;

/** The states of a round, and the only place that says which change may follow which. */
public enum RoundState {
    /** Being composed; nobody has been asked. */
    DRAFT,
    /** Open: links admit senders. */
    GATHERING,
    /** Links refuse; what was received stays. */
    CLOSED,
    /** Put away; kept for reading only. */
    ARCHIVED;

    /** What a coordinator can do to the state of a round. */
    public enum Change { OPEN, CLOSE, REOPEN, ARCHIVE }

    /**
     * The state after a change.
     *
     * @throws RoundChangeRefused when the change is not allowed from this state
     */
    public RoundState after(Change change) {
        return switch (change) {
            case OPEN -> allow(change, this == DRAFT, GATHERING);
            case CLOSE -> allow(change, this == GATHERING, CLOSED);
            case REOPEN -> allow(change, this == CLOSED, GATHERING);
            case ARCHIVE -> allow(change, this == CLOSED, ARCHIVED);
        };
    }

    private RoundState allow(Change change, boolean allowed, RoundState target) {
        if (!allowed) {
            throw new RoundChangeRefused(this, change, target);
        }
        return target;
    }
}
