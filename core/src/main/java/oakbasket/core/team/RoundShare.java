package oakbasket.core.team;

import java.util.Set;

/**
 * Whose a round is, and with whom it is shared.
 *
 * @param owner the account that asks
 * @param wholeOffice whether everybody of the office sees it
 * @param with the accounts that see it besides the owner, where the office does not
 */
public record RoundShare(long owner, boolean wholeOffice, Set<Long> with) {

    public RoundShare {
        with = Set.copyOf(with);
    }

    /** Whether somebody sees the round, and may change it where their role lets them change anything. */
    public boolean sees(long account, Role role) {
        return role == Role.ADMINISTRATOR || wholeOffice || owner == account || with.contains(account);
    }

    /** Whether somebody may say with whom the round is shared, and hand it over. */
    public boolean settles(long account, Role role) {
        return role == Role.ADMINISTRATOR || role == Role.COORDINATOR && owner == account;
    }
}
