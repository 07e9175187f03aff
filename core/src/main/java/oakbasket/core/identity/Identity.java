package oakbasket.core.identity;

/** How sure it is that a sending comes from the person it names. */
public enum Identity {
    /** It came through a link that only this person was given. */
    IDENTIFIED,
    /** A coordinator put in what came by another way, and said whose it is. */
    PUT_IN,
    /** The sender typed a code that was mailed to the address. */
    CONFIRMED,
    /** The sender said so. */
    SELF_DECLARED;

    /**
     * The identity of a sending.
     *
     * @param declared whether the sender typed who they are
     * @param confirmed whether a code mailed to that address was typed
     */
    public static Identity of(boolean declared, boolean confirmed) {
        return !declared ? IDENTIFIED : confirmed ? CONFIRMED : SELF_DECLARED;
    }
}
