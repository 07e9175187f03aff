package oakbasket.server.basket;

import oakbasket.core.standing.ItemStanding;

/**
 * One item of one basket as a number, so that a board of 60,000 of them stays small: the standing in the lowest three bits, in the order of
 * {@link ItemStanding}; 8 when it became satisfied after grace; 16 when it is owed after grace; the number of files that count from 32 on.
 */
public final class TileCode {

    private static final int LATE = 8;
    private static final int OVERDUE = 16;
    private static final int FILES = 32;

    private TileCode() {
    }

    static int of(ItemStanding standing, boolean late, boolean overdue, int files) {
        return standing.ordinal() + (late ? LATE : 0) + (overdue ? OVERDUE : 0) + files * FILES;
    }

    /** The standing in a code. */
    public static ItemStanding standing(int code) {
        return ItemStanding.values()[code % LATE];
    }

    /** How many files count. */
    public static int files(int code) {
        return code / FILES;
    }

    /** Whether the item is late, or overdue. */
    public static boolean pastDeadline(int code) {
        return code % FILES >= LATE;
    }
}
