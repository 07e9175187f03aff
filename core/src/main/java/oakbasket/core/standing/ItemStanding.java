package oakbasket.core.standing;

/** How one item of one basket stands. The order is the order in which the rules are tried. */
public enum ItemStanding {
    /** Asked only of groups this person is not in. */
    NOT_OWED,
    /** The coordinator excused it. */
    WAIVED,
    /** The newest review sent it back and nothing has come since. */
    RETURNED,
    /** Enough accepted files. */
    ACCEPTED,
    /** At least the least number of files, not all reviewed. */
    ARRIVED,
    /** Some files, fewer than the least number. */
    PART,
    /** Nothing that counts has come. */
    WANTED;

    /** Whether nothing more is owed for the item. */
    public boolean satisfied() {
        return this == WAIVED || this == ACCEPTED || this == ARRIVED;
    }

    /** Whether the coordinator has nothing left to look at. */
    public boolean settled() {
        return this == WAIVED || this == ACCEPTED || this == NOT_OWED;
    }
}
