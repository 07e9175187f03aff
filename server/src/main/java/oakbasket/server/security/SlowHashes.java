package oakbasket.server.security;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Compares passwords and passcodes with their slow hashes, a few at a time: each costs a quarter of a second of a processor, and whoever knows no password
 * can ask for as many as they like. Browsers known to the office have a turn of their own. Of the others each address has one in the queue, behind which a few more of the same address may wait: so one address that asks again and
 * again keeps nobody of another waiting for longer than it takes to answer it once.
 */
@Component
public class SlowHashes {

    private static final int MOST_OF_AN_ADDRESS = 4;
    private static final long LONGEST_WAIT_SECONDS = 10;

    private final PasswordEncoder encoder;
    private final Semaphore strangers = new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors() / 2), true);
    private final Map<String, Line> lines = new ConcurrentHashMap<>();
    private final Semaphore known = new Semaphore(1, true);

    SlowHashes(PasswordEncoder encoder) {
        this.encoder = encoder;
    }

    /**
     * Whether a secret is the one behind a hash.
     *
     * @param knownCaller whether the caller was let in before
     * @param caller their address
     * @throws Problem with status 503 when others have to be served first for too long
     */
    public boolean matches(String secret, @Nullable String hash, boolean knownCaller, String caller) {
        if (knownCaller) {
            return inTurn(known, () -> encoder.matches(secret, hash));
        }
        Line line = lines.compute(caller, (address, there) -> (there == null ? new Line() : there).joined());
        try {
            if (line.waiting.get() > MOST_OF_AN_ADDRESS) {
                throw Problem.of(Problem.Kind.BUSY, "busy");
            }
            return inTurn(line.first, () -> inTurn(strangers, () -> encoder.matches(secret, hash)));
        } finally {
            lines.computeIfPresent(caller, (address, there) -> there.waiting.decrementAndGet() <= 0 ? null : there);
        }
    }

    private static boolean inTurn(Semaphore turn, BooleanSupplier work) {
        boolean mine = false;
        try {
            mine = turn.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS);
            if (!mine) {
                throw Problem.of(Problem.Kind.BUSY, "busy");
            }
            return work.getAsBoolean();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw Problem.of(Problem.Kind.BUSY, "busy");
        } finally {
            if (mine) {
                turn.release();
            }
        }
    }

    /** Those of one address. */
    private static final class Line {
        private final Semaphore first = new Semaphore(1, true);
        private final AtomicInteger waiting = new AtomicInteger();

        private Line joined() {
            waiting.incrementAndGet();
            return this;
        }
    }
}
