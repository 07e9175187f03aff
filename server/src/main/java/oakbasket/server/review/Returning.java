package oakbasket.server.review;

/** Tells people that something they sent was returned; implemented by the capability that keeps the post. */
public interface Returning {

    /** Something in this basket was returned. Runs in the caller's transaction. */
    void returned(long basketId, long account);
}
