package oakbasket.core.inward;

/** How sure it is that a message comes from the person it is supposed to be of. A sender's address alone proves nothing: anybody can write it. */
public enum MailTrust {
    /** The sender knows a mark that only a letter to this person holds, and writes from their address; or our mail server vouches for the address. */
    CONFIRMED,
    /** It only says so. A coordinator looks at it. */
    DECLARED;

    /**
     * Decides.
     *
     * @param marked whether it bears a mark made for this person
     * @param theirAddress whether it says it is from the address that is known of them
     * @param vouched whether our mail server says that the address is not forged
     */
    public static MailTrust of(boolean marked, boolean theirAddress, boolean vouched) {
        return theirAddress && (marked || vouched) ? CONFIRMED : DECLARED;
    }
}
