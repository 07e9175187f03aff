package oakbasket.core.letter;

/** How far a letter has come. */
public enum LetterState {
    /** It will go at its time, and may be stopped until then. */
    WAITING,
    /** It is being handed to the mail server at this moment. */
    SENDING,
    /** The mail server has taken it. */
    SENT,
    /** It was refused for good, or could not be handed over in all its tries. */
    FAILED,
    /** The mail server took it, and later it was reported that it cannot be delivered. */
    BOUNCED,
    /** The server stopped while it was being handed over: it may have gone or not, and somebody has to say. */
    UNCERTAIN,
    /** It did not go, because a coordinator stopped it or nothing was owed any more. */
    STOPPED;

    /** Whether it did not reach the address, and will not by itself. */
    public boolean undelivered() {
        return this == FAILED || this == BOUNCED;
    }

    /** What happens to a letter. */
    public enum Event { TAKE, TAKEN_BY_SERVER, TRY_LATER, GIVE_UP, STOP, BOUNCE, LOSE, ARRIVED, SEND_AGAIN }

    /**
     * The state after an event. The only place that says which follows which.
     *
     * @throws IllegalStateException naming both, when the event cannot happen in this state
     */
    public LetterState after(Event event) {
        LetterState next = switch (event) {
            case TAKE -> this == WAITING ? SENDING : null;
            case TAKEN_BY_SERVER -> this == SENDING ? SENT : null;
            case TRY_LATER -> this == SENDING ? WAITING : null;
            case GIVE_UP -> this == SENDING ? FAILED : null;
            case STOP -> this == WAITING || this == SENDING ? STOPPED : null;
            case BOUNCE -> this == SENT || this == UNCERTAIN ? BOUNCED : null;
            case LOSE -> this == SENDING ? UNCERTAIN : null;
            case ARRIVED -> this == UNCERTAIN ? SENT : null;
            case SEND_AGAIN -> this == FAILED || this == STOPPED || this == BOUNCED || this == UNCERTAIN ? WAITING : null;
        };
        if (next == null) {
            throw new IllegalStateException("A letter that is " + this + " cannot " + event);
        }
        return next;
    }
}
