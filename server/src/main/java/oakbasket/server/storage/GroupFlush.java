package oakbasket.server.storage;

import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.ReentrantLock;

/** A costly flush shared by all who wait for it: each caller returns after a flush that began after its call. */
public final class GroupFlush {

    private final Runnable flush;
    private final AtomicLong asked = new AtomicLong();
    private final ReentrantLock turn = new ReentrantLock();
    private volatile long flushed;

    /** Shares the given flush. */
    public GroupFlush(Runnable flush) {
        this.flush = flush;
    }

    /** Returns after a flush that began after this call. */
    public void await() {
        long mine = asked.incrementAndGet();
        turn.lock();
        try {
            if (flushed < mine) {
                long covered = asked.get();
                flush.run();
                flushed = covered;
            }
        } finally {
            turn.unlock();
        }
    }
}
