package oakbasket.server.storage;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class GroupFlushTest {

    @Test
    void whatWasWrittenBeforeACallIsFlushedWhenItReturnsAndFlushesAreShared() throws Exception {
        AtomicInteger written = new AtomicInteger();
        AtomicInteger flushed = new AtomicInteger();
        AtomicInteger flushes = new AtomicInteger();
        GroupFlush flush = new GroupFlush(() -> {
            int covered = written.get();
            flushes.incrementAndGet();
            Thread.yield();
            flushed.set(covered);
        });
        int callers = 8;
        int each = 2_000;
        ExecutorService threads = Executors.newFixedThreadPool(callers);
        List<Future<Integer>> late = new ArrayList<>();
        for (int caller = 0; caller < callers; caller++) {
            late.add(threads.submit(() -> {
                int missed = 0;
                for (int i = 0; i < each; i++) {
                    int mine = written.incrementAndGet();
                    flush.await();
                    missed += flushed.get() < mine ? 1 : 0;
                }
                return missed;
            }));
        }
        for (Future<Integer> missed : late) {
            assertThat(missed.get(60, TimeUnit.SECONDS)).isZero();
        }
        threads.shutdown();
        assertThat(flushes.get()).as("flushes for %d calls", callers * each).isBetween(1, callers * each - 1);
    }

    @Test
    void callersThatWaitTogetherNeedOnlyOneMoreFlush() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        CountDownLatch goOn = new CountDownLatch(1);
        AtomicInteger flushes = new AtomicInteger();
        GroupFlush flush = new GroupFlush(() -> {
            if (flushes.incrementAndGet() == 1) {
                begun.countDown();
                await(goOn);
            }
        });
        Thread first = new Thread(flush::await);
        first.start();
        await(begun);
        List<Thread> waiting = new ArrayList<>();
        for (int i = 0; i < 10; i++) {
            Thread caller = new Thread(flush::await);
            caller.start();
            waiting.add(caller);
        }
        for (Thread caller : waiting) {
            long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
            while (caller.getState() != Thread.State.WAITING) {
                assertThat(System.nanoTime()).as("a caller that waits for the flush under way").isLessThan(end);
                Thread.onSpinWait();
            }
            assertThat(flushes).as("nobody flushes while a flush is under way").hasValue(1);
        }
        goOn.countDown();
        first.join();
        for (Thread caller : waiting) {
            caller.join();
        }
        assertThat(flushes).hasValue(2);
    }

    @Test
    void aFlushThatFailedIsToldAndTriedAgainByTheNextCaller() {
        AtomicInteger flushes = new AtomicInteger();
        GroupFlush flush = new GroupFlush(() -> {
            if (flushes.incrementAndGet() == 1) {
                throw new IllegalStateException("the disk is full");
            }
        });
        org.assertj.core.api.Assertions.assertThatThrownBy(flush::await).hasMessage("the disk is full");
        flush.await();
        assertThat(flushes).hasValue(2);
    }

    private static void await(CountDownLatch latch) {
        try {
            assertThat(latch.await(30, TimeUnit.SECONDS)).isTrue();
        } catch (InterruptedException stopped) {
            throw new IllegalStateException(stopped);
        }
    }
}
