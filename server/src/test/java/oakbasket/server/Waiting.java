package oakbasket.server;

import java.time.Duration;
import java.util.function.Predicate;
import java.util.function.Supplier;

/** Waits for a condition, never for a time. */
final class Waiting {

    private static final Duration LONGEST = Duration.ofSeconds(40);

    private Waiting() {
    }

    /** The first value that fits; fails with the last one when none does in time. */
    static <T> T until(Supplier<T> asked, Predicate<T> fits) {
        long end = System.nanoTime() + LONGEST.toNanos();
        T value = asked.get();
        while (!fits.test(value)) {
            if (System.nanoTime() > end) {
                throw new AssertionError("Still " + value);
            }
            try {
                Thread.sleep(20);
            } catch (InterruptedException stopped) {
                throw new IllegalStateException(stopped);
            }
            value = asked.get();
        }
        return value;
    }
}
