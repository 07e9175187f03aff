package oakbasket.core.standing;

/**
 * One item of one basket as it is shown.
 *
 * @param standing as the item stands; excused where the whole basket is
 * @param required whether the basket needs it
 * @param late whether it became satisfied after grace
 * @param overdue whether it is owed after grace, and chased
 * @param files how many files count
 */
public record Tile(ItemStanding standing, boolean required, boolean late, boolean overdue, int files) {

    /** Whether something is still to come for it: it is needed and missing, or it was sent back. */
    public boolean owed() {
        return standing == ItemStanding.RETURNED || required && !standing.satisfied() && standing != ItemStanding.NOT_OWED;
    }
}
