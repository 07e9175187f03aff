package oakbasket.server.http;

import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** How fast the bytes of one request, or of one answer, pass. They pass one after another, though not always in one thread. */
final class Rate {

    /** What any real line carries. */
    static final long BYTES_PER_SECOND = 500;
    /** Nobody is judged by less time: a line may be slow to begin, and the container's own idle time ends what stands still. */
    static final Duration GRACE = Duration.ofSeconds(10);

    private static final double NANOS = 1e9;

    private volatile @Nullable Long begun;
    private volatile long bytes;

    /** So many have passed. */
    @SuppressWarnings("NonAtomicVolatileUpdate") // one after another
    void passed(long more) {
        bytes += more;
    }

    /** Whether too few have passed since this was asked first. @param nanos the time now, as {@link System#nanoTime} tells it */
    boolean tooLow(long nanos) {
        Long since = begun;
        if (since == null) {
            begun = nanos;
            return false;
        }
        long elapsed = nanos - since;
        return elapsed > GRACE.toNanos() && bytes < elapsed / NANOS * BYTES_PER_SECOND;
    }
}
