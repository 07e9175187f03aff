package oakbasket.server.storage;

import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantReadWriteLock;

/**
 * Lets everybody change the database at the same time, and shuts for the moment in which it is stored. What is stored while a statement is halfway through is torn: H2 takes the state of one
 * table after the other, and after a crash there would be entries of an index without their row. Between two statements of a transaction there is nothing to tear, because what undoes them is
 * stored with them.
 */
final class WriteGate {

    /** How long those who come wait for those who are inside, before the gate opens again: one inside may wait for a row that only one outside can let go of. */
    private static final Duration PATIENCE = Duration.ofMillis(50);
    private static final Duration BETWEEN_TRIES = Duration.ofMillis(20);

    private final ReentrantReadWriteLock lock = new ReentrantReadWriteLock(true);

    /** Something that talks to the database. */
    interface Work<T, X extends Throwable> {
        T run() throws X;
    }

    /** Changes something. */
    <T, X extends Throwable> T inside(Work<T, X> change) throws X {
        lock.readLock().lock();
        try {
            return change.run();
        } finally {
            lock.readLock().unlock();
        }
    }

    /**
     * Stores while nobody is inside, trying for as long as is given.
     *
     * @return whether it came to that; when not, nothing was done
     */
    <X extends Throwable> boolean shut(Duration atMost, Work<?, X> store) throws X {
        long until = System.nanoTime() + atMost.toNanos();
        do {
            if (tryShut()) {
                try {
                    store.run();
                    return true;
                } finally {
                    lock.writeLock().unlock();
                }
            }
        } while (System.nanoTime() < until && paused());
        return false;
    }

    private boolean tryShut() {
        try {
            return lock.writeLock().tryLock(PATIENCE.toNanos(), TimeUnit.NANOSECONDS);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private static boolean paused() {
        try {
            Thread.sleep(BETWEEN_TRIES.toMillis());
            return true;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }
}
