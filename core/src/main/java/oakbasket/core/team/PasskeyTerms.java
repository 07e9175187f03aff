package oakbasket.core.team;

/** How many passkeys an account may have, and how they are named. */
public final class PasskeyTerms {

    /** The longest name of a device in characters. */
    public static final int LONGEST_LABEL = 100;
    /** The most passkeys of an account. */
    public static final int MOST = 20;

    private PasskeyTerms() {
    }
}
