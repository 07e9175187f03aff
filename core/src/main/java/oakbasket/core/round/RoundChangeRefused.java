package oakbasket.core.round;

/** A change of a round's state that the rules do not allow; carries both states. */
public final class RoundChangeRefused extends RuntimeException {
    private final RoundState from;
    private final RoundState to;

    RoundChangeRefused(RoundState from, RoundState.Change change, RoundState to) {
        super("A round that is %s cannot become %s by %s".formatted(from, to, change));
        this.from = from;
        this.to = to;
    }

    /** The state the round is in. */
    public RoundState from() {
        return from;
    }

    /** The state that was asked for. */
    public RoundState to() {
        return to;
    }
}
