package oakbasket.core.team;

import java.util.HashSet;
import java.util.Set;

/**
 * Whose a round or a parcel is, and with whom it is shared.
 *
 * @param owner the account that asks, or that hands out
 * @param wholeOffice whether everybody of the office sees it
 * @param with the accounts that see it besides the owner, where the office does not
 */
public record Share(long owner, boolean wholeOffice, Set<Long> with) {

    public Share {
        with = Set.copyOf(with);
    }

    /** Whether somebody sees it, and may change it where their role lets them change anything. */
    public boolean sees(long account, Role role) {
        return role == Role.ADMINISTRATOR || wholeOffice || owner == account || with.contains(account);
    }

    /** Whether somebody may say with whom it is shared, and hand it over. */
    public boolean settles(long account, Role role) {
        return role == Role.ADMINISTRATOR || role == Role.COORDINATOR && owner == account;
    }

    /** Whether everybody who sees this sees the other too, so that something of the other may be put into this. Administrators see everything anyway. */
    public boolean noWiderThan(Share other) {
        return other.wholeOffice || !wholeOffice && other.everybody().containsAll(everybody());
    }

    /** The same without those who do not see the other; whoever owns it still does. */
    public Share within(Share other) {
        if (other.wholeOffice) {
            return this;
        }
        Set<Long> both = other.everybody();
        if (!wholeOffice) {
            both.retainAll(with);
        }
        both.remove(owner);
        return new Share(owner, false, both);
    }

    private Set<Long> everybody() {
        Set<Long> all = new HashSet<>(with);
        all.add(owner);
        return all;
    }
}
