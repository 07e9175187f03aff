package oakbasket.server.account;

/** Somebody changed by what they themselves sign in. Told once it is in force. */
public record SignInChange(Account account, What what) {

    /** What they changed. */
    public enum What {
        OWN_PASSWORD, CODE_ASKED, CODE_ENDED, PASSKEY_ADDED, PASSKEY_ENDED
    }
}
