package oakbasket.core.identity;

/**
 * What becomes of a sending under the address of somebody who was asked, when the sender only said who they are. Until the coordinator says yes it is kept
 * apart: it satisfies no item, stops no letter, uses up no place and is shown to nobody outside the office.
 */
public enum Claim {
    /** Nobody has said yet whether it is theirs. */
    OPEN,
    /** It is theirs, and counts from the moment it arrived. */
    ACCEPTED,
    /** It is not theirs; it stays where it is and never counts. */
    DECLINED;

    /** Whether what was sent counts for nothing. */
    public boolean keptApart() {
        return this != ACCEPTED;
    }

    /** Whether the coordinator still has something to do about it: once it is not theirs, nobody needs to look. */
    public boolean waits() {
        return this != DECLINED;
    }

    /**
     * Whether a sending must be claimed at all: only somebody who came without a link of their own and gave the address of a person who has one.
     *
     * @param selfDeclared whether the sender only said who they are
     * @param asked whether the person with that address was ever asked in this round
     */
    public static boolean needed(boolean selfDeclared, boolean asked) {
        return selfDeclared && asked;
    }
}
