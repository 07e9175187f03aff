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
     * @param theirAddress whether it says it is from the address that is known of them, and from no other
     * @param server what our mail server says of that address; where it says that the address is forged, a mark does not help
     */
    public static MailTrust of(boolean marked, boolean theirAddress, AuthenticationResults.Word server) {
        return theirAddress && server != AuthenticationResults.Word.DENIED && (marked || server == AuthenticationResults.Word.VOUCHED) ? CONFIRMED : DECLARED;
    }
}
