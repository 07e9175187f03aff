package oakbasket.server.security;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Compares passwords and passcodes with their slow hashes, a few at a time: each costs a quarter of a second of a processor, and whoever knows no password
 * can ask for as many as they like. Browsers known to the office have a turn of their own.
 */
@Component
public class SlowHashes {

    private static final long LONGEST_WAIT_SECONDS = 4;

    private final PasswordEncoder encoder;
    private final Semaphore strangers = new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors() / 2), true);
    private final Semaphore known = new Semaphore(1, true);

    SlowHashes(PasswordEncoder encoder) {
        this.encoder = encoder;
    }

    /**
     * Whether a secret is the one behind a hash.
     *
     * @param knownCaller whether the caller was let in before
     * @throws Problem with status 503 when others have to be served first for too long
     */
    public boolean matches(String secret, @Nullable String hash, boolean knownCaller) {
        Semaphore turn = knownCaller ? known : strangers;
        boolean mine = false;
        try {
            mine = turn.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS);
            if (!mine) {
                throw Problem.of(Problem.Kind.BUSY, "busy");
            }
            return encoder.matches(secret, hash);
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw Problem.of(Problem.Kind.BUSY, "busy");
        } finally {
            if (mine) {
                turn.release();
            }
        }
    }
}
