package oakbasket.core.quota;

import java.math.BigInteger;
import org.jspecify.annotations.Nullable;

/**
 * The room that something takes up.
 *
 * @param usedBytes how much it takes up, 0 or more
 * @param mostBytes how much it may; null for as much as there is
 */
public record Room(long usedBytes, @Nullable Long mostBytes) {

    /** From which share on somebody is warned, in percent. */
    public static final int WARNS_AT_PERCENT = 80;
    /** The most that can be set, in MiB: 1 PiB. */
    public static final long MOST_MEBIBYTES = 1L << 30;

    private static final BigInteger HUNDRED = BigInteger.valueOf(100);
    private static final int MOST_PERCENT = 999;

    public Room {
        if (usedBytes < 0 || mostBytes != null && mostBytes < 0) {
            throw new IllegalArgumentException("Room is counted in bytes from 0 on, not " + usedBytes + " of " + mostBytes);
        }
    }

    /** Whether so many more bytes find room. Of nothing there is always room, also where too much lies already. */
    public boolean takes(long bytes) {
        return mostBytes == null || bytes == 0 || bytes <= mostBytes - usedBytes;
    }

    /** How much of it is taken, rounded down, so that 100 is only ever said when nothing is left; 0 where nothing is set. */
    public int percent() {
        if (mostBytes == null) {
            return 0;
        }
        return mostBytes == 0 ? 100 : BigInteger.valueOf(usedBytes).multiply(HUNDRED).divide(BigInteger.valueOf(mostBytes)).min(BigInteger.valueOf(MOST_PERCENT)).intValue();
    }

    /** Whether somebody is to be warned. */
    public boolean warns() {
        return mostBytes != null && percent() >= WARNS_AT_PERCENT;
    }
}
