package oakbasket.server.security;

import io.github.bucket4j.Bucket;
import io.github.bucket4j.TimeMeter;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import oakbasket.server.problem.Problem;
import org.springframework.stereotype.Component;

/**
 * How often a stranger may call what costs something or could be guessed at. A try is counted before it is looked at and given back when it was right, so
 * that a thousand at the same moment are no more than a thousand one after another.
 */
@Component
public class Limits {

    /** What is limited. Each is kept by caller, link or account, so that no stranger uses up what somebody else needs. */
    public enum Kind {
        /** Wrong tries to sign in, per caller. */
        SIGN_IN(10, Duration.ofMinutes(5)),
        /** Wrong tries to sign in, per account, from browsers that never signed in to it. */
        ACCOUNT(10, Duration.ofMinutes(15)),
        /** Wrong tries to sign in from a browser that signed in to this account before. */
        KNOWN_BROWSER(10, Duration.ofMinutes(15)),
        /** Wrong set-up codes, per caller. */
        SET_UP(10, Duration.ofMinutes(5)),
        /** Wrong passcodes, per link and caller. */
        PASSCODE(5, Duration.ofMinutes(15)),
        /** Wrong passcodes, per link, from wherever they come. */
        PASSCODE_OF_LINK(200, Duration.ofHours(1)),
        /** Links that do not exist or are withdrawn, per caller. */
        UNKNOWN_LINK(60, Duration.ofMinutes(1)),
        /** Receipts checked against a file, per caller. */
        RECEIPT(60, Duration.ofMinutes(1)),
        /** Submissions begun, per link and caller. */
        SUBMISSION(120, Duration.ofHours(1)),
        /** Uploads begun, per link and caller. */
        UPLOAD(20_000, Duration.ofHours(1));

        private final int times;
        private final Duration span;

        Kind(int times, Duration span) {
            this.times = times;
            this.span = span;
        }
    }

    private static final int MOST_REMEMBERED = 100_000;
    private static final long FORGET_EVERY_NANOS = 1_000_000_000L;

    private final Map<String, Bucket> buckets = new ConcurrentHashMap<>();
    private final TimeMeter time;
    private final AtomicLong forgotAt = new AtomicLong();

    Limits() {
        this(TimeMeter.SYSTEM_NANOTIME);
    }

    /** With a clock of one's own. */
    Limits(TimeMeter time) {
        this.time = time;
    }

    /**
     * Counts one call.
     *
     * @throws Problem with status 429 when there were too many
     */
    public void count(Kind kind, String who) {
        if (!bucket(kind, who).tryConsume(1)) {
            throw Problem.of(Problem.Kind.TOO_MANY, "too-many", kind.span.toMinutes()).retryAfter(kind.span);
        }
    }

    /** Takes one call back that turned out to be right. */
    public void giveBack(Kind kind, String who) {
        bucket(kind, who).addTokens(1);
    }

    private Bucket bucket(Kind kind, String who) {
        if (buckets.size() >= MOST_REMEMBERED) {
            forget();
        }
        // With more callers than can be remembered, the newest share one bucket for each kind; it is a hundred times as large.
        boolean crowded = buckets.size() >= MOST_REMEMBERED;
        String key = kind + " " + (crowded ? "" : who);
        int times = crowded ? kind.times * 100 : kind.times;
        Bucket known = buckets.get(kind + " " + who);
        return known != null ? known : buckets.computeIfAbsent(key, any -> Bucket.builder().withCustomTimePrecision(time)
                .addLimit(limit -> limit.capacity(times).refillIntervally(times, kind.span)).build());
    }

    /** Forgets those who used nothing up; looked for once a second at most. */
    private void forget() {
        long now = System.nanoTime();
        long before = forgotAt.get();
        if (now - before > FORGET_EVERY_NANOS && forgotAt.compareAndSet(before, now)) {
            buckets.entrySet().removeIf(entry -> entry.getValue().getAvailableTokens() >= Kind.valueOf(entry.getKey().substring(0, entry.getKey().indexOf(' '))).times);
        }
    }
}
