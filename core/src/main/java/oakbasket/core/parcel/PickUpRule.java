package oakbasket.core.parcel;

import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Says to which pick-up of a file a request belongs. A pick-up is counted when the last of its bytes has left; a request that goes on with one, after a line that
 * broke or beside others of the same download, is not a second one.
 */
public final class PickUpRule {

    /** How long what broke off can be gone on with. */
    public static final Duration GOES_ON = Duration.ofHours(24);
    /** How long one that broke off takes up a place where they are limited. */
    public static final Duration UNDER_WAY = Duration.ofHours(1);
    /** So much may have left here and never arrived, in what lies between two ends of a line that broke. */
    static final long ON_THE_LINE = 16L << 20;

    /**
     * A pick-up that was begun before, of the same file through the same link.
     *
     * @param caller who began it
     * @param wholeAt when the last byte left; null while some are missing
     * @param lastAt when bytes left last
     */
    public record Before(long id, String caller, Taken taken, @Nullable Instant wholeAt, Instant lastAt) {
    }

    /** What follows for a request. */
    public sealed interface Decision {
    }

    /** It goes on with this pick-up. */
    public record GoesOn(long id) implements Decision {
    }

    /** It begins another one. */
    public record Begins() implements Decision {
    }

    /** As many as are allowed were taken, or are under way. */
    public record UsedUp() implements Decision {
    }

    private PickUpRule() {
    }

    /**
     * Decides.
     *
     * @param before those that were begun, in any order
     * @param from the first byte that is asked for
     * @param most how many are allowed; null where that is not limited
     */
    public static Decision decide(List<Before> before, long from, String caller, @Nullable Integer most, Instant now) {
        Instant since = now.minus(GOES_ON);
        List<Before> newest = before.stream().filter(one -> one.lastAt().isAfter(since)).sorted(Comparator.comparing(Before::lastAt).reversed()).toList();
        Optional<Before> goesOn = newest.stream().filter(one -> one.wholeAt() == null && one.caller().equals(caller)).findFirst();
        if (goesOn.isEmpty() && from > 0) {
            // A telephone that changes from one network to another asks from elsewhere for what is missing.
            goesOn = newest.stream().filter(one -> one.wholeAt() == null && from >= one.taken().firstMissing() - ON_THE_LINE && from <= one.taken().firstMissing())
                    .findFirst()
                    .or(() -> newest.stream().filter(one -> one.caller().equals(caller)).findFirst());
        }
        if (goesOn.isPresent()) {
            return new GoesOn(goesOn.get().id());
        }
        if (most != null && before.stream().filter(one -> one.wholeAt() != null || one.lastAt().isAfter(now.minus(UNDER_WAY))).count() >= most) {
            return new UsedUp();
        }
        return new Begins();
    }
}
