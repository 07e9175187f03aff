package oakbasket.server.security;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import oakbasket.server.problem.Problem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.springframework.security.crypto.password.PasswordEncoder;

@ExtendWith(MockitoExtension.class)
class SlowHashesTest {

    @Mock
    private PasswordEncoder encoder;

    @Test
    void strangersWaitForEachOtherAndAKnownCallerWaitsForNoneOfThem() throws Exception {
        int permits = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);
        CountDownLatch allBusy = new CountDownLatch(permits);
        CountDownLatch goOn = new CountDownLatch(1);
        AtomicInteger atOnce = new AtomicInteger();
        AtomicInteger most = new AtomicInteger();
        when(encoder.matches(any(), any())).thenAnswer(call -> {
            if (call.getArgument(0).equals("known")) {
                return true;
            }
            most.accumulateAndGet(atOnce.incrementAndGet(), Math::max);
            allBusy.countDown();
            goOn.await(30, TimeUnit.SECONDS);
            atOnce.decrementAndGet();
            return false;
        });
        SlowHashes hashes = new SlowHashes(encoder);
        ExecutorService threads = Executors.newFixedThreadPool(20);
        List<Future<Boolean>> strangers = IntStream.range(0, 20).mapToObj(n -> threads.submit(() -> hashes.matches("guess", "hash", false, "192.0.2." + n))).toList();
        assertThat(allBusy.await(30, TimeUnit.SECONDS)).isTrue();
        assertThat(hashes.matches("known", "hash", true, "")).isTrue();
        // Longer than any of them waits: those that have no turn are refused and hold no thread.
        int refused = 0;
        for (Future<Boolean> stranger : strangers) {
            try {
                stranger.get(refused == 0 ? 14 : 1, TimeUnit.SECONDS);
            } catch (java.util.concurrent.ExecutionException busy) {
                assertThat(busy.getCause()).isInstanceOfSatisfying(Problem.class, problem -> assertThat(problem.kind()).isEqualTo(Problem.Kind.BUSY));
                refused++;
            } catch (java.util.concurrent.TimeoutException hasItsTurn) {
                assertThat(stranger).isNotDone();
            }
        }
        goOn.countDown();
        threads.shutdown();
        assertThat(refused).isEqualTo(20 - permits);
        assertThat(most).hasValue(permits);
    }

    /** One address that asks again and again keeps nobody of another waiting for longer than it takes to answer it once. */
    @Test
    void whoKnowsThePasswordWaitsForNobodysHundredGuesses() throws Exception {
        AtomicInteger guesses = new AtomicInteger();
        when(encoder.matches(any(), any())).thenAnswer(call -> {
            if (call.getArgument(0).equals("right")) {
                return true;
            }
            guesses.incrementAndGet();
            Thread.sleep(100);
            return false;
        });
        SlowHashes hashes = new SlowHashes(encoder);
        ExecutorService threads = Executors.newFixedThreadPool(100);
        List<Future<Boolean>> hundred = IntStream.range(0, 100).mapToObj(n -> threads.submit(() -> hashes.matches("guess", "hash", false, "198.51.100.7"))).toList();
        while (guesses.get() == 0) {
            Thread.sleep(1);
        }
        int before = guesses.get();
        assertThat(hashes.matches("right", "hash", false, "192.0.2.1")).isTrue();
        assertThat(guesses.get() - before).as("guesses that were answered before").isLessThanOrEqualTo(2);
        int busy = 0;
        for (Future<Boolean> one : hundred) {
            try {
                assertThat(one.get(30, TimeUnit.SECONDS)).isFalse();
            } catch (java.util.concurrent.ExecutionException refused) {
                assertThat(refused.getCause()).isInstanceOf(Problem.class);
                busy++;
            }
        }
        threads.shutdown();
        assertThat(busy).as("the rest of that address is sent away at once").isGreaterThanOrEqualTo(80);
    }
}
