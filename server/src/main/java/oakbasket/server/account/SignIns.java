package oakbasket.server.account;

/**
 * Somebody signed in or out, or was kept from it.
 *
 * @param account 0 where it is not known whose it would have been
 * @param who a name, or the address that was typed
 * @param caller the address they came from
 */
public record SignIns(long account, String who, String caller, What what) {

    /** What happened. */
    public enum What { IN, OUT, REFUSED, FIRST }
}
