package oakbasket.server.security;

import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import io.github.bucket4j.TimeMeter;
import io.github.bucket4j.local.LocalBucketBuilder;
import java.time.Duration;
import java.util.List;
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
        /** Anything that needs no sign-in, per caller: far more than the busiest page asks for. */
        STRANGER(20_000, Duration.ofMinutes(1)),
        /** Wrong tries to sign in, per caller. */
        SIGN_IN(10, Duration.ofMinutes(5)),
        /** Wrong tries to sign in, per account, from browsers that never signed in to it. */
        ACCOUNT(10, Duration.ofMinutes(15)),
        /** Wrong tries to sign in from a browser that signed in to this account before. */
        KNOWN_BROWSER(10, Duration.ofMinutes(15)),
        /** Wrong set-up codes, per caller. */
        SET_UP(10, Duration.ofMinutes(5)),
        /** Links for forgotten passwords asked for, per caller. */
        RESET(10, Duration.ofMinutes(15)),
        /** Such links mailed to one account, whoever asks: nobody's mailbox is filled by strangers. */
        RESET_OF_ADDRESS(3, Duration.ofHours(1)),
        /** Wrong passcodes, per link and caller; who goes on guessing waits longer each time. */
        PASSCODE(new Span(5, Duration.ofMinutes(15)), new Span(10, Duration.ofHours(2)), new Span(20, Duration.ofHours(24))),
        /** Wrong passcodes, per link, from wherever they come. */
        PASSCODE_OF_LINK(200, Duration.ofHours(1)),
        /** Wrong app passwords, per caller. */
        APP_PASSWORD(100, Duration.ofMinutes(5)),
        /** Links that do not exist or are withdrawn, per caller. */
        UNKNOWN_LINK(60, Duration.ofMinutes(1)),
        /** Receipts checked against a file, per caller. */
        RECEIPT(60, Duration.ofMinutes(1)),
        /** Codes mailed, per link and caller. */
        CODE(10, Duration.ofHours(1)),
        /** Codes mailed to one address, wherever they are asked for: nobody's mailbox is filled by strangers. */
        CODE_OF_ADDRESS(5, Duration.ofHours(1)),
        /** Codes mailed, per link. */
        CODE_OF_LINK(300, Duration.ofHours(1)),
        /** Receipts mailed, per sending. */
        RECEIPT_MAIL(3, Duration.ofHours(1)),
        /** Receipts mailed to one address, of whichever sendings. */
        RECEIPT_MAIL_OF_ADDRESS(10, Duration.ofHours(1)),
        /** Papers by mail answered, per address. */
        MAIL_ANSWER(30, Duration.ofDays(1)),
        /** Papers by mail answered to an address that nobody knows: it may be forged, and then somebody else reads the answers. */
        MAIL_ANSWER_UNKNOWN(1, Duration.ofDays(1)),
        /** The same, to all such addresses together. */
        MAIL_ANSWERS_UNKNOWN(100, Duration.ofDays(1)),
        /** Submissions begun, per link and caller. */
        SUBMISSION(120, Duration.ofHours(1)),
        /** Files of parcels asked for, per link and caller: a download in many pieces asks often. */
        PICK_UP(20_000, Duration.ofHours(1)),
        /** Uploads begun, per link and caller. */
        UPLOAD(20_000, Duration.ofHours(1));

        /** All of them hold; the shortest comes first. */
        private final List<Span> spans;

        Kind(int times, Duration span) {
            this(new Span(times, span));
        }

        Kind(Span... spans) {
            this.spans = List.of(spans);
        }
    }

    /** So many times in so long. */
    private record Span(int times, Duration time) {
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
        ConsumptionProbe tried = bucket(kind, who).tryConsumeAndReturnRemaining(1);
        if (!tried.isConsumed()) {
            Duration wait = Duration.ofSeconds(Math.max(1, Duration.ofNanos(tried.getNanosToWaitForRefill()).plusNanos(999_999_999).toSeconds()));
            throw Problem.of(Problem.Kind.TOO_MANY, "too-many", wait.plusSeconds(59).toMinutes()).retryAfter(wait);
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
        int share = crowded ? 100 : 1;
        Bucket known = buckets.get(kind + " " + who);
        return known != null ? known : buckets.computeIfAbsent(key, any -> {
            LocalBucketBuilder builder = Bucket.builder().withCustomTimePrecision(time);
            kind.spans.forEach(span -> builder.addLimit(limit -> limit.capacity((long) span.times() * share).refillIntervally((long) span.times() * share, span.time())));
            return builder.build();
        });
    }

    /** Forgets those who used nothing up; looked for once a second at most. */
    private void forget() {
        long now = System.nanoTime();
        long before = forgotAt.get();
        if (now - before > FORGET_EVERY_NANOS && forgotAt.compareAndSet(before, now)) {
            buckets.entrySet().removeIf(entry -> {
                List<Span> spans = Kind.valueOf(entry.getKey().substring(0, entry.getKey().indexOf(' '))).spans;
                // What is left is the least of all spans; with several, a longer one may be used up in part without being seen.
                return spans.size() == 1 && entry.getValue().getAvailableTokens() >= spans.get(0).times();
            });
        }
    }
}
