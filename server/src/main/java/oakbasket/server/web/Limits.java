package oakbasket.server.web;

import io.github.bucket4j.Bucket;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** How often a stranger may call what costs something or could be guessed at. */
@Component
public class Limits {

    /** What is limited. */
    public enum Kind {
        /** Wrong tries to sign in, per address of the caller. */
        SIGN_IN(10, Duration.ofMinutes(5)),
        /** Wrong tries to sign in, per account, from wherever they come. */
        ACCOUNT(10, Duration.ofMinutes(15)),
        /** Wrong passcodes, per link and caller. */
        PASSCODE(5, Duration.ofMinutes(15)),
        /** Links that do not exist, per caller. */
        UNKNOWN_LINK(60, Duration.ofMinutes(1)),
        /** Submissions begun, per link. */
        SUBMISSION(600, Duration.ofHours(1)),
        /** Uploads begun, per link. */
        UPLOAD(20_000, Duration.ofHours(1));

        private final int times;
        private final Duration span;

        Kind(int times, Duration span) {
            this.times = times;
            this.span = span;
        }
    }

    private static final int MOST_REMEMBERED = 100_000;

    private final Map<String, Bucket> buckets = new ConcurrentHashMap<>();

    /**
     * Counts one call.
     *
     * @throws Problem with status 429 when there were too many
     */
    public void count(Kind kind, String who) {
        if (!bucket(kind, who).tryConsume(1)) {
            throw tooMany(kind);
        }
    }

    /**
     * Refuses when earlier calls used up the limit, without counting this one.
     *
     * @throws Problem with status 429
     */
    public void check(Kind kind, String who) {
        if (bucket(kind, who).getAvailableTokens() == 0) {
            throw tooMany(kind);
        }
    }

    private static Problem tooMany(Kind kind) {
        return Problem.of(HttpStatus.TOO_MANY_REQUESTS, "too-many", kind.span.toMinutes());
    }

    private Bucket bucket(Kind kind, String who) {
        if (buckets.size() > MOST_REMEMBERED) {
            buckets.values().removeIf(bucket -> bucket.getAvailableTokens() > 0);
        }
        return buckets.computeIfAbsent(kind + " " + who,
                key -> Bucket.builder().addLimit(limit -> limit.capacity(kind.times).refillIntervally(kind.times, kind.span)).build());
    }
}
